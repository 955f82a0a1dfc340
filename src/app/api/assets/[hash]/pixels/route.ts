import { packStage } from '@/core/plan/pack';
import { route } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

/** An image's heights before any toning, as the page tones and arranges them. */
export const GET = route<{ hash: string }>(async (_, { hash }) => {
  const { db, assets, reader } = await shop();
  const { file } = await getAsset(db, hash);
  const view = await reader.view('pixels', hash, assets.path(hash), file, {});
  return new Response(Buffer.concat(packStage(view)), { headers: { 'content-type': 'application/octet-stream' } });
});
