import type { Grid } from '../field/height-field';
import type { Surface } from './compose';
import { type Window, windowGrid } from './window';

/** What is drawn of a surface: its heights, mm, and where it belongs to the piece. */
export type Drawn = Pick<Surface, 'z' | 'cover'>;

/** A drawn surface on its grid. Around a raised piece lies its base plane, at 0; what lies around a sunk one is kept board. */
export type Standing = Drawn & { grid: Grid; raised: boolean };

/** Cells along a side of the tiles that are looked at one by one. */
const TILE = 128;
/** Second difference of three cells in a row from which an edge may stand up between two of them, mm. */
const EDGE = 0.01;
/** How far an edge may stand above the straight line between two cells, mm. */
const ALLOWED = 0.008;

/** Height of a cell over the base plane; NaN around a sunk piece. */
const heightOf = ({ z, cover, raised }: Drawn & { raised: boolean }, k: number): number =>
  cover[k] || raised ? z[k] : Number.NaN;

/** Whether a tile holds a place where the surface bends downwards by more than its cells can show. */
function hasEdge(s: Standing, i0: number, j0: number): boolean {
  const { width, height } = s.grid;
  const bends = (k: number, step: number) => 2 * heightOf(s, k) - heightOf(s, k - step) - heightOf(s, k + step) > EDGE;
  for (let j = j0; j < Math.min(height, j0 + TILE); j++) {
    for (let i = i0; i < Math.min(width, i0 + TILE); i++) {
      const k = j * width + i;
      if (i > 0 && i + 1 < width && bends(k, 1)) return true;
      if (j > 0 && j + 1 < height && bends(k, width)) return true;
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

/** A place on the straight line between two cells: the share of the way to the second, and the height that stands there, mm. */
interface Peak {
  share: number;
  z: number;
}

/**
 * Raises two cells so that the straight line between them passes close under a peak, neither above it: both alike as far as that goes, for
 * the higher one may be the rim of a level field.
 */
function raisePair(lifted: Map<number, number>, z: Float32Array, a: number, b: number, peak: Peak): void {
  const lack = peak.z - ALLOWED - (1 - peak.share) * z[a] - peak.share * z[b];
  if (!(lack > 0)) return;
  const room = [Math.max(0, peak.z - z[a]), Math.max(0, peak.z - z[b])];
  const weight = [1 - peak.share, peak.share];
  const by = room.map((r) => Math.min(r, lack));
  const rest = lack - weight[0] * by[0] - weight[1] * by[1];
  const free = by[0] < room[0] ? 0 : 1;
  by[free] = Math.min(room[free], by[free] + rest / Math.max(weight[free], 1e-6));
  [a, b].forEach((k, i) => {
    if (by[i] > (lifted.get(k) ?? 0)) lifted.set(k, by[i]);
  });
}

/**
 * The peak between two places in a row, from the slopes that lead up to it: a ridge stands no higher than where the two meet. Heights at even
 * steps, the peak between the second and the third; null where the surface does not bend downwards there.
 */
function peakOf(before: number, p: number, q: number, after: number): Peak | null {
  const up = p - before;
  const down = after - q;
  const share = (q - down - p) / (up - down);
  return up > down && share > 0 && share < 1 ? { share, z: p + up * share } : null;
}

/** The places between cells that are read, in cells: halfway along x, along y, and in the middle of four. */
const HALFWAY = [
  [1, 0],
  [0, 1],
  [1, 1],
];

/**
 * Cells that must be raised so that nothing planned on a grid cuts into edges and walls that stand between its cells. In windows with convex
 * edges the surface is drawn three times more, halfway between cells along x, along y and along both; where it stands above the straight line
 * between the cells on either side, of two such lines the higher one, these are raised to it; and so where the slopes on both sides of a ridge
 * would meet higher still. A wall is then known to half a cell.
 * @param draw the surface on another grid, from its layers
 * @returns pairs of cell and how far it is raised, mm
 */
export async function raisedEdges(s: Standing, draw: (grid: Grid) => Promise<Drawn>): Promise<Float64Array> {
  const { grid, z } = s;
  const lifted = new Map<number, number>();
  for (const w of edgeWindows(s)) {
    for (const [di, dj] of HALFWAY) {
      const own = windowGrid(grid, w);
      const half = grid.cell / 2;
      const drawn = await draw({ ...own, originX: own.originX + di * half, originY: own.originY + dj * half });
      const between = { ...drawn, raised: s.raised };
      const { width } = grid;
      for (let q = 0; q < drawn.z.length; q++) {
        const i = w.i + (q % w.width);
        const j = w.j + Math.floor(q / w.width);
        if (i + di >= width || j + dj >= grid.height) continue;
        const middle = heightOf(between, q);
        let [a, b] = [j * width + i, (j + dj) * width + i + di];
        // Of the two lines across four cells the higher one counts.
        if (di === 1 && dj === 1 && heightOf(s, a + 1) + heightOf(s, b - 1) > heightOf(s, a) + heightOf(s, b))
          [a, b] = [a + 1, b - 1];
        raisePair(lifted, z, a, b, { share: 0.5, z: middle });
        if (di + dj > 1) continue;
        // On either side of the middle a ridge may stand higher than all that was read.
        const step = di + dj * w.width;
        const column = q % w.width;
        const before = di === 1 ? column > 0 : q >= step;
        const after = di === 1 ? column + 1 < w.width : q + step < drawn.z.length;
        const near = heightOf(s, a);
        const far = heightOf(s, b);
        const first = before ? peakOf(heightOf(between, q - step), near, middle, far) : null;
        const second = after ? peakOf(near, middle, far, heightOf(between, q + step)) : null;
        if (first) raisePair(lifted, z, a, b, { ...first, share: first.share / 2 });
        if (second) raisePair(lifted, z, a, b, { ...second, share: (1 + second.share) / 2 });
      }
    }
  }
  return Float64Array.from([...lifted].flat());
}
