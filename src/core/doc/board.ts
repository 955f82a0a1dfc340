import { z } from '../units/zod';
import { materialSchema } from './material';
import { id, name, positive, size } from './parts';
import { setupSchema } from './setup';

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
  /** Its clampings, in the order in which they are cut. */
  setups: z.array(setupSchema).max(20),
});
export type Board = z.infer<typeof boardSchema>;
