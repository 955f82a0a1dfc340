import { SHOP } from '@/contract/shop';
import { serve } from '@/server/http';
import { usesOf } from '@/server/library';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(SHOP.uses, async () => usesOf((await shop()).db));
