import { z } from '../units/zod';
import { jobSchema } from './job';
import { id, name } from './parts';

/**
 * A named way of working that is used again: the passes of one setup with their bits and heights, and the board and machine that
 * they were found on. It is kept as a job with one board, one setup and no layers, so that it is read, brought up to date and
 * written as jobs are. `layers` are the names of those that its outlines speak of, by their ids.
 */
export const recipeSchema = z.object({
  id,
  name,
  note: z.string().max(1000),
  layers: z.record(z.string().max(64), z.string().max(80)),
  job: jobSchema,
});
export type Recipe = z.infer<typeof recipeSchema>;
