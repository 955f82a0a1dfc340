import { JOBS } from '@/contract/jobs';
import { fileStem } from '@/core/program/writer';
import { packJob } from '@/server/bundle';
import { serve } from '@/server/http';
import { getJob } from '@/server/jobs';
import { shop } from '@/server/shop';

export const GET = serve(JOBS.bundle, async ({ at: { id } }) => {
  const { db, assets } = await shop();
  const job = (await getJob(db, id)).document;
  const zip = await packJob(db, assets, job);
  return new Response(new Uint8Array(zip), {
    headers: {
      'content-type': 'application/zip',
      'content-disposition': `attachment; filename="${fileStem(job.order, job.name, 'job')}.zip"`,
    },
  });
});
