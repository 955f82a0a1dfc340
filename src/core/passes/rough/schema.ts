import { depthStep, finite, sideStep } from '../../doc/parts';
import { areaParts, milling, rampAngle } from '../../doc/pass-parts';
import { z } from '../../units/zod';

export const roughSchema = z.object({
  ...areaParts,
  kind: z.literal('rough'),
  strategy: z.enum(['rings', 'raster']),
  /** Direction of the rows, raster only. */
  angle: finite.min(-360).max(360),
  stepover: sideStep,
  stepdown: depthStep,
  /** Left along the surface's normal, to the side as well as below. */
  stockToLeave: finite.min(0).max(20),
  rampAngle,
  milling,
});
export type RoughPass = z.infer<typeof roughSchema>;

/** What of a roughing pass says how levels are cleared. */
export type Clearing = Omit<RoughPass, 'id' | 'kind' | 'cutter' | 'area' | 'reserve'>;
