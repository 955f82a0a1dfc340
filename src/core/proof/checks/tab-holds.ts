import { inSetup } from '../../doc/edits';
import type { Fix, Found } from '../../findings/finding';
import { clean } from '../../units/round';
import type { CutoutProof } from '../connect';
import { FRAIL } from '../holds';
import type { AfterCut, Rule } from './rule';

/** Tabs of which less than this is left along the line hardly hold, mm (common practice, no source). */
const SHORT_TAB = 0.5;

function fixes(view: AfterCut['view'], c: CutoutProof & { pass: string }, holds: boolean): Fix[] {
  const pass = view.passes.find((p) => p.id === c.pass);
  if (pass?.kind !== 'cutout') return [];
  const tabs = (field: string, to: unknown) => ({ set: inSetup(view, 'passes', { id: pass.id }, 'tabs', field), to });
  if (pass.tabs.at) return [{ id: 'place-tabs', figures: {}, edits: [tabs('at', null)] }];
  if (!holds) return [];
  const thickness = clean(Math.min(view.board.thickness / 3, Math.max(2 * pass.tabs.thickness, 2 * FRAIL)));
  const length = clean(2 * pass.tabs.length);
  return [
    {
      id: 'stronger-tabs',
      figures: { thickness, length },
      edits: [tabs('thickness', thickness), tabs('length', length)],
    },
  ];
}

/** Tabs that hold nothing, or hardly. */
export const tabHolds: Rule = {
  id: 'tab-holds',
  cut({ view, cutouts }) {
    return cutouts.flatMap((c) =>
      c.tabs.flatMap((t): Found[] => {
        const { holds } = t;
        if (holds && t.thickness >= FRAIL && t.length > SHORT_TAB) return [];
        return [
          {
            rule: 'tab-holds',
            severity: 'warning',
            subject: { setup: view.setup.id, pass: c.pass },
            place: { x: t.x, y: t.y },
            figures: { holds, length: t.length, thickness: t.thickness },
            fixes: fixes(view, c, holds),
          },
        ];
      }),
    );
  },
};
