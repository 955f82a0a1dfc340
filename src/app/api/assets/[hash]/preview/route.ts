import { z } from 'zod';
import { reliefPreview } from '@/core/arrange/preview';
import { packStage } from '@/core/plan/pack';
import { readSource } from '@/core/sources/inspect';
import { body, route } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

const quarter = z.number().int().min(0).max(3);
const orientation = z.object({
  turns: z.tuple([quarter, quarter, quarter]),
  mirror: z.boolean(),
  base: z.number().min(0).max(0.99),
});

/** A small height field of a relief as oriented, from which the page shows changes at once. */
export const POST = route<{ hash: string }>(async (req, { hash }) => {
  const wanted = await body(req, orientation);
  const { db, assets } = await shop();
  const { file } = await getAsset(db, hash);
  const packed = packStage(reliefPreview(readSource(assets.read(hash), file), wanted));
  return new Response(Buffer.concat(packed), { headers: { 'content-type': 'application/octet-stream' } });
});
