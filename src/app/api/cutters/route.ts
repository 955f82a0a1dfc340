import { SHOP } from '@/contract/shop';
import { serve } from '@/server/http';
import { saveCutter } from '@/server/jobs';
import { shop } from '@/server/shop';

export const PUT = serve(SHOP.saveCutter, async ({ body }) => {
  await saveCutter((await shop()).db, body);
  return body;
});
