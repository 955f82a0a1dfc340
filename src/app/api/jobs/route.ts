import { JOBS } from '@/contract/jobs';
import { jobSchema } from '@/core/doc/job';
import { atHand, newBoardOf } from '@/core/plan/at-hand';
import { plainJob, proposeJob } from '@/core/plan/propose';
import { BadRequest } from '@/server/errors';
import { serve } from '@/server/http';
import { createJob, getAsset } from '@/server/jobs';
import { getLibrary } from '@/server/library';
import { shop } from '@/server/shop';

export const dynamic = 'force-dynamic';

export const GET = serve(JOBS.rack, async () => {
  const { rack, plans } = await shop();
  const rows = await rack.list();
  return Promise.all(
    rows.map(async (r) => {
      const { figures, older } = r.plan ? await plans.brief(r.plan.id) : { figures: null, older: false };
      return { ...r, older, summary: figures, about: r.plan ? plans.aboutOf(r.plan.id) : null };
    }),
  );
});

const EMPTY_BOARD = { x: 300, y: 200, thickness: 19 };

/** Makes a job from a stored relief, or an empty board: board, bits and passes are proposed. */
export const POST = serve(JOBS.create, async ({ body: { asset, name } }) => {
  const { db } = await shop();
  const library = await getLibrary(db);
  const { materials } = library;
  const material = newBoardOf(materials);
  const hand = atHand(library, material);
  if (!hand) throw new BadRequest('the drawer needs an end mill and a ball, and the shop a machine: add them there');
  const common = { order: '', ...hand };
  const board = { material };
  if (asset === undefined) {
    const job = plainJob({ ...common, name: name || 'New board', board: { ...EMPTY_BOARD, ...board } });
    return createJob(db, jobSchema.parse(job));
  }
  const { file, info } = await getAsset(db, asset);
  if (info.kind === 'drawing')
    throw new BadRequest(`${file} is a drawing of lines; add it on a board's Arrange station`);
  if (info.kind === 'font') throw new BadRequest(`${file} is a font; choose it for words on a board's Arrange station`);
  const title =
    name ||
    file
      .replace(/\.[a-z0-9]+$/i, '')
      .replace(/[-_]+/g, ' ')
      .trim() ||
    'New carving';
  const job = proposeJob({ ...common, name: title.slice(0, 80), file, hash: asset, info, board });
  return createJob(db, jobSchema.parse(job));
});
