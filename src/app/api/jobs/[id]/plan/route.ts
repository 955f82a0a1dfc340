import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const POST = serve(JOBS.plan, async ({ at }) => (await shop()).plans.start(at.id));
