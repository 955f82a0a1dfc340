import { type Cutter, cutterSchema } from '../cutter/cutter';
import { z } from '../units/zod';
import { type Board, boardSchema } from './board';
import { loosen } from './loosen';
import { machineSchema } from './machine';
import { name, positive } from './parts';
import type { Setup } from './setup';
import { upgradeJob } from './upgrade/upgrade';

export const VERSION = 10;

/** The document with every figure within its bounds; what lies outside them is a problem, not a reason to refuse it. */
export const soundJobSchema = z.object({
  version: z.literal(VERSION),
  name,
  order: z.string().trim().max(40),
  boards: z.array(boardSchema).min(1).max(20),
  machine: machineSchema,
  cutters: z.array(cutterSchema).max(50),
  output: z.object({ unit: z.enum(['mm', 'in']), oneFile: z.boolean() }),
  /** Cell of the height fields; null lets it be worked out from the finest bit. */
  cell: positive.min(0.01).max(2).nullable(),
});
export type Job = z.infer<typeof soundJobSchema>;

/**
 * The job document as it is read: older versions are brought up to date, and only what cannot be read is refused (wrong types, unknown
 * kinds, texts and lists beyond their limits). Whether it makes sense is for problems() to say.
 */
export const jobSchema = z.preprocess(upgradeJob, loosen(soundJobSchema)) as unknown as z.ZodType<Job>;

/** A setup and the board that it clamps. */
export interface Place {
  board: Board;
  setup: Setup;
}

/** All setups of a job in the order in which they are cut. */
export function setupsOf(job: Job): Place[] {
  return job.boards.flatMap((board) => board.setups.map((setup) => ({ board, setup })));
}

/** The cutter of a pass; none where the document names one that it does not have, which stops planning. */
export function cutterOf(job: { cutters: Cutter[] }, pass: { cutter: string }): Cutter | undefined {
  return job.cutters.find((c) => c.id === pass.cutter);
}

/** The cutter of a pass that is planned. @throws RangeError when it is missing: problems() is asked before anything is planned */
export function plannedCutter(job: { cutters: Cutter[] }, pass: { id: string; cutter: string }): Cutter {
  const cutter = cutterOf(job, pass);
  if (!cutter) throw new RangeError(`the pass ${pass.id} has no bit "${pass.cutter}"`);
  return cutter;
}
