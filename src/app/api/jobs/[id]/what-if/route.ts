import { z } from 'zod';
import type { Edit } from '@/core/findings/edit';
import { body, route } from '@/server/http';
import { shop } from '@/server/shop';

const steps = z
  .array(z.union([z.string().max(64), z.number().int().min(0), z.object({ id: z.string().max(64) })]))
  .min(1)
  .max(12);
const edit = z.union([
  z.object({ set: steps, to: z.json() }),
  z.object({ insert: steps, at: z.number().int().min(0), value: z.json() }),
  z.object({ remove: steps }),
]);
const wanted = z.object({ edits: z.array(edit).min(1).max(2000) });

/** What a change of the job's newest version would come to; it is planned when nothing else is to be done. */
export const POST = route<{ id: string }>(async (req, { id }) => {
  const { edits } = await body(req, wanted);
  return Response.json(await (await shop()).plans.whatIf(id, edits as Edit[]));
});
