import { JOBS } from '@/contract/jobs';
import { serve } from '@/server/http';
import { getRaw } from '@/server/jobs';
import { shop } from '@/server/shop';

export const GET = serve(JOBS.raw, async ({ at: { id } }) => {
  const text = await getRaw((await shop()).db, id);
  return new Response(text, {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename="job-${id.replace(/[^\w-]/g, '')}.json"`,
    },
  });
});
