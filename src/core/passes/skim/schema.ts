import { depthStep, finite, positive, sideStep } from '../../doc/parts';
import { passParts } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** The whole board, on the side that is up, brought to the thickness that the board names. */
export const skimSchema = z.object({
  ...passParts,
  kind: z.literal('skim'),
  stepover: sideStep,
  stepdown: depthStep,
  /** Where the uneven board was measured, as it lies. */
  points: z
    .array(z.object({ x: finite, y: finite, thickness: positive.max(500) }))
    .min(1)
    .max(100),
});
export type SkimPass = z.infer<typeof skimSchema>;
