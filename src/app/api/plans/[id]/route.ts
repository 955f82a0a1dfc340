import { PLANS } from '@/contract/plans';
import { serve } from '@/server/http';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(PLANS.read, async ({ at }) => (await shop()).plans.state(at.id));

export const DELETE = serve(PLANS.cancel, async ({ at }) => {
  const { plans } = await shop();
  await plans.cancel(at.id);
  return plans.state(at.id);
});
