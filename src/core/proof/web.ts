import { cellAt } from '../field/height-field';
import type { Solid, StandingBoard } from './solid';

/** A place where a board is open, with the face up, mm and mm2. */
export interface Opening {
  x: number;
  y: number;
  area: number;
  /** On purpose. */
  wanted: boolean;
}

/** A piece of a board's plan that is thinner than it is to be. */
export interface ThinRegion {
  /** Wood at its thinnest cell, mm; nothing or less where the board is open. */
  web: number;
  cell: number;
  /** How much of it is open, mm2. */
  open: number;
  /** Whether a place that is open on purpose lies in it. */
  wanted: boolean;
}

/** What is thin of a solid: the least of all its wood but what is wanted to be open, and its thin pieces, the thinnest first. */
export interface Webs {
  web: number;
  cell: number;
  thin: ThinRegion[];
}

/**
 * How much wood stands over each cell of a solid, held against the least that is to stand; over and under what is hollow the less counts. Cells that are thinner are gathered into pieces that hang
 * together by their sides. One pass over all cells; 1 byte a cell where something is thin.
 * @param leftOut cells that do not count, as where a cut-out goes through
 * @param wanted places, in the solid's coordinates, that are open on purpose
 */
export function websOf(
  solid: Solid & Partial<Pick<StandingBoard, 'hollow'>>,
  least: number,
  leftOut: (cell: number) => boolean,
  wanted: { x: number; y: number }[],
): Webs {
  const { grid, top, bottom, hollow } = solid;
  const woodAt = (k: number) => {
    const [low, high] = hollow ? [hollow.floor[k], hollow.ceiling[k]] : [0, 0];
    return low < high && high < top[k] && low > bottom[k]
      ? Math.min(top[k] - high, low - bottom[k])
      : top[k] - bottom[k];
  };
  const out: Webs = { web: Infinity, cell: 0, thin: [] };
  const isThin = new Uint8Array(top.length);
  for (let k = 0; k < top.length; k++) {
    const w = woodAt(k);
    if ((w >= least && w >= out.web) || leftOut(k)) continue;
    if (w < least) isThin[k] = 1;
    else [out.web, out.cell] = [w, k];
  }
  const open = new Set(wanted.map((p) => cellAt(grid, p.x, p.y)));
  const stack: number[] = [];
  for (let first = 0; first < isThin.length; first++) {
    if (isThin[first] !== 1) continue;
    const region: ThinRegion = { web: Infinity, cell: first, open: 0, wanted: false };
    stack.push(first);
    isThin[first] = 2;
    for (let k = stack.pop(); k !== undefined; k = stack.pop()) {
      const w = woodAt(k);
      if (w < region.web) [region.web, region.cell] = [w, k];
      if (w <= 0) region.open += grid.cell ** 2;
      if (open.has(k)) region.wanted = true;
      const i = k % grid.width;
      for (const q of [i > 0 ? k - 1 : -1, i < grid.width - 1 ? k + 1 : -1, k - grid.width, k + grid.width])
        if (isThin[q] === 1) {
          isThin[q] = 2;
          stack.push(q);
        }
    }
    out.thin.push(region);
    if (!region.wanted && region.web < out.web) [out.web, out.cell] = [region.web, region.cell];
  }
  out.thin.sort((a, b) => a.web - b.web);
  return out;
}
