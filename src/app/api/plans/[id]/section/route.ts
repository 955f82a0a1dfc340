import { PLANS } from '@/contract/plans';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const GET = serve(PLANS.section, async ({ at: { id, setup, n, ...line } }) =>
  (await shop()).plans.surfaces.section(id, setup, line, n),
);
