import { z } from 'zod';
import { jobSchema } from '@/core/plan/job';
import { proposeJob } from '@/core/plan/propose';
import { BadRequest, body, route } from '@/server/http';
import { createJob, getAsset, getLibrary, listJobs } from '@/server/jobs';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = route(async () => {
  const { db, plans } = await shop();
  const rows = await listJobs(db);
  return Response.json(
    await Promise.all(
      rows.map(async (r) => ({ ...r, summary: r.plan ? (await plans.state(r.plan.id)).summary : null })),
    ),
  );
});

const wanted = z.object({ asset: z.string(), name: z.string().trim().max(80).optional() });

/** Makes a job from a stored relief: board, bits and passes are proposed. */
export const POST = route(async (req) => {
  const { asset, name } = await body(req, wanted);
  const { db } = await shop();
  const { file, info } = await getAsset(db, asset);
  const { machines, cutters } = await getLibrary(db);
  const rough = cutters.find((c) => c.shape === 'endmill');
  const finish = cutters.find((c) => c.shape === 'ball');
  if (!rough || !finish || machines.length === 0)
    throw new BadRequest('the drawer needs an end mill and a ball, and the shop a machine');
  const title =
    name ||
    file
      .replace(/\.[a-z0-9]+$/i, '')
      .replace(/[-_]+/g, ' ')
      .trim() ||
    'New carving';
  const job = jobSchema.parse(
    proposeJob({ name: title.slice(0, 80), order: '', file, hash: asset, info, machine: machines[0], rough, finish }),
  );
  return Response.json(await createJob(db, job));
});
