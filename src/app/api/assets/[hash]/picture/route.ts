import sharp from 'sharp';
import { assetPicture } from '@/server/asset-picture';
import { route } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { readSource } from '@/server/read-source';
import { shop } from '@/server/shop';

/** A small picture of a stored file, as it would lie on a board. */
export const GET = route<{ hash: string }>(async (_, { hash }) => {
  const { db, assets } = await shop();
  const { file, info } = await getAsset(db, hash);
  const { width, height, data } = assetPicture(await readSource(assets.read(hash), file), info);
  const png = await sharp(Buffer.from(data.buffer), { raw: { width, height, channels: 4 } })
    .png()
    .toBuffer();
  return new Response(new Uint8Array(png), {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=86400, immutable' },
  });
});
