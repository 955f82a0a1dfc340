import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { getHistory } from '@/server/jobs';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(JOBS.history, async ({ at }) => getHistory((await shop()).db, at.id));
