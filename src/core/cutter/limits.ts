import type { Cutter } from './cutter';

/** A move that takes less is in air, mm3 a mm of its way: rounding takes as much. */
export const AIR = 0.001;

/** Side engagement, as a share of the diameter, over which a bite counts against the stepdown. Common practice, no source. */
export const WIDE = 0.25;

/** Width of a bit's usual cut, as a share of its diameter (trade handbook, section 3: roughing). */
export const USUAL_WIDTH = 0.4;

/** How many times its usual cut a bit may take where the cut is narrow. Common practice, no source. */
export const MOST_USUAL = 1.5;

/** A descent that goes aside by less than this share of its drop is straight down. */
export const STRAIGHT = 0.1;

/** Share of a bit's disc that has to stand on wood for a straight descent to be a plunge into it: the middle has its share then. */
export const SOLID = 0.25;

/** Most chip area of a narrow cut, mm3 a mm. */
export function mostChipArea({ diameter, maxStepdown }: Pick<Cutter, 'diameter' | 'maxStepdown'>): number {
  return maxStepdown * USUAL_WIDTH * diameter * MOST_USUAL;
}

/** Cells that the radius of a finishing ball, or the corner of a bull-nose, asks for: a sixteenth of a ball of 3.175 mm, rounded to 0.1 mm. */
export const CELLS_A_RADIUS = 15.875;
