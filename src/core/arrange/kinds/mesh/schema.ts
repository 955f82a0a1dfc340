import { fileParts, finite } from '../../../doc/parts';
import { z } from '../../../units/zod';

const quarter = z.number().int().min(0).max(3);

/** A relief from a model. */
export const meshSourceSchema = z.object({
  kind: z.literal('mesh'),
  ...fileParts,
  unit: z.enum(['mm', 'in']),
  /** Quarter turns of the file's axes, and a mirror in its x before them. */
  turns: z.tuple([quarter, quarter, quarter]),
  flip: z.boolean(),
  /** Base plane as a share of the turned mesh's thickness, from its lowest point; what lies below is lost. */
  base: finite.min(0).max(0.99),
});
export type MeshSource = z.infer<typeof meshSourceSchema>;
