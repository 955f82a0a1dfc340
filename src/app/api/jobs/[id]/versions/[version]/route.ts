import { route } from '@/server/http';
import { removeVersion } from '@/server/jobs';
import { shop } from '@/server/shop';

export const DELETE = route<{ id: string; version: string }>(async (_, { id, version }) => {
  return Response.json(await removeVersion((await shop()).db, id, version));
});
