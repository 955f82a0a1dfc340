import type { Pass } from './pass';

/** The order of work: each kind after those before it. */
const RANK: Record<Pass['kind'], number> = {
  skim: 0,
  rough: 1,
  flat: 2,
  finish: 3,
  letter: 4,
  hole: 5,
  cutout: 6,
};

const WHY: Record<Exclude<Pass['kind'], 'cutout'>, string> = {
  skim: 'would take off what is cut already',
  rough: 'would cut into wood that is finished',
  flat: 'would find its field already cut by the ball',
  finish: 'would wear the edges of letters off',
  letter: 'would be cut over',
  hole: 'would be cut over',
};
const DOING: Record<Pass['kind'], string> = {
  skim: 'skimming',
  rough: 'roughing',
  flat: 'clearing flats',
  finish: 'finishing',
  letter: 'cutting letters',
  hole: 'making holes',
  cutout: 'the cut-out',
};

/** Why passes cannot be cut in this order, or null: skimming, roughing, flats, finishing, letters, holes, cut-outs. */
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
