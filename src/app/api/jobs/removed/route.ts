import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { listRemoved } from '@/server/removed';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(JOBS.removed, async () => listRemoved((await shop()).db));
