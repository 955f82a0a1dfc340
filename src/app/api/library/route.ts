import { SHOP } from '@/contract/shop';
import { serve } from '@/server/http';
import { getLibrary } from '@/server/jobs';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(SHOP.library, async () => getLibrary((await shop()).db));
