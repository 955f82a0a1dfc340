import { route } from '@/server/http';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';
type Params = { id: string };

export const GET = route<Params>(async (_, { id }) => Response.json(await (await shop()).plans.state(id)));

export const DELETE = route<Params>(async (_, { id }) => {
  const { plans } = await shop();
  await plans.cancel(id);
  return Response.json(await plans.state(id));
});
