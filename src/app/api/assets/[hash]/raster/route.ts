import { z } from 'zod';
import { packStage } from '@/core/plan/pack';
import { BadRequest } from '@/server/errors';
import { route } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

const quarter = z.coerce.number().int().min(0).max(3);
const query = z.object({
  tx: quarter,
  ty: quarter,
  tz: quarter,
  flip: z.enum(['0', '1']),
  base: z.coerce.number().min(0).max(0.99),
});

/** Cells along the longer side of what is sent to the page. */
const RASTER_CELLS = 1400;

/** A mesh as turned, seen from above: what the page arranges with. */
export const GET = route<{ hash: string }>(async (req, { hash }) => {
  const q = query.safeParse(Object.fromEntries(new URL(req.url).searchParams));
  if (!q.success) throw new BadRequest('a raster needs tx, ty, tz from 0 to 3, flip 0 or 1 and base from 0 to 0.99');
  const { db, assets, reader } = await shop();
  const { file } = await getAsset(db, hash);
  const { tx, ty, tz, flip, base } = q.data;
  const view = await reader.view('raster', hash, assets.path(hash), file, {
    orientation: { turns: [tx, ty, tz], mirror: flip === '1' },
    base,
    cells: RASTER_CELLS,
  });
  return new Response(Buffer.concat(packStage(view)), { headers: { 'content-type': 'application/octet-stream' } });
});
