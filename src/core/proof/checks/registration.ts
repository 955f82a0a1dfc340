import { inSetup } from '../../doc/edits';
import type { Setup } from '../../doc/setup';
import type { Fix } from '../../findings/finding';
import { addDowels } from '../../passes/dowels';
import { viewOf } from '../../setup/view';
import type { BeforeCut, Rule } from './rule';

/** Whether a setup cuts anything that another has to meet: a skim meets nothing. */
const meets = (s: Setup) => s.passes.some((p) => p.kind !== 'skim');
const hasDowels = (s: Setup) => s.passes.some((p) => p.kind === 'hole' && p.dowel !== null);

/** Dowels through the setup that is cut first, or none where it has no room for them. */
function withDowels({ view }: BeforeCut, before: Setup): Fix[] {
  const { document, board, setup } = view;
  const own = [{ set: inSetup(view, 'register'), to: 'dowels' }];
  if (board.setups.some(hasDowels)) return [{ id: 'on-dowels', figures: {}, edits: own }];
  const edits = addDowels(viewOf(document, { board, setup: before }));
  return edits
    ? [{ id: 'add-dowels', figures: { setup: before.name, back: setup.name }, edits: [...edits, ...own] }]
    : [];
}

/** A board that is turned over, and nothing says how it finds its place again; or dowels that no earlier setup makes holes for. */
export const registration: Rule = {
  id: 'unregistered',
  before(at) {
    const { view } = at;
    const { board, setup } = view;
    const before = board.setups.slice(0, board.setups.indexOf(setup)).filter(meets);
    const turned = before.find((s) => s.up !== setup.up);
    if (!turned || !meets(setup)) return [];
    const without = setup.register === 'dowels' && !before.some(hasDowels);
    const jigless = setup.register === 'jig' && !view.document.boards.some((b) => b.jigFor === setup.id);
    if (setup.register !== 'none' && !without && !jigless) return [];
    const fence: Fix = { id: 'against-fence', figures: {}, edits: [{ set: inSetup(view, 'register'), to: 'fence' }] };
    return [
      {
        rule: 'unregistered',
        severity: 'warning',
        subject: { setup: setup.id },
        place: null,
        figures: { setup: setup.name, lacks: without ? 'dowels' : jigless ? 'jig' : 'all' },
        fixes: [...withDowels(at, turned), fence],
      },
    ];
  },
};
