import { z } from 'zod';
import { BadRequest } from '@/server/errors';
import { route } from '@/server/http';
import { shop } from '@/server/shop';

const number = z.coerce.number().finite();
const query = z.object({
  setup: z.string().max(64),
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  n: z.coerce.number().int().min(2).max(4000),
});

/** Heights of the surfaces along a line, cell by cell. */
export const GET = route<{ id: string }>(async (req, { id }) => {
  const q = query.safeParse(Object.fromEntries(new URL(req.url).searchParams));
  if (!q.success) throw new BadRequest('a section needs a setup, x0, y0, x1, y1 in mm and n from 2 to 4000');
  return Response.json(await (await shop()).plans.section(id, q.data.setup, q.data, q.data.n));
});
