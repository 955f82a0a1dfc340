import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const POST = serve(JOBS.whatIf, async ({ at, body }) => (await shop()).plans.whatIf(at.id, body.edits));
