import type { Edit } from '../../findings/edit';
import type { Fix, Found } from '../../findings/finding';
import { inSetup } from '../edits';
import { type Job, type Place, setupsOf } from '../job';
import { THE_BOARD } from '../layer';
import { layersNamed, outlineOfPass, type Pass } from '../pass';
import { problem } from './problem';

/** Where a setup stands in the document. */
export function setupPath(job: Job, { board, setup }: Place): (string | number)[] {
  return ['boards', job.boards.indexOf(board), 'setups', board.setups.indexOf(setup)];
}

/** Leaves the missing layers out of a pass's outline; one of which nothing is left becomes the whole piece's. */
function withoutMissing(p: Place, pass: Pass, known: Set<string>): Edit[] {
  const ref = outlineOfPass(pass);
  if (!ref) return [];
  const at = inSetup(p, 'passes', { id: pass.id }, ...('outline' in pass ? ['outline'] : ['area', 'outline']));
  const of = ref.of?.filter((id) => known.has(id)) ?? [];
  return [
    { set: [...at, 'of'], to: of.length > 0 ? of : null },
    { set: [...at, 'less'], to: ref.less.filter((id) => known.has(id)) },
  ];
}

function ofSetup(job: Job, p: Place): Found[] {
  const { board, setup } = p;
  const path = setupPath(job, p);
  const own = new Set(setup.layers.map((l) => l.id));
  // Outlines and masks may name a layer of another setup of the board.
  const known = new Set(board.setups.flatMap((s) => s.layers.map((l) => l.id)));
  const out: Found[] = [];
  setup.layers.forEach((l, i) => {
    if (l.mask.kind !== 'layer' || known.has(l.mask.layer)) return;
    const fixes: Fix[] = [
      {
        id: 'no-mask',
        figures: {},
        edits: [{ set: inSetup(p, 'layers', { id: l.id }, 'mask'), to: { kind: 'none' } }],
      },
    ];
    const subject = { setup: setup.id, layer: l.id };
    out.push(
      problem(
        'layer-missing',
        [...path, 'layers', i, 'mask'],
        { name: l.mask.layer, what: 'mask', of: l.name },
        { fixes, subject },
      ),
    );
  });
  setup.passes.forEach((pass, i) => {
    const missing = layersNamed(pass).filter((id) => !known.has(id));
    if (missing.length === 0) return;
    const fixes: Fix[] = [{ id: 'leave-out', figures: {}, edits: withoutMissing(p, pass, known) }];
    const subject = { setup: setup.id, pass: pass.id };
    out.push(
      problem(
        'layer-missing',
        [...path, 'passes', i],
        { name: missing[0], what: 'outline', of: pass.id },
        { fixes, subject },
      ),
    );
  });
  setup.gaps.forEach((g, i) => {
    const missing = [g.of, g.from].find((end) => end !== THE_BOARD && !own.has(end));
    if (missing === undefined) return;
    const fixes: Fix[] = [
      { id: 'remove-distance', figures: {}, edits: [{ remove: inSetup(p, 'gaps', { id: g.id }) }] },
    ];
    out.push(
      problem(
        'layer-missing',
        [...path, 'gaps', i],
        { name: missing, what: 'distance', of: g.id },
        { fixes, subject: { setup: setup.id } },
      ),
    );
  });
  return out;
}

/** Layers that masks, outlines and distances name and that are not there. */
export function references(job: Job): Found[] {
  return setupsOf(job).flatMap((p) => ofSetup(job, p));
}
