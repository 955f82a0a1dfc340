import { depthStep } from '../../doc/parts';
import { areaParts } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** Grooves of the layers that are cut with a V bit, along their middles. */
export const letterSchema = z.object({
  ...areaParts,
  kind: z.literal('letter'),
  /** Deepest that is taken at once. */
  stepdown: depthStep,
});
export type LetterPass = z.infer<typeof letterSchema>;
