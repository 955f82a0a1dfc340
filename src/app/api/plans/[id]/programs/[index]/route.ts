import { PLANS } from '@/contract/plans';
import { BadRequest, NotFound } from '@/server/errors';
import { serve } from '@/server/http';
import { wanted } from '@/server/older';
import { shop } from '@/server/shop';

export const GET = serve(PLANS.program, async ({ at: { id, index, older } }) => {
  if (!/^\d{1,3}$/.test(index)) throw new BadRequest('a program is named by its number');
  const { plans } = await shop();
  const program = wanted(older, await plans.state(id)).summary?.programs[Number(index)];
  if (!program) throw new NotFound('there is no such program');
  const bytes = await plans.file(id, `program-${Number(index)}.nc`);
  return new Response(new Uint8Array(bytes), {
    headers: {
      'content-type': 'text/plain; charset=us-ascii',
      'content-disposition': `attachment; filename="${program.file}"`,
    },
  });
});
