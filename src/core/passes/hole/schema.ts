import { depthStep, finite, place, positive } from '../../doc/parts';
import { passParts, rampAngle } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** Round holes, drilled by a bit as wide as they are, milled in a helix by a narrower one. */
export const holeSchema = z.object({
  ...passParts,
  kind: z.literal('hole'),
  places: z.array(place).min(1).max(500),
  diameter: positive.max(200),
  /** From the board's top; null goes through, and `into` the spoilboard. */
  depth: positive.max(500).nullable(),
  into: finite.min(0).max(10),
  /** Deepest that is taken at once, and a turn of the helix. */
  peck: depthStep,
  rampAngle,
  /** The diameter of the dowels that go into them and on into the spoilboard, to find the board's place again; null for plain holes. */
  dowel: positive.max(50).nullable(),
});
export type HolePass = z.infer<typeof holeSchema>;
