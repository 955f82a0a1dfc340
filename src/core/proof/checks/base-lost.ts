import { inSetup } from '../../doc/edits';
import { forLayers } from './layer-seen';
import type { Rule } from './rule';

/** What of a model lies below the base plane that was chosen for it. */
export const baseLost: Rule = {
  id: 'base-lost',
  before: (at) =>
    forLayers(
      at,
      (l, seen) =>
        l.source.kind === 'mesh' && l.source.base > 0.001
          ? {
              severity: 'note',
              figures: { layer: l.name, thickness: l.source.base * 100, plan: seen.lostPlan * 100 },
              fixes: [
                {
                  id: 'keep-base',
                  figures: {},
                  edits: [{ set: inSetup(at.view, 'layers', { id: l.id }, 'source', 'base'), to: 0 }],
                },
              ],
            }
          : null,
      'base-lost',
    ),
};
