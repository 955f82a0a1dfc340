import { z } from '../core/units/zod';
import { endpoint, FILE, json, packed } from './endpoint';
import { sourceInfo } from './wire';

/** A stored file. */
const asset = z.object({ hash: z.string(), file: z.string(), info: sourceInfo });
export type AssetInfo = z.infer<typeof asset>;

const quarter = z.number().int().min(0).max(3);
const given = z.coerce.number<number>();
const floats = z.instanceof(Float32Array);
const picture = z.object({ width: z.number(), height: z.number() });

export const ASSETS = {
  /** Takes a relief, a drawing or a font. */
  put: endpoint({
    method: 'PUT',
    path: '/api/assets',
    query: z.object({ name: z.string().optional() }),
    body: 'file',
    answer: json(asset.extend({ size: z.number() })),
  }),
  read: endpoint({ method: 'GET', path: '/api/assets/[hash]', answer: json(asset) }),
  /** What a stored model is in another orientation: its size, and the base plane proposed for it. */
  orient: endpoint({
    method: 'POST',
    path: '/api/assets/[hash]',
    body: z.object({ turns: z.tuple([quarter, quarter, quarter]), mirror: z.boolean() }),
    answer: json(sourceInfo),
  }),
  /** A small picture of a stored file, as it would lie on a board. */
  picture: endpoint({ method: 'GET', path: '/api/assets/[hash]/picture', answer: FILE }),
  /** An image's heights before any toning. */
  pixels: endpoint({
    method: 'GET',
    path: '/api/assets/[hash]/pixels',
    answer: packed(
      z
        .object({ meta: picture.extend({ depth: z.literal([8, 16]) }), arrays: z.object({ values: floats }) })
        .transform(({ meta, arrays }) => ({ ...meta, values: arrays.values })),
    ),
  }),
  /** A mesh as turned, seen from above. */
  raster: endpoint({
    method: 'GET',
    path: '/api/assets/[hash]/raster',
    query: z.object({
      tx: given.int().min(0).max(3),
      ty: given.int().min(0).max(3),
      tz: given.int().min(0).max(3),
      flip: z.enum(['0', '1']),
      base: given.min(0).max(0.99),
    }),
    needs: 'a raster needs tx, ty, tz from 0 to 3, flip 0 or 1 and base from 0 to 0.99',
    answer: packed(
      z
        .object({ meta: picture, arrays: z.object({ data: floats }) })
        .transform(({ meta, arrays }) => ({ ...meta, data: arrays.data })),
    ),
  }),
  /** A font that comes with the program, or an uploaded one by its hash. */
  font: endpoint({ method: 'GET', path: '/api/fonts/[id]', answer: FILE }),
};
