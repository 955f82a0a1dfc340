import { zipSync } from 'fflate';
import { PLANS } from '@/contract/plans';
import { NotFound } from '@/server/errors';
import { serve } from '@/server/http';
import { wanted } from '@/server/older';
import { shop } from '@/server/shop';

/** All programs of a plan in one archive. */
export const GET = serve(PLANS.bundle, async ({ at: { id, older } }) => {
  const { plans } = await shop();
  const { summary } = wanted(older, await plans.state(id));
  if (!summary || summary.programs.length === 0) throw new NotFound('this plan has no programs');
  const files: Record<string, Uint8Array> = {};
  for (let i = 0; i < summary.programs.length; i++)
    files[summary.programs[i].file] = await plans.file(id, `program-${i}.nc`);
  const name = `${summary.programs[0].file.replace(/_1-.*$/, '')}_programs.zip`;
  return new Response(new Uint8Array(zipSync(files, { level: 6 })), {
    headers: { 'content-type': 'application/zip', 'content-disposition': `attachment; filename="${name}"` },
  });
});
