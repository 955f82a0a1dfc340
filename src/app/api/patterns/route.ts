import { z } from 'zod';
import { name } from '@/core/doc/parts';
import { body, route } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { listPatterns, putPattern } from '@/server/patterns';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = route(async () => Response.json(await listPatterns((await shop()).db)));

const wanted = z.object({
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  name,
  tags: z.array(z.string().trim().min(1).max(40)).max(20),
  from: z.string().trim().max(200),
  size: z.object({ x: z.number().positive(), y: z.number().positive() }).nullable(),
  rise: z.number().positive().nullable(),
});

/** Keeps a stored file in the drawer. */
export const POST = route(async (req) => {
  const p = await body(req, wanted);
  const { db } = await shop();
  const { file } = await getAsset(db, p.hash);
  await putPattern(db, { ...p, file });
  return Response.json(await listPatterns(db));
});
