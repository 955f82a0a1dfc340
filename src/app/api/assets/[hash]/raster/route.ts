import { z } from 'zod';
import { rasterOf } from '@/core/arrange/mesh-piece';
import { packStage } from '@/core/plan/pack';
import { BadRequest, route } from '@/server/http';
import { getAsset, NotFound } from '@/server/jobs';
import { readSource } from '@/server/read-source';
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
  const { db, assets, views } = await shop();
  const { file } = await getAsset(db, hash);
  const view = await views.of('raster', { hash, cells: RASTER_CELLS, ...q.data }, async () => {
    const { mesh } = await readSource(assets.read(hash), file);
    if (!mesh) throw new NotFound(`${file} is not a mesh`);
    const { tx, ty, tz, flip, base } = q.data;
    const source = { kind: 'mesh', file, hash, unit: 'mm', flip: flip === '1', base } as const;
    const { data, ...meta } = rasterOf(mesh, { ...source, turns: [tx, ty, tz] }, RASTER_CELLS);
    return { meta, arrays: { data } };
  });
  return new Response(Buffer.concat(packStage(view)), { headers: { 'content-type': 'application/octet-stream' } });
});
