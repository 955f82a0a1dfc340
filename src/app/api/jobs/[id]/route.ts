import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { getJob, saveJob } from '@/server/jobs';
import { removeJob } from '@/server/removed';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(JOBS.read, async ({ at }) => {
  const { db, plans } = await shop();
  const job = await getJob(db, at.id);
  return { ...job, plan: await plans.latest(at.id) };
});

export const PUT = serve(JOBS.save, async ({ at, body }) =>
  saveJob((await shop()).db, at.id, body.base, body.document),
);

export const DELETE = serve(JOBS.remove, async ({ at }) => {
  await removeJob((await shop()).db, at.id);
  return {};
});
