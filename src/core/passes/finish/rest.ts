import { type Cutter, profileOf, ridgeOf } from '../../cutter/cutter';
import { distanceOutside } from '../../field/distance';
import { cellAt, cellPlace, type Grid, type HeightField, sampleField } from '../../field/height-field';
import { shortestHop } from '../../motion/link';
import type { PassContext } from '../context';
import type { FinishPass } from './schema';

/** How far the tip is drawn up where it leaves ground that is to be cut, mm: more than a bit that was set anew may be off (trade handbook, zeroing). */
const FADE = 0.06;

/** What finishing does not cut because nothing stands there. */
export interface Rest {
  /** How far it is to the nearest place where something is to be cut, mm, on the grid of what stands. */
  grid: Grid;
  away: Float32Array;
  /** How far around it rows go on, mm. */
  around: number;
  /** Least air on a row that is worth a hop, mm; Infinity where none is. */
  hop: number;
}

/**
 * Where a bit that rests on the target's surface meets wood, by what stands now: more than a row may leave at all, its tolerance and the ridge
 * beside it, along the surface's normal.
 * @param offset where its tip is when it rests on the surface
 */
export async function restOf(ctx: PassContext, pass: FinishPass, cutter: Cutter, offset: HeightField): Promise<Rest> {
  const { stands, target, machine, heights } = ctx;
  const { width, height, cell } = stands;
  const touch = await ctx.host.offset(stands, profileOf(cutter), 0);
  const least = pass.tolerance + ridgeOf(cutter, pass.stepover);
  const something = new Uint8Array(touch.length);
  const cliff = 4 * offset.cell;
  const slope = (a: number, b: number) => (Math.abs(a - b) < 2 * cliff ? (a - b) / (2 * cell) : 0);
  for (let j = 1; j + 1 < height; j++) {
    for (let i = 1; i + 1 < width; i++) {
      const k = j * width + i;
      const { x, y } = cellPlace(stands, k);
      if (cellAt(offset, x, y) < 0) continue;
      const over = touch[k] - Math.max(sampleField(offset, x, y, cliff), target.ground);
      if (over <= least) continue;
      const steep = Math.hypot(1, slope(touch[k + 1], touch[k - 1]), slope(touch[k + width], touch[k - width]));
      if (over > least * steep) something[k] = 1;
    }
  }
  const away = distanceOutside(something, width, height);
  for (let k = 0; k < away.length; k++) away[k] *= cell;
  return {
    grid: stands,
    away,
    around: Math.max(pass.stepover, cutter.diameter / 8, 2 * cell),
    hop: shortestHop(machine, cutter, heights.between, heights.approach / 2),
  };
}

/** How far the tip is drawn up at a place, mm. */
export function faded({ grid, away, around }: Rest, x: number, y: number): number {
  const k = cellAt(grid, x, y);
  return FADE * (k < 0 ? 1 : Math.min(1, away[k] / around));
}

/**
 * Takes out of a row what is in air for longer than a hop is worth, NaN there, and draws it up towards what is left out, so that a bit that was
 * set a little too deep leaves no edge.
 * @param z heights of the row, mm; NaN where it is not cut
 * @param place where its samples lie
 * @param step from one to the next, mm
 */
export function leaveAir(z: Float64Array, rest: Rest, place: (i: number) => [number, number], step: number): void {
  let idle = 0;
  const leave = (end: number, whole: boolean) => {
    if (whole || idle * step > rest.hop) z.fill(Number.NaN, end - idle, end);
    idle = 0;
  };
  let begun = false;
  for (let i = 0; i < z.length; i++) {
    if (Number.isNaN(z[i])) {
      leave(i, true);
      begun = false;
      continue;
    }
    const up = faded(rest, ...place(i));
    z[i] += up;
    if (up === FADE) idle++;
    else {
      leave(i, !begun);
      begun = true;
    }
  }
  leave(z.length, true);
}
