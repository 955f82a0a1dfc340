import { SHOP } from '@/contract/shop';
import { serve } from '@/server/http';
import { changeLibrary, getLibrary } from '@/server/library';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(SHOP.library, async () => getLibrary((await shop()).db));

export const PUT = serve(SHOP.changeLibrary, async ({ body }) => {
  const { db } = await shop();
  await changeLibrary(db, body);
  return getLibrary(db);
});
