import { ASSETS } from '@/contract/assets';
import { packStage } from '@/core/plan/pack';
import { serve } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

/** Cells along the longer side of what is sent to the page. */
const RASTER_CELLS = 1400;

export const GET = serve(ASSETS.raster, async ({ at: { hash, tx, ty, tz, flip, base } }) => {
  const { db, assets, reader } = await shop();
  const { file } = await getAsset(db, hash);
  const view = await reader.view('raster', hash, assets.path(hash), file, {
    orientation: { turns: [tx, ty, tz], mirror: flip === '1' },
    base,
    cells: RASTER_CELLS,
  });
  return new Response(Buffer.concat(packStage(view)), { headers: { 'content-type': 'application/octet-stream' } });
});
