import { PLANS } from '@/contract/plans';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const GET = serve(PLANS.view, async ({ at: { id, setup } }) => {
  const bytes = await (await shop()).plans.surfaces.view(id, setup);
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'private, no-cache' },
  });
});
