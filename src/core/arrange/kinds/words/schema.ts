import { reliefOfSchema } from '../../../doc/relief-of';
import { wordsSchema } from '../../../doc/words';
import { z } from '../../../units/zod';

/** Words in a font. */
export const wordsSourceSchema = z.object({ kind: z.literal('words'), words: wordsSchema, relief: reliefOfSchema });
export type WordsSource = z.infer<typeof wordsSourceSchema>;
