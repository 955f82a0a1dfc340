import { Readable } from 'node:stream';
import { SHOP } from '@/contract/shop';
import { packShop } from '@/server/backup';
import { dataFolder } from '@/server/database';
import { BadRequest } from '@/server/errors';
import { serve } from '@/server/http';
import { restoreShop } from '@/server/restore';
import { shop, whileClosed } from '@/server/shop';

export const dynamic = 'force-dynamic';

/** The archive is made while it is sent. */
export const GET = serve(SHOP.backup, async () => {
  const { db } = await shop();
  const day = new Date().toISOString().slice(0, 10);
  return new Response(Readable.toWeb(packShop(db, dataFolder())) as ReadableStream, {
    headers: {
      'content-type': 'application/gzip',
      'content-disposition': `attachment; filename="zealous-grain-${day}.tar.gz"`,
    },
  });
});

export const PUT = serve(SHOP.restore, async ({ at, req }) => {
  if (!req.body) throw new BadRequest('the backup is empty (0 bytes); choose the file again');
  const { rack } = await shop();
  const jobs = (await rack.list()).length;
  if (jobs > 0 && at.replace === undefined)
    throw new BadRequest(`this shop has ${jobs} ${jobs === 1 ? 'job' : 'jobs'}; say that they are to give way`);
  const from = Readable.fromWeb(req.body as never);
  return restoreShop(from, dataFolder(), true, whileClosed);
});
