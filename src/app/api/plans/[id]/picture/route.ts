import { PLANS } from '@/contract/plans';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const GET = serve(PLANS.picture, async ({ at: { id, setup } }) => {
  const bytes = await (await shop()).cuts.of(id, setup);
  // The same plan may be proven again by a later version of this program.
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'image/webp', 'cache-control': 'private, no-cache' },
  });
});
