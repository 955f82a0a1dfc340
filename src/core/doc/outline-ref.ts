import { CORNERS } from '../outline/union';
import { z } from '../units/zod';

/** An outline that follows from layers. Lengths in mm. */
export const outlineRefSchema = z.object({
  /** Layers whose silhouettes together are meant; null means the whole piece. */
  of: z.array(z.string().min(1).max(64)).min(1).max(300).nullable(),
  /** Layers whose silhouettes are taken out of it. */
  less: z.array(z.string().min(1).max(64)).max(300),
  /** Whether openings in it count. */
  holes: z.boolean(),
  /** How much larger it is all around, and whether its corners then are round or run out to a point. */
  grow: z.number().finite().min(-500).max(500),
  corner: z.enum(CORNERS),
  /** Bumps and notches narrower than twice this are taken off. */
  smooth: z.number().finite().min(0).max(100),
});
export type OutlineRef = z.infer<typeof outlineRefSchema>;

/** The whole piece's outline as it is. */
export const WHOLE_PIECE: OutlineRef = { of: null, less: [], holes: false, grow: 0, corner: 'round', smooth: 0 };
