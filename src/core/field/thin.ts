import type { Grid } from './height-field';

/** Some of a grid's cells, evenly: every `step`-th one along both axes from the cell (i, j) on, as a grid of their own. */
export interface Thin {
  i: number;
  j: number;
  step: number;
  grid: Grid;
}

/** The first and how many of the places first + n * step lie between two cells, one more on either side where there is one. */
function along(first: number, step: number, count: number, from: number, to: number): { at: number; n: number } {
  const last = Math.floor((count - 1 - first) / step);
  const a = Math.min(last, Math.max(0, Math.floor((from - first) / step)));
  const b = Math.min(last, Math.max(a, Math.ceil((to - first) / step)));
  return { at: first + a * step, n: b - a + 1 };
}

/**
 * The cells of a grid, or of a part of it, so thinly that no more than `most` of them lie along either side: every n-th as it is, so that what is
 * read of them is true there.
 * @param box the part, mm
 */
export function thinly(g: Grid, most: number, box?: { x0: number; y0: number; x1: number; y1: number }): Thin {
  const of = (v: number, origin: number) => (v - origin) / g.cell;
  const [from, to] = box
    ? [
        [of(box.x0, g.originX), of(box.y0, g.originY)],
        [of(box.x1, g.originX), of(box.y1, g.originY)],
      ]
    : [
        [0, 0],
        [g.width - 1, g.height - 1],
      ];
  const cells =
    Math.max(Math.min(to[0], g.width) - Math.max(from[0], 0), Math.min(to[1], g.height) - Math.max(from[1], 0)) + 1;
  const step = Math.max(1, Math.ceil(cells / most));
  const first = Math.floor(step / 2);
  const x = along(Math.min(first, g.width - 1), step, g.width, from[0], to[0]);
  const y = along(Math.min(first, g.height - 1), step, g.height, from[1], to[1]);
  const grid: Grid = {
    width: x.n,
    height: y.n,
    cell: g.cell * step,
    originX: g.originX + x.at * g.cell,
    originY: g.originY + y.at * g.cell,
  };
  return { i: x.at, j: y.at, step, grid };
}

/** Of an array on a grid what lies on some of its cells. */
export function thinOut<T extends Float32Array | Uint8Array>(data: T, g: Grid, { i, j, step, grid }: Thin): T {
  const { width, height } = grid;
  const out = (data instanceof Uint8Array ? new Uint8Array(width * height) : new Float32Array(width * height)) as T;
  for (let b = 0; b < height; b++) {
    const row = (j + b * step) * g.width + i;
    for (let a = 0; a < width; a++) out[b * width + a] = data[row + a * step];
  }
  return out;
}
