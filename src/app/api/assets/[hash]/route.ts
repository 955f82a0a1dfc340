import { z } from 'zod';
import { body, route } from '@/server/http';
import { getAsset } from '@/server/jobs';
import { shop } from '@/server/shop';

const quarter = z.number().int().min(0).max(3);
const orientation = z.object({ turns: z.tuple([quarter, quarter, quarter]), mirror: z.boolean() });

/** What a stored file holds, as it was read on import. */
export const GET = route<{ hash: string }>(async (_, { hash }) => {
  const { file, info } = await getAsset((await shop()).db, hash);
  return Response.json({ hash, file, info });
});

/** What a stored model is in another orientation: its size, and the base plane proposed for it. */
export const POST = route<{ hash: string }>(async (req, { hash }) => {
  const wanted = await body(req, orientation);
  const { db, assets, reader } = await shop();
  const { file } = await getAsset(db, hash);
  return Response.json(await reader.describe(assets.path(hash), file, { orientation: wanted }));
});
