import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { getRevision } from '@/server/jobs';
import { shop } from '@/server/shop';

export const GET = serve(JOBS.revision, async ({ at }) => getRevision((await shop()).db, at.id, at.revision));
