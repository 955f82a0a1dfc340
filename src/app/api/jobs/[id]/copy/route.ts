import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { copyJob } from '@/server/jobs';
import { shop } from '@/server/shop';

export const POST = serve(JOBS.copy, async ({ at }) => copyJob((await shop()).db, at.id));
