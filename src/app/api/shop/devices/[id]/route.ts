import { SHOP } from '@/contract/shop';
import { NotFound } from '@/server/errors';
import { devicesFor } from '@/server/gate/held';
import { serve } from '@/server/http';

export const DELETE = serve(SHOP.removeDevice, async ({ at, req }) => {
  const gate = devicesFor(req.headers);
  if (!gate?.remove(at.id)) throw new NotFound('there is no such device; it may have been removed');
  return gate.state;
});
