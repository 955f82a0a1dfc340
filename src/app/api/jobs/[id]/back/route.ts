import { route } from '@/server/http';
import { bringBack } from '@/server/removed';
import { shop } from '@/server/shop';

/** Puts a removed job back on the rack. */
export const POST = route<{ id: string }>(async (_, { id }) => {
  await bringBack((await shop()).db, id);
  return Response.json({});
});
