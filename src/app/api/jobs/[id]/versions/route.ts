import { z } from 'zod';
import { name } from '@/core/doc/parts';
import { body, route } from '@/server/http';
import { listVersions, nameVersion } from '@/server/jobs';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';
type Params = { id: string };

export const GET = route<Params>(async (_, { id }) => Response.json(await listVersions((await shop()).db, id)));

const named = z.object({ revision: z.string(), name });

export const POST = route<Params>(async (req, { id }) => {
  const { revision, name } = await body(req, named);
  return Response.json(await nameVersion((await shop()).db, id, revision, name));
});
