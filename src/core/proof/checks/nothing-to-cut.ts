import { centred } from '../../arrange/fit';
import { inSetup } from '../../doc/edits';
import type { Pass } from '../../doc/pass';
import type { Fix } from '../../findings/finding';
import { kindOf } from '../../passes/registry';
import type { SetupView } from '../../setup/view';
import type { Rule } from './rule';

/** Whether a pass cuts nothing where no layer is seen: an outline may be that of another setup's layers, or of hidden ones. */
function needsSeen(view: SetupView, p: Pass): boolean {
  const kind = kindOf(p);
  const named = kind.outline?.(p)?.of ?? [];
  return kind.needsLayers && named.every((id) => view.layers.some((l) => l.id === id && !l.hidden));
}

/** Passes that cut what layers make, and no layer on the board. */
export const nothingToCut: Rule = {
  id: 'nothing-to-cut',
  before({ view, composite }) {
    if (!view.passes.some((p) => needsSeen(view, p))) return [];
    if (composite.covered > 0) return [];
    const hidden = view.layers.filter((l) => l.hidden);
    const fixes: Fix[] =
      view.layers.length > hidden.length
        ? centred(view, 0)
        : hidden.length > 0
          ? [
              {
                id: 'show-layers',
                figures: {},
                edits: hidden.map((l) => ({ set: inSetup(view, 'layers', { id: l.id }, 'hidden'), to: false })),
              },
            ]
          : [];
    return [
      {
        rule: 'nothing-to-cut',
        severity: 'error',
        subject: { setup: view.setup.id },
        place: null,
        figures: { layers: view.layers.length },
        fixes,
      },
    ];
  },
};
