import { z } from 'zod';
import { EXPORTS, JOBS } from '@/contract/jobs';
import { fileStem } from '@/core/program/writer';
import { trimNumber } from '@/core/units/length';
import { BadRequest } from '@/server/errors';
import { serve } from '@/server/http';
import { getJob } from '@/server/jobs';
import { shop } from '@/server/shop';

const kinds = z.enum(EXPORTS);

const TYPES = {
  'heights-png': ['image/png', 'png'],
  'heights-tiff': ['image/tiff', 'tif'],
  stl: ['model/stl', 'stl'],
  picture: ['image/png', 'png'],
  'outline-svg': ['image/svg+xml', 'svg'],
  'outline-dxf': ['image/vnd.dxf', 'dxf'],
} as const;

/** The joined layers in an open format; a height image's name says which heights black and white stand for. */
export const GET = serve(JOBS.export, async ({ at: { id, kind, setup } }) => {
  const k = kinds.safeParse(kind);
  if (!k.success)
    throw new BadRequest(`"${kind.slice(0, 40)}" is not an export; choose one of ${kinds.options.join(', ')}`);
  const { db, exports } = await shop();
  const job = (await getJob(db, id)).document;
  const { bytes, low, high } = await exports.make(job, setup ?? null, k.data);
  const [type, ending] = TYPES[k.data];
  const scale = k.data.startsWith('heights') ? `${trimNumber(low, 2)}-to-${trimNumber(high, 2)}mm` : k.data;
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${fileStem(job.order, job.name, scale)}.${ending}"`,
    },
  });
});
