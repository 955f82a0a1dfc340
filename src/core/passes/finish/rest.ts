import { type Cutter, profileOf, ridgeOf } from '../../cutter/cutter';
import { distanceInside, distanceOutside } from '../../field/distance';
import { flagsOf } from '../../field/flags';
import { cellAt, cellPlace, type Grid, goesRound, type HeightField, sampleField } from '../../field/height-field';
import { shortestHop } from '../../motion/link';
import type { Finished, PassContext } from '../context';
import { LEVEL } from '../flat/fields';
import type { FinishPass } from './schema';

/** Ground in air that is narrower than this is not worth cutting its sides apart, mm: the bit would turn round at every row. */
const WIDE = 6;
/** Air on a row that is shorter is gone through, mm. */
const TURN = 3;
/** How far the tip is drawn up where it leaves ground that is to be cut, mm: more than a bit that was set anew may be off (trade handbook, zeroing). */
const FADE = 0.06;

/** From how high wood is tall, as a share of the bit's stepdown. */
const HIGH = 0.6;

/** What finishing does not cut because nothing stands there. */
export interface Rest {
  /** How far it is to the nearest place where something is to be cut, mm, on the grid of what stands. */
  grid: Grid;
  away: Float32Array;
  /** How far around it rows go on, mm. */
  around: number;
  /** 1 where rows are left out: on ground in air that is wide enough for both of its sides to be cut apart. */
  idle: Uint8Array;
  /** Share of what is to be cut over which wood stands higher than lines along it should take at once. */
  tall: number;
  /** Longest way on the surface that is quicker than a hop, mm; Infinity where all are. */
  hop: number;
}

/** The steepest at which what rows leave is reckoned, as the square of the surface's length over its run: 72 degrees. */
const STEEPEST = 10;

/** The more of either that two passes leave. */
const moreOf = (a: Finished, b: Finished): Finished => ({
  tolerance: Math.max(a.tolerance, b.tolerance),
  ridge: Math.max(a.ridge, b.ridge),
});

/** What a pass leaves by its own numbers, and those before it. */
export const leftBy = (ctx: PassContext, pass: FinishPass, cutter: Cutter): Finished =>
  moreOf(ctx.finished, { tolerance: pass.tolerance, ridge: ridgeOf(cutter, pass.stepover) });

/**
 * Where a bit that rests on the target's surface meets wood, by what stands now: more than its tolerance, and more than rows of a pass before it
 * may leave, along the surface's normal. On a slope rows lie further apart, and their ridge is as much higher as the square of that.
 * @param offset where its tip is when it rests on the surface
 */
export async function restOf(ctx: PassContext, pass: FinishPass, cutter: Cutter, offset: HeightField): Promise<Rest> {
  const { stands, target, machine, heights } = ctx;
  const { width, height, cell } = stands;
  const touch = await ctx.host.offset(stands, profileOf(cutter), 0);
  const { ridge } = ctx.finished;
  const tolerance = Math.max(pass.tolerance, ctx.finished.tolerance) + LEVEL;
  const something = new Uint8Array(touch.length);
  let [all, tall] = [0, 0];
  const cliff = 4 * offset.cell;
  const slope = (a: number, b: number) => (Math.abs(a - b) < 2 * cliff ? (a - b) / (2 * cell) : 0);
  const round = goesRound(stands);
  for (let j = round ? 0 : 1; j + (round ? 0 : 1) < height; j++) {
    const [south, north] = [(j === 0 ? height - 1 : j - 1) * width, (j + 1 === height ? 0 : j + 1) * width];
    for (let i = 1; i + 1 < width; i++) {
      const k = j * width + i;
      const { x, y } = cellPlace(stands, k);
      if (cellAt(offset, x, y) < 0) continue;
      const over = touch[k] - Math.max(sampleField(offset, x, y, cliff), target.ground);
      if (over <= tolerance + ridge) continue;
      const steep2 = 1 + slope(touch[k + 1], touch[k - 1]) ** 2 + slope(touch[north + i], touch[south + i]) ** 2;
      if (over <= (tolerance + ridge * Math.min(STEEPEST, steep2)) * Math.sqrt(steep2)) continue;
      something[k] = 1;
      all++;
      if (over > HIGH * cutter.maxStepdown) tall++;
    }
  }
  const away = distanceOutside(something, width, height, round);
  for (let k = 0; k < away.length; k++) away[k] *= cell;
  const around = Math.max(pass.stepover, cutter.diameter / 8, 1.25 * cell);
  return {
    grid: stands,
    away,
    around,
    tall: all > 0 ? tall / all : 0,
    idle: wideIdle(away, stands, around),
    hop: shortestHop(machine, cutter, heights.between, heights.approach / 2),
  };
}

/**
 * What is left for lines along its border: they follow it as near as it is known, where rows go on by so much more that none of them begins in the
 * wood that it is to take.
 */
export const forLines = (rest: Rest, stepover: number): Rest => ({
  ...rest,
  around: Math.min(rest.around, Math.max(stepover, rest.grid.cell / 2)),
});

/** Ground in air of which every place lies in a circle of it that is WIDE across. */
function wideIdle(away: Float32Array, grid: Grid, around: number): Uint8Array {
  const { width, height, cell } = grid;
  const inside = distanceInside(
    flagsOf(away, (d) => d > around),
    width,
    height,
    goesRound(grid),
  );
  const reach = WIDE / 2 / cell;
  const near = distanceOutside(
    flagsOf(inside, (d) => d >= reach),
    width,
    height,
    goesRound(grid),
  );
  return flagsOf(near, (d) => d < reach);
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
  let [idle, wide] = [0, 0];
  const leave = (end: number, whole: boolean) => {
    if (whole || wide * step > TURN || idle * step > rest.hop) z.fill(Number.NaN, end - idle, end);
    idle = 0;
    wide = 0;
  };
  let begun = false;
  for (let i = 0; i < z.length; i++) {
    if (Number.isNaN(z[i])) {
      leave(i, true);
      begun = false;
      continue;
    }
    const [x, y] = place(i);
    const up = faded(rest, x, y);
    z[i] += up;
    const k = cellAt(rest.grid, x, y);
    if (up === FADE) {
      idle++;
      if (k < 0 || rest.idle[k] === 1) wide++;
    } else {
      leave(i, !begun);
      begun = true;
    }
  }
  leave(z.length, true);
}

/** Cells further than the bit's radius inside of what has been cleared. */
export function idleCells({ cleared, target }: PassContext, cutter: Cutter): Uint8Array | null {
  if (!cleared.includes(1)) return null;
  const { width, height, cell } = target.field;
  const d = distanceInside(cleared, width, height);
  return flagsOf(d, (v) => v * cell > cutter.diameter / 2);
}
