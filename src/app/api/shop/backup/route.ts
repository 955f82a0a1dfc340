import { Readable } from 'node:stream';
import { packShop } from '@/server/backup';
import { dataFolder } from '@/server/database';
import { BadRequest } from '@/server/errors';
import { route } from '@/server/http';
import { restoreShop } from '@/server/restore';
import { shop, whileClosed } from '@/server/shop';

export const dynamic = 'force-dynamic';

/** The whole shop as one archive, made while it is sent. */
export const GET = route(async () => {
  const { db } = await shop();
  const day = new Date().toISOString().slice(0, 10);
  return new Response(Readable.toWeb(packShop(db, dataFolder())) as ReadableStream, {
    headers: {
      'content-type': 'application/gzip',
      'content-disposition': `attachment; filename="zealous-grain-${day}.tar.gz"`,
    },
  });
});

/** Puts a backup in the place of this shop; one that has jobs gives way only when the request says so. */
export const PUT = route(async (req) => {
  if (!req.body) throw new BadRequest('the backup is empty (0 bytes); choose the file again');
  const replace = new URL(req.url).searchParams.get('replace') === 'yes';
  const { rack } = await shop();
  const jobs = (await rack.list()).length;
  if (jobs > 0 && !replace)
    throw new BadRequest(`this shop has ${jobs} ${jobs === 1 ? 'job' : 'jobs'}; say that they are to give way`);
  const from = Readable.fromWeb(req.body as never);
  return Response.json(await restoreShop(from, dataFolder(), true, whileClosed));
});
