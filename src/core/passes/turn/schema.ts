import { depthStep, finite, positive, sideStep } from '../../doc/parts';
import { passParts } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** A blank turned down to the drum that its board names, between what holds it. */
export const turnSchema = z.object({
  ...passParts,
  kind: z.literal('turn'),
  /** The blank as it is clamped: square stock by its side, round stock by its diameter, as measured. */
  blank: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('square'), side: positive.max(1000) }),
    z.object({ kind: z.literal('round'), diameter: positive.max(1000) }),
  ]),
  /** How far a dial beside it moves while it is turned by hand once, near the chuck and near the tail stock, mm. */
  runOut: z.object({ chuck: finite.min(0).max(100), tailStock: finite.min(0).max(100) }),
  /** How far the bit goes along the drum in a turn. */
  stepover: sideStep,
  stepdown: depthStep,
});
export type TurnPass = z.infer<typeof turnSchema>;
