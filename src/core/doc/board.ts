import { z } from '../units/zod';
import { materialSchema } from './material';
import { FLIPS, finite, id, name, place, positive, size } from './parts';
import { setupSchema } from './setup';

/** Least wood under a cut as a rule: 1/16 in (trade handbook, section 3; common practice, no source), mm. */
export const LEAST_WEB = 25.4 / 16;

/**
 * A board that is a drum: a round bar that turns about its axis, which lies along x. Its sheet is wound once round it: `x` is how long it is, `y` pi
 * times its diameter, `thickness` its radius, and y / radius the angle.
 */
export const drumSchema = z.object({
  /** Lengths at its left and right end that cannot be carved, for the chuck and the tail stock hold it there, mm. */
  chuck: finite.min(0).max(10_000),
  tailStock: finite.min(0).max(10_000),
  /** Lengths at its ends of other wood, glued on to hold it by: nothing is carved there either, mm. */
  extended: z.object({ chuck: finite.min(0).max(10_000), tailStock: finite.min(0).max(10_000) }),
  /** A ring of its exact diameter that is never cut, to touch off on, with a mark for x and angle: its middle and width, mm; null for none. */
  collar: z.object({ x: finite.min(0).max(10_000), width: positive.max(500) }).nullable(),
});
export type DrumStock = z.infer<typeof drumSchema>;

export const boardSchema = z.object({
  id,
  name,
  x: size,
  y: size,
  /** Measured, not nominal. */
  thickness: positive.max(500),
  material: materialSchema,
  grain: z.enum(['along-x', 'along-y', 'none']),
  /** What is on the board's face: paint and film must not be skimmed off. */
  face: z.enum(['bare', 'painted', 'masked']),
  flip: z.enum(FLIPS),
  /** Least wood that is to be left between what is cut from both faces, and under the deepest cut, mm. */
  web: positive.max(500),
  /** Places, with the face up, at which the board is open on purpose: all that is too thin around them is wanted so. */
  openings: z.array(place).max(100),
  /** The setup whose pieces are laid into it, for a board that is a jig; null for all others. */
  jigFor: id.nullable(),
  /** Null for a board that lies flat. */
  drum: drumSchema.nullable(),
  /** Its clampings, in the order in which they are cut. */
  setups: z.array(setupSchema).max(20),
});
export type Board = z.infer<typeof boardSchema>;
