import { outlineRefSchema } from '../../doc/outline-ref';
import { depthStep, finite, place, positive } from '../../doc/parts';
import { passParts, rampAngle } from '../../doc/pass-parts';
import { z } from '../../units/zod';

export const tabsSchema = z.object({
  count: z.number().int().min(0).max(60),
  /** Of the wood that stays, where it is narrowest, along the line. */
  length: positive.max(200),
  thickness: positive.max(100),
  /** The bit runs up and down over them on a slope instead of upright. */
  sloped: z.boolean(),
  /** Places set by hand, board coordinates: each tab is on the line nearest to its own. Null: they place themselves. */
  at: z.array(place).max(60).nullable(),
});
export type Tabs = z.infer<typeof tabsSchema>;

/** Through the board along an outline. */
export const cutoutSchema = z.object({
  ...passParts,
  kind: z.literal('cutout'),
  outline: outlineRefSchema,
  side: z.enum(['outside', 'inside', 'on']),
  /** From the depth that is open already, or from the board's own top. */
  start: z.enum(['machined', 'top']),
  /** How far down it goes from the board's top where the other side's cut-out meets it; null goes through, and `into` the spoilboard. */
  depth: positive.max(500).nullable(),
  stepdown: depthStep,
  rampAngle,
  /** How far below the board's underside it goes. */
  into: finite.min(0).max(10),
  /** Length of the way in, which leaves the line at 45 degrees into the waste. */
  lead: finite.min(0).max(50),
  /** Left at the side for one last lap at full depth. */
  last: finite.min(0).max(5),
  /** Left under the first laps for the last one to free. */
  floor: finite.min(0).max(20),
  tabs: tabsSchema,
});
export type CutoutPass = z.infer<typeof cutoutSchema>;
