import { route } from '@/server/http';
import { getLibrary } from '@/server/jobs';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';
export const GET = route(async () => Response.json(await getLibrary((await shop()).db)));
