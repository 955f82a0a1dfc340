import type { Cutter } from '../cutter/cutter';
import { z } from '../units/zod';
import { finite, id, positive } from './parts';

/** What a board is made of, with the figures that cutting it goes by. */
export const materialSchema = z.object({
  id,
  name: z.string().trim().min(1).max(60),
  /** Deepest taken at once, as a share of the bit's diameter. */
  stepdown: positive.max(3),
  /** Left by roughing for finishing, along the surface's normal, mm. */
  stockToLeave: finite.min(0).max(20),
  /** How steeply a bit sinks into it along its path, degrees. */
  rampAngle: positive.max(45),
  /** Chip load from which a bit cuts instead of rubbing, and up to which it is safe, mm a tooth. */
  chipLoad: z.object({ least: finite.min(0).max(5), most: positive.max(5) }),
  /** Whether bits may go straight down into it; where not, only drills do, and all others sink along their path. */
  plunges: z.boolean().default(true),
  caution: z.string().max(200).nullable(),
});
export type Material = z.infer<typeof materialSchema>;

/** A bit as it may be run in a material: in one that is not plunged into only drills go straight down. */
export const bornBy = (material: Pick<Material, 'plunges'>, c: Cutter): Cutter =>
  material.plunges || c.shape === 'drill' || c.maxPlungeDepth === 0 ? c : { ...c, maxPlungeDepth: 0 };
