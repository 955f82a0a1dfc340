import { finite, place, positive } from '../../doc/parts';
import { passParts } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** Hanging slots: a slot bit goes in where a screw's head is to go in, and along beneath the wood to where the piece hangs on it. */
export const hangSchema = z.object({
  ...passParts,
  kind: z.literal('hang'),
  /** Where the screw's head goes in. */
  places: z.array(place).min(1).max(20),
  /** From there to where the piece hangs, mm. */
  length: positive.max(500),
  /** Which way that is, degrees counter-clockwise from x as the board lies. */
  towards: finite.min(-360).max(360),
  /** From the board's top to the floor of the slot. */
  depth: positive.max(500),
});
export type HangPass = z.infer<typeof hangSchema>;
