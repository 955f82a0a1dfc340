import { z } from '../units/zod';

const positive = z.number().finite().positive();
const width = positive.max(1000);
const pitch = positive.max(500);
/** Whether only the border stands, with nothing inside it. */
const band = z.boolean();

/** What stands on an outline: borders work along its edge, textures fill it. Heights run from 0 to 1 and are scaled by the rise. */
export const reliefOfSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('flat') }),
  z.object({ kind: z.literal('dome') }),
  z.object({ kind: z.literal('dish') }),
  z.object({ kind: z.literal('bevel'), width, band }),
  z.object({ kind: z.literal('cove'), width, band }),
  z.object({ kind: z.literal('ogee'), width, band }),
  z.object({ kind: z.literal('bead'), width, band }),
  z.object({ kind: z.literal('rope'), width, pitch, band }),
  z.object({ kind: z.literal('pearls'), width, pitch, band }),
  z.object({ kind: z.literal('shell'), ribs: z.number().int().min(2).max(200) }),
  z.object({ kind: z.literal('flutes'), pitch }),
  z.object({ kind: z.literal('weave'), pitch }),
  z.object({ kind: z.literal('gouge'), length: pitch, width: pitch, seed: z.number().int().min(0).max(9999) }),
  z.object({ kind: z.literal('ripples'), pitch }),
  /** Walls that fall at half this angle from the edge, as a V bit of that angle leaves them; level where they reach the rise. */
  z.object({ kind: z.literal('vee'), angle: z.number().finite().min(5).max(170) }),
]);
export type ReliefOf = z.infer<typeof reliefOfSchema>;
