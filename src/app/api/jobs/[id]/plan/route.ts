import { route } from '@/server/http';
import { shop } from '@/server/shop';

export const POST = route<{ id: string }>(async (_, { id }) => Response.json(await (await shop()).plans.start(id)));
