import { route } from '@/server/http';
import { listRemoved } from '@/server/removed';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

/** Removed jobs that can still be brought back. */
export const GET = route(async () => Response.json(await listRemoved((await shop()).db)));
