import { SHOP } from '@/contract/shop';
import { serve } from '@/server/http';
import { saveMachine } from '@/server/jobs';
import { shop } from '@/server/shop';

export const PUT = serve(SHOP.saveMachine, async ({ body }) => {
  await saveMachine((await shop()).db, body);
  return body;
});
