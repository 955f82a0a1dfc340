import { depthStep, finite, sideStep } from '../../doc/parts';
import { areaParts, milling, rampAngle } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** Level fields at exactly their height, by a bit with a flat bottom; finishing stays off them. */
export const flatSchema = z.object({
  ...areaParts,
  kind: z.literal('flat'),
  stepover: sideStep,
  stepdown: depthStep,
  rampAngle,
  milling,
  /** How far finishing still goes over a cleared field's edge, beyond its bit's own radius. */
  overlap: finite.min(0).max(50),
});
export type FlatPass = z.infer<typeof flatSchema>;
