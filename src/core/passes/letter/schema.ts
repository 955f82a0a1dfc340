import { z } from 'zod';
import { positive } from '../../doc/parts';
import { areaParts } from '../../doc/pass-parts';

/** Grooves of the layers that are cut with a V bit, along their middles. */
export const letterSchema = z.object({
  ...areaParts,
  kind: z.literal('letter'),
  /** Deepest that is taken at once. */
  stepdown: positive,
});
export type LetterPass = z.infer<typeof letterSchema>;
