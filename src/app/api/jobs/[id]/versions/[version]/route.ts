import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { removeVersion } from '@/server/jobs';
import { shop } from '@/server/shop';

export const DELETE = serve(JOBS.removeVersion, async ({ at }) => removeVersion((await shop()).db, at.id, at.version));
