import { packStage } from '@/core/plan/pack';
import { route } from '@/server/http';
import { getAsset, NotFound } from '@/server/jobs';
import { readSource } from '@/server/read-source';
import { shop } from '@/server/shop';

/** An image's heights before any toning, as the page tones and arranges them. */
export const GET = route<{ hash: string }>(async (_, { hash }) => {
  const { db, assets, views } = await shop();
  const { file } = await getAsset(db, hash);
  const view = await views.of('pixels', { hash }, async () => {
    const { image } = await readSource(assets.read(hash), file);
    if (!image) throw new NotFound(`${file} is not an image`);
    const { values, ...meta } = image;
    return { meta, arrays: { values } };
  });
  return new Response(Buffer.concat(packStage(view)), { headers: { 'content-type': 'application/octet-stream' } });
});
