import { PLANS } from '@/contract/plans';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const GET = serve(PLANS.ways, async ({ at: { id, ...of } }) => {
  const parts = await (await shop()).plans.surfaces.ways(id, of);
  return new Response(new Blob(parts as Uint8Array<ArrayBuffer>[]), {
    headers: { 'content-type': 'application/octet-stream', 'cache-control': 'private, no-cache' },
  });
});
