import { outlineRefSchema } from '../../doc/outline-ref';
import { depthStep, finite, positive, sideStep } from '../../doc/parts';
import { milling, passParts, rampAngle } from '../../doc/pass-parts';
import { z } from '../../units/zod';

/** A recess with a level floor inside an outline, its openings left standing as islands. */
export const pocketSchema = z.object({
  ...passParts,
  kind: z.literal('pocket'),
  outline: outlineRefSchema,
  /** Of its floor, from the board's top. */
  depth: positive.max(500),
  /** How much wider it is than its outline all around: room for an inlay, or over the edge of open ground; narrower where negative. */
  allowance: finite.min(-20).max(50),
  stepover: sideStep,
  stepdown: depthStep,
  rampAngle,
  milling,
  /** Left at the wall for one last lap at full depth. */
  last: finite.min(0).max(5),
});
export type PocketPass = z.infer<typeof pocketSchema>;
