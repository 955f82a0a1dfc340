import type { Pass } from './job';

/** The order of work: each kind after those before it. */
const RANK: Record<Pass['kind'], number> = { rough: 0, flat: 1, finish: 2, letter: 3 };

const WHY: Record<Pass['kind'], string> = {
  rough: 'would cut into wood that is finished',
  flat: 'would find its field already cut by the ball',
  finish: 'would wear the edges of letters off',
  letter: 'would be cut over',
};
const DOING: Record<Pass['kind'], string> = {
  rough: 'roughing',
  flat: 'clearing flats',
  finish: 'finishing',
  letter: 'cutting letters',
};

/** Why passes cannot be cut in this order, or null: roughing, then flats, then finishing, then letters. */
export function orderProblem(passes: Pick<Pass, 'kind'>[]): string | null {
  for (let i = 1; i < passes.length; i++) {
    const before = passes.slice(0, i).find((p) => RANK[p.kind] > RANK[passes[i].kind]);
    if (before) return `${DOING[passes[i].kind]} after ${DOING[before.kind]} ${WHY[passes[i].kind]}`;
  }
  return null;
}

/** Where a new pass of a kind belongs among the others: after the last that does not come later. */
export function placeFor(passes: Pick<Pass, 'kind'>[], kind: Pass['kind']): number {
  return passes.findLastIndex((p) => RANK[p.kind] <= RANK[kind]) + 1;
}
