import type { Pass } from './pass';

/** The order of work: each kind after those before it. */
const RANK: Record<Pass['kind'], number> = { rough: 0, flat: 1, finish: 2, letter: 3, cutout: 4 };

const WHY: Record<Exclude<Pass['kind'], 'cutout'>, string> = {
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
  cutout: 'the cut-out',
};

/** Why passes cannot be cut in this order, or null: roughing, flats, finishing, letters, cut-outs. */
export function orderProblem(passes: Pick<Pass, 'kind'>[]): string | null {
  for (let i = 1; i < passes.length; i++) {
    const before = passes.slice(0, i).find((p) => RANK[p.kind] > RANK[passes[i].kind]);
    const { kind } = passes[i];
    if (!before || kind === 'cutout') continue;
    if (before.kind === 'cutout')
      return `${DOING[kind]} after the cut-out would work on a piece that hangs by its tabs only`;
    return `${DOING[kind]} after ${DOING[before.kind]} ${WHY[kind]}`;
  }
  return null;
}

/** Where a new pass of a kind belongs among the others: after the last that does not come later. */
export function placeFor(passes: Pick<Pass, 'kind'>[], kind: Pass['kind']): number {
  return passes.findLastIndex((p) => RANK[p.kind] <= RANK[kind]) + 1;
}
