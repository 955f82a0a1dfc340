import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const POST = serve(JOBS.prove, async ({ at, body }) => (await shop()).plans.judge(at.id, body.files));
