import { SHOP } from '@/contract/shop';
import { devicesFor } from '@/server/gate/held';
import { serve } from '@/server/http';

export const dynamic = 'force-dynamic';

export const GET = serve(SHOP.devices, async ({ req }) => devicesFor(req.headers)?.state ?? null);
