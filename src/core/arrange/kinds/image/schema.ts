import { fileParts } from '../../../doc/parts';
import { toneSchema } from '../../../doc/tone';
import { z } from '../../../units/zod';

/** A relief from an image. */
export const imageSourceSchema = z.object({
  kind: z.literal('image'),
  ...fileParts,
  /** Black ground does not belong to the relief. */
  blackIsGround: z.boolean(),
  tone: toneSchema,
});
export type ImageSource = z.infer<typeof imageSourceSchema>;
