import { route } from '@/server/http';
import { getHistory } from '@/server/jobs';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

/** The versions that undo and redo go through. */
export const GET = route<{ id: string }>(async (_, { id }) => Response.json(await getHistory((await shop()).db, id)));
