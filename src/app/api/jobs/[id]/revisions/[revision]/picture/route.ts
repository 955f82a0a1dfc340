import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { getRevision } from '@/server/jobs';
import { shop } from '@/server/shop';

/** A small picture of a version of a job: its layers joined, before anything is cut. */
export const GET = serve(JOBS.revisionPicture, async ({ at: { id, revision } }) => {
  const { db, exports } = await shop();
  const { bytes } = await exports.make(await getRevision(db, id, revision), null, 'small');
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=86400, immutable' },
  });
});
