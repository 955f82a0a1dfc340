import { ASSETS } from '@/contract/assets';
import { packStage } from '@/core/plan/pack';
import { serve } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

export const GET = serve(ASSETS.pixels, async ({ at: { hash } }) => {
  const { db, assets, reader } = await shop();
  const { file } = await getAsset(db, hash);
  const view = await reader.view('pixels', hash, assets.path(hash), file, {});
  return new Response(Buffer.concat(packStage(view)), { headers: { 'content-type': 'application/octet-stream' } });
});
