import { ASSETS } from '@/contract/assets';
import { serve } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

export const GET = serve(ASSETS.read, async ({ at: { hash } }) => ({
  hash,
  ...(await getAsset((await shop()).db, hash)),
}));

export const POST = serve(ASSETS.orient, async ({ at: { hash }, body }) => {
  const { db, assets, reader } = await shop();
  const { file } = await getAsset(db, hash);
  return reader.describe(assets.path(hash), file, { orientation: body });
});
