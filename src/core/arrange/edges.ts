import { type Grid, goesRound } from '../field/height-field';
import type { Surface } from './compose';
import { type DrawingGrid, type Window, windowGrid } from './window';

/** What is drawn of a surface: its heights, mm, and where it belongs to the piece. */
export type Drawn = Pick<Surface, 'z' | 'cover'>;

/** A drawn surface on its grid. Around a raised piece lies its base plane, at 0; what lies around a sunk one is kept board. */
export type Standing = Drawn & { grid: Grid; raised: boolean };

/** Cells along a side of the tiles that are looked at one by one. */
const TILE = 128;
/** Second difference of three cells in a row from which an edge may stand up between two of them, mm. */
const EDGE = 0.01;
/** How far an edge may stand above the straight line between two cells, mm. */
const ALLOWED = 0.005;

/** Height of a cell over the base plane; NaN around a sunk piece. */
const heightOf = ({ z, cover, raised }: Drawn & { raised: boolean }, k: number): number =>
  cover[k] || raised ? z[k] : Number.NaN;

/** How far three cells in a row bend downwards, mm; NaN where one of them does not belong to the surface. */
const bendOf = (s: Standing, k: number, before: number, after: number): number =>
  2 * heightOf(s, k) - heightOf(s, k + before) - heightOf(s, k + after);

/** Steps from a cell of a row to those beside it in the rows before and after; null where there is none. Round a drum there always is one. */
function rowsBeside(g: Grid, j: number): { before: number; after: number } | null {
  const { width, height } = g;
  const round = goesRound(g);
  if (!round && (j === 0 || j + 1 === height)) return null;
  return { before: j > 0 ? -width : (height - 1) * width, after: j + 1 < height ? width : -(height - 1) * width };
}

/** Whether a tile holds a place where the surface bends downwards by more than its cells can show. */
function hasEdge(s: Standing, i0: number, j0: number): boolean {
  const { width, height } = s.grid;
  const [i1, j1] = [Math.min(width, i0 + TILE), Math.min(height, j0 + TILE)];
  for (let j = j0; j < j1; j++) {
    const beside = rowsBeside(s.grid, j);
    for (let i = i0; i < i1; i++) {
      const k = j * width + i;
      if (i > 0 && i + 1 < width && bendOf(s, k, -1, 1) > EDGE) return true;
      if (beside && bendOf(s, k, beside.before, beside.after) > EDGE) return true;
    }
  }
  return false;
}

/** Windows of a grid in which a surface has convex edges: tiles beside each other in a row are taken together. */
export function edgeWindows(s: Standing): Window[] {
  const { grid } = s;
  const out: Window[] = [];
  for (let j = 0; j < grid.height; j += TILE) {
    let run: Window | null = null;
    for (let i = 0; i < grid.width; i += TILE) {
      if (!hasEdge(s, i, j)) {
        run = null;
        continue;
      }
      const width = Math.min(TILE, grid.width - i);
      if (run) run.width += width;
      else {
        run = { i, j, width, height: Math.min(TILE, grid.height - j) };
        out.push(run);
      }
    }
  }
  return out;
}

/** The heights of cells, and how far each of them is raised, mm. */
interface Raising {
  z: Float32Array;
  lifted: Map<number, number>;
}

/**
 * Raises two cells so that the straight line between them passes close under a peak, neither above it: both alike as far as that goes, for
 * the higher one may be the rim of a level field.
 * @param share the peak's place, as the share of the way from the first to the second
 * @param peak its height, mm
 */
function raisePair({ z, lifted }: Raising, a: number, b: number, share: number, peak: number): void {
  const lack = peak - ALLOWED - (1 - share) * z[a] - share * z[b];
  if (!(lack > 0)) return;
  const room = [Math.max(0, peak - z[a]), Math.max(0, peak - z[b])];
  const weight = [1 - share, share];
  const by = room.map((r) => Math.min(r, lack));
  const rest = lack - weight[0] * by[0] - weight[1] * by[1];
  const free = by[0] < room[0] ? 0 : 1;
  by[free] = Math.min(room[free], by[free] + rest / Math.max(weight[free], 1e-6));
  [a, b].forEach((k, i) => {
    if (by[i] > (lifted.get(k) ?? 0)) lifted.set(k, by[i]);
  });
}

/**
 * Where the peak between two places in a row stands, from the slopes that lead up to it: a ridge stands no higher than where the two meet.
 * Heights at even steps, the peak between the second and the third.
 * @returns the share of the way from the second to the third; NaN where the surface does not bend downwards there
 */
function peakBetween(before: number, p: number, q: number, after: number): number {
  const up = p - before;
  const down = after - q;
  if (!(up > down)) return Number.NaN;
  const share = (q - down - p) / (up - down);
  return share > 0 && share < 1 ? share : Number.NaN;
}

/** The places between cells that are read, in cells: halfway along x, along y, and in the middle of four. */
const HALFWAY = [
  [1, 0],
  [0, 1],
  [1, 1],
];

/** A window of a surface, and where it is read between its cells: half a cell along x, along y, or both. */
interface Between {
  window: Window;
  di: number;
  dj: number;
}

/** Raises the cells around the places that were drawn between those of a window. */
function raiseBetween(at: Raising, s: Standing, { window: w, di, dj }: Between, drawn: Drawn): void {
  const { width, height } = s.grid;
  const between = { ...drawn, raised: s.raised };
  const i1 = Math.min(w.width, width - di - w.i);
  const j1 = Math.min(w.height, height - (goesRound(s.grid) ? 0 : dj) - w.j);
  const across = di === 1 && dj === 1;
  const step = di + dj * w.width;
  for (let j = 0; j < j1; j++) {
    const up = w.j + j + dj < height ? dj * width : (dj - height) * width;
    for (let i = 0; i < i1; i++) {
      const q = j * w.width + i;
      const a = (w.j + j) * width + w.i + i;
      const b = a + up + di;
      const near = heightOf(s, a);
      const far = heightOf(s, b);
      const middle = heightOf(between, q);
      if (across) {
        // Of the two lines across four cells the higher one counts.
        if (heightOf(s, a + 1) + heightOf(s, b - 1) > near + far) raisePair(at, a + 1, b - 1, 0.5, middle);
        else raisePair(at, a, b, 0.5, middle);
        continue;
      }
      raisePair(at, a, b, 0.5, middle);
      // On either side of the middle a ridge may stand higher than all that was read.
      const under = (di === 1 ? i > 0 : j > 0) ? heightOf(between, q - step) : Number.NaN;
      const beyond = (di === 1 ? i + 1 < w.width : j + 1 < w.height) ? heightOf(between, q + step) : Number.NaN;
      const first = peakBetween(under, near, middle, far);
      const second = peakBetween(near, middle, far, beyond);
      if (first > 0) raisePair(at, a, b, first / 2, near + (near - under) * first);
      if (second > 0) raisePair(at, a, b, (1 + second) / 2, middle + (middle - near) * second);
    }
  }
}

/** Draws a surface on other grids, from its layers, in any order; `each` is called with every one and its place in the list. */
export type DrawAll = (grids: DrawingGrid[], each: (drawn: Drawn, n: number) => void) => Promise<void>;

/**
 * Cells that must be raised so that nothing planned on a grid cuts into edges and walls that stand between its cells. In windows with convex
 * edges the surface is drawn three times more, halfway between cells along x, along y and along both; where it stands above the straight line
 * between the cells on either side, of two such lines the higher one, these are raised to it; and so where the slopes on both sides of a ridge
 * would meet higher still. A wall is then known to half a cell.
 * @returns pairs of cell and how far it is raised, mm, by the cells' numbers
 */
export async function raisedEdges(s: Standing, draw: DrawAll): Promise<Float64Array> {
  const { grid } = s;
  const half = grid.cell / 2;
  const lifted = new Map<number, number>();
  const all = edgeWindows(s).flatMap((window) => HALFWAY.map(([di, dj]): Between => ({ window, di, dj })));
  const grids = all.map(({ window, di, dj }) => {
    const own = windowGrid(grid, window);
    return { ...own, originX: own.originX + di * half, originY: own.originY + dj * half };
  });
  await draw(grids, (drawn, n) => raiseBetween({ z: s.z, lifted }, s, all[n], drawn));
  const cells = Float64Array.from(lifted.keys()).sort();
  const out = new Float64Array(2 * cells.length);
  cells.forEach((k, n) => {
    out.set([k, lifted.get(k)!], 2 * n);
  });
  return out;
}
