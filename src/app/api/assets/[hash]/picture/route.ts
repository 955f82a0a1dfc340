import { route } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

/** A small picture of a stored file, as it would lie on a board. */
export const GET = route<{ hash: string }>(async (_, { hash }) => {
  const { db, assets, reader } = await shop();
  const { file, info } = await getAsset(db, hash);
  const { arrays } = await reader.view('picture', hash, assets.path(hash), file, { info });
  return new Response(arrays.png as Uint8Array<ArrayBuffer>, {
    headers: { 'content-type': 'image/png', 'cache-control': 'private, max-age=86400, immutable' },
  });
});
