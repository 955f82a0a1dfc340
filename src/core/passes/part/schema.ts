import { depthStep, finite, positive } from '../../doc/parts';
import { passParts } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** Grooves round a drum in which the work is sawn off: each down to a thin rest that still carries it. */
export const partSchema = z.object({
  ...passParts,
  kind: z.literal('part'),
  /** Where along the drum their middles lie, mm from its left end. */
  along: z.array(finite.min(0).max(10_000)).min(1).max(20),
  width: positive.max(200),
  /** Diameter that is left in them. */
  left: positive.max(500),
  /** How far the bit sinks in a turn. */
  stepdown: depthStep,
});
export type PartPass = z.infer<typeof partSchema>;
