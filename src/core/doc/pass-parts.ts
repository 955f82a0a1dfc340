import { z } from '../units/zod';
import { outlineRefSchema } from './outline-ref';
import { finite, id } from './parts';

/** Where a pass works. */
export const areaSchema = z.discriminatedUnion('kind', [
  /** The relief and its trench; null lets the width be worked out from the bit. */
  z.object({ kind: z.literal('relief'), trench: finite.min(0).max(200).nullable() }),
  z.object({ kind: z.literal('face') }),
  z
    .object({ kind: z.literal('frame'), x0: finite, y0: finite, x1: finite, y1: finite })
    .refine((a) => a.x1 > a.x0 && a.y1 > a.y0, 'a frame needs x1 above x0 and y1 above y0'),
  /** Inside an outline: a patch around a layer, or one outline less others. */
  z.object({ kind: z.literal('outline'), outline: outlineRefSchema }),
]);
export type Area = z.infer<typeof areaSchema>;

/** What every pass has. */
export const passParts = { id, cutter: z.string().min(1).max(64) };
/** What every pass has that works over an area. */
export const areaParts = {
  ...passParts,
  area: areaSchema,
  /** Planned, written and proven, but cut only if it is wanted: what comes after it is planned as if it had not been. */
  reserve: z.boolean(),
};

/**
 * On which side of a bit that turns clockwise the wood lies that it cuts: on its right (climb), on its left (conventional), or as it comes, which is
 * the shortest way.
 */
export const MILLING = ['either', 'climb', 'conventional'] as const;
export const milling = z.enum(MILLING);
export type Milling = z.infer<typeof milling>;

/** The steepest that a bit sinks along its path, degrees. */
export const rampAngle = finite.min(0.25).max(45);
