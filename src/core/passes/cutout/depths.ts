import { type Cutter, upcutOf } from '../../cutter/cutter';
import type { CutoutPass } from './schema';

/** How much deeper than the upcut part of a compression bit its first lap goes, mm: touching off repeats to a tenth of it. */
const OVER = 0.5;

/** What of a bit decides how deep the laps of a cut-out go. */
type Lapping = Pick<Cutter, 'helix' | 'upcut' | 'diameter' | 'maxStepdown'>;

/**
 * Depths that a cut-out runs at, in wood that is `most` mm thick and `least` where it is thinnest: laps in even levels, the
 * first of a compression bit deeper than its upcut part, which would tear the board's upper edge, as far as the bit bears it.
 */
export function cutoutDepths(
  pass: CutoutPass,
  { most, least }: { most: number; least: number },
  start: number,
  cutter: Lapping,
) {
  const bottom = -most - pass.into;
  const floor = pass.floor > 0 ? Math.min(start, -most + pass.floor) : bottom;
  // Passes = ceil(depth / stepdown) (trade handbook, section 3; common practice, no source).
  const lapsIn = (depth: number) => Math.max(0, Math.ceil(depth / pass.stepdown - 1e-6));
  const depth = start - floor;
  const even = depth / Math.max(1, lapsIn(depth));
  const upcut = upcutOf(cutter);
  const first = upcut > 0 ? Math.max(even, Math.min(depth, cutter.maxStepdown, upcut + OVER)) : even;
  const levels = depth > 0 ? 1 + lapsIn(depth - first) : 0;
  return { start, bottom, floor, levels, first, tabTop: Math.min(start, -least + pass.tabs.thickness) };
}

/** Depth of the nth lap, from 1 on: what is left under the first is cut in even levels. */
export function depthOfLap({ start, floor, levels, first }: ReturnType<typeof cutoutDepths>, n: number): number {
  if (n >= levels) return floor;
  return start - first - ((start - first - floor) * (n - 1)) / (levels - 1);
}
