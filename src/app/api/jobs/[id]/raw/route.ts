import { route } from '@/server/http';
import { getRaw } from '@/server/jobs';
import { shop } from '@/server/shop';

/** The job's document as it is stored, whether this program can read it or not. */
export const GET = route<{ id: string }>(async (_, { id }) => {
  const text = await getRaw((await shop()).db, id);
  return new Response(text, {
    headers: {
      'content-type': 'application/json; charset=utf-8',
      'content-disposition': `attachment; filename="job-${id.replace(/[^\w-]/g, '')}.json"`,
    },
  });
});
