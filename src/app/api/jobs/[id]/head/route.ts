import { z } from 'zod';
import { body, route } from '@/server/http';
import { moveHead } from '@/server/jobs';
import { shop } from '@/server/shop';

const move = z.object({ from: z.string(), to: z.string() });

/** Undo and redo: another version comes into force. */
export const PUT = route<{ id: string }>(async (req, { id }) => {
  const { from, to } = await body(req, move);
  return Response.json(await moveHead((await shop()).db, id, from, to));
});
