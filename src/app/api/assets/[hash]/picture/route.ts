import { ASSETS } from '@/contract/assets';
import { serve } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

export const GET = serve(ASSETS.picture, async ({ at: { hash } }) => {
  const { db, assets, reader } = await shop();
  const { file, info } = await getAsset(db, hash);
  const { arrays } = await reader.view('picture', hash, assets.path(hash), file, { info });
  return new Response(arrays.png as Uint8Array<ArrayBuffer>, {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=86400, immutable' },
  });
});
