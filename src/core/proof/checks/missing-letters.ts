import { forLayers } from './layer-seen';
import type { BeforeCut, Rule } from './rule';

/** Whether a pass cuts a layer's outline out of the board: what is missing then is missing in the piece. */
const isCutOut = (view: BeforeCut['view'], id: string) =>
  view.passes.some((p) => p.kind === 'cutout' && (p.outline.of === null || p.outline.of.includes(id)));

/** Letters that a font does not have. */
export const missingLetters: Rule = {
  id: 'missing-letters',
  before: (at) =>
    forLayers(
      at,
      (l, seen) =>
        seen.missing.length > 0
          ? {
              severity: isCutOut(at.view, l.id) ? 'warning' : 'note',
              figures: { layer: l.name, letters: seen.missing },
              fixes: [],
            }
          : null,
      'missing-letters',
    ),
};
