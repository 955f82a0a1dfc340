import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { bringBack } from '@/server/removed';
import { shop } from '@/server/shop';

export const POST = serve(JOBS.bringBack, async ({ at }) => {
  await bringBack((await shop()).db, at.id);
  return {};
});
