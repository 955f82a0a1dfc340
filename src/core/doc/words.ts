import { z } from '../units/zod';

const finite = z.number().finite();

/** Words as a person sets them; lengths in mm. The outlines follow from it and the font alone. */
export const wordsSchema = z.object({
  text: z
    .string()
    .min(1)
    .max(500)
    .refine((t) => t.trim() !== '', 'there are no letters in it'),
  /** A font that comes with the program, or an uploaded one by its content's SHA-256. */
  font: z.string().min(1).max(64),
  /** Its name, as the person knows it. */
  fontName: z.string().min(1).max(120),
  /** Height of a capital, mm. */
  height: finite.positive().max(2000),
  /** Width against the font's own. */
  stretch: finite.min(0.2).max(5),
  /** Added between all letters, mm. */
  spacing: finite.min(-100).max(500),
  kerning: z.boolean(),
  /** Set by hand: added before the letter of that place in the text (counted in Unicode characters), mm. */
  nudges: z.record(z.string().regex(/^\d{1,3}$/, 'names a letter that is not there'), finite.min(-500).max(500)),
  /** From one line's foot to the next, in capital heights. */
  lineGap: finite.min(0.5).max(10),
  align: z.enum(['left', 'middle', 'right']),
  line: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('straight') }),
    /** Over or under a circle; the radius is that of the letters' feet. */
    z.object({ kind: z.literal('arc'), radius: finite.min(1).max(10_000), under: z.boolean() }),
    /** Along a drawn curve: SVG path data in mm, y down; its first ring or stroke. */
    z.object({ kind: z.literal('curve'), d: z.string().min(1).max(20_000) }),
  ]),
});
export type Words = z.infer<typeof wordsSchema>;
