import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { listVersions, nameVersion } from '@/server/jobs';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(JOBS.versions, async ({ at }) => listVersions((await shop()).db, at.id));

export const POST = serve(JOBS.nameVersion, async ({ at, body }) =>
  nameVersion((await shop()).db, at.id, body.revision, body.name),
);
