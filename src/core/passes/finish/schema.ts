import { finite, sideStep } from '../../doc/parts';
import { areaParts, milling } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** What a finishing pass runs along: rows, or lines along the border of what is left where that is narrow and low; round a drum rows, or one spiral. */
export const LINES = ['fit', 'rows', 'spiral'] as const;

export const finishSchema = z.object({
  ...areaParts,
  kind: z.literal('finish'),
  angle: finite.min(-360).max(360),
  stepover: sideStep,
  lines: z.enum(LINES),
  /** Rows to and fro, or all of them one way. */
  milling,
  /** Points are thinned so that the path lies between the surface and this much above it. */
  tolerance: finite.min(0.001).max(0.2),
});
export type FinishPass = z.infer<typeof finishSchema>;
