import { route } from '@/server/http';
import { settleKept } from '@/server/jobs';
import { shop } from '@/server/shop';

export const DELETE = route<{ id: string }>(async (_, { id }) => {
  await settleKept((await shop()).db, id);
  return Response.json({});
});
