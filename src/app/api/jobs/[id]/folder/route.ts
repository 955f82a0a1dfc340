import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { putInFolder } from '@/server/jobs';
import { shop } from '@/server/shop';

export const PUT = serve(JOBS.folder, async ({ at, body }) => {
  await putInFolder((await shop()).db, at.id, body.folder);
  return {};
});
