import { z } from 'zod';
import { jobSchema } from '@/core/doc/job';
import { body, route } from '@/server/http';
import { getJob, saveJob } from '@/server/jobs';
import { removeJob } from '@/server/removed';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';
type Params = { id: string };

export const GET = route<Params>(async (_, { id }) => {
  const { db, plans } = await shop();
  const job = await getJob(db, id);
  return Response.json({ ...job, plan: await plans.latest(id) });
});

const save = z.object({ base: z.string(), document: jobSchema });

export const PUT = route<Params>(async (req, { id }) => {
  const { base, document } = await body(req, save);
  return Response.json(await saveJob((await shop()).db, id, base, document));
});

export const DELETE = route<Params>(async (_, { id }) => {
  await removeJob((await shop()).db, id);
  return Response.json({});
});
