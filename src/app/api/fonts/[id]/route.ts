import { ASSETS } from '@/contract/assets';
import { shippedFont } from '@/server/content';
import { NotFound } from '@/server/errors';
import { serve } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

export const GET = serve(ASSETS.font, async ({ at: { id } }) => {
  let bytes = await shippedFont(id);
  if (!bytes) {
    const { db, assets } = await shop();
    const { file, info } = await getAsset(db, id);
    if (info.kind !== 'font') throw new NotFound('there is no such font; choose another');
    bytes = assets.read(id, file);
  }
  return new Response(new Uint8Array(bytes), {
    headers: { 'content-type': 'font/otf', 'cache-control': 'private, max-age=86400, immutable' },
  });
});
