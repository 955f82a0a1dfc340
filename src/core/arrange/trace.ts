import { ringArea } from '../field/contours';
import { AIR, type Grid } from '../field/height-field';
import type { Drawn } from '../outline/flatten';
import { medialAxis, thinChain } from '../outline/medial';
import type { Polygon } from '../outline/polygon';
import { evenRings } from '../outline/union';
import type { Rendered } from './rendered';
import { traceCells } from './silhouette';
import { windowGrid } from './window';

/** Patches smaller than this many cells are noise. */
const NOISE = 12;
/** Places along outlines that their middles are found from lie this many cells apart. */
const SPACING = 2;
/** How far what is kept of a middle line may lie off it, in cells. */
const WANDER = 0.6;

/** The outlines of what of a rendered layer stands higher than `above` mm over its foot; rings with their inside at the left. */
export function traceOutlines(r: Rendered, grid: Grid, above: number): Polygon {
  const { heights } = r;
  const rings = traceCells((k) => heights[k] !== AIR && heights[k] > above, windowGrid(grid, r.window));
  const least = NOISE * grid.cell * grid.cell;
  return evenRings(rings.filter((ring) => Math.abs(ringArea(ring)) >= least));
}

/**
 * The middle lines of outlines: their medial axis without the spurs that run out into corners, which are no longer than the line
 * there is wide.
 */
export function middleLines(polygon: Polygon, cell: number): Drawn[] {
  const lines: Drawn[] = [];
  for (const chain of medialAxis(polygon, SPACING * cell)) {
    const n = chain.length / 3;
    let [long, widest] = [0, 0];
    for (let k = 0; k < n; k++) {
      widest = Math.max(widest, chain[3 * k + 2]);
      if (k > 0) long += Math.hypot(chain[3 * k] - chain[3 * k - 3], chain[3 * k + 1] - chain[3 * k - 2]);
    }
    const end = Math.min(chain[2], chain[3 * n - 1]);
    if (n < 2 || (end < 0.5 * widest && long < 2 * widest)) continue;
    const flat = chain.map((v, i) => (i % 3 === 2 ? 0 : v));
    const kept = thinChain(flat, WANDER * cell);
    const points = Float64Array.from({ length: (kept.length / 3) * 2 }, (_, i) => kept[3 * (i >> 1) + (i % 2)]);
    lines.push({ points, closed: false });
  }
  return lines;
}
