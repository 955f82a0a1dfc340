import { z } from 'zod';
import { name } from '@/core/doc/parts';
import { body, route } from '@/server/http';
import { describePattern, listPatterns, removePattern } from '@/server/patterns';
import { shop } from '@/server/shop';

type Params = { id: string };

const said = z.object({
  name,
  tags: z.array(z.string().trim().min(1).max(40)).max(20),
  from: z.string().trim().max(200),
});

export const PUT = route<Params>(async (req, { id }) => {
  const { db } = await shop();
  await describePattern(db, id, await body(req, said));
  return Response.json(await listPatterns(db));
});

export const DELETE = route<Params>(async (_, { id }) => {
  const { db } = await shop();
  await removePattern(db, id);
  return Response.json(await listPatterns(db));
});
