import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { settleKept } from '@/server/jobs';
import { shop } from '@/server/shop';

export const DELETE = serve(JOBS.settleKept, async ({ at }) => {
  await settleKept((await shop()).db, at.id);
  return {};
});
