import { reliefOfSchema } from '../../../doc/relief-of';
import { edgeSchema, outlineSchema } from '../../../outline/shapes';
import { z } from '../../../units/zod';

/** A shape of our own. */
export const shapeSourceSchema = z.object({
  kind: z.literal('shape'),
  outline: outlineSchema,
  edge: edgeSchema,
  relief: reliefOfSchema,
});
export type ShapeSource = z.infer<typeof shapeSourceSchema>;
