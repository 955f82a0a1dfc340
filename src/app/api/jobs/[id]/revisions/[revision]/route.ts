import { route } from '@/server/http';
import { getRevision } from '@/server/jobs';
import { shop } from '@/server/shop';

export const GET = route<{ id: string; revision: string }>(async (_, { id, revision }) => {
  return Response.json(await getRevision((await shop()).db, id, revision));
});
