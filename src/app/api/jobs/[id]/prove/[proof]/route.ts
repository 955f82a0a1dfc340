import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const GET = serve(JOBS.proof, async ({ at }) => (await shop()).plans.judged(at.proof));
