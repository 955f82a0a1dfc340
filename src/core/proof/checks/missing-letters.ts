import { forLayers } from './layer-seen';
import type { Rule } from './rule';

/** Letters that a font does not have. */
export const missingLetters: Rule = {
  id: 'missing-letters',
  before: (at) =>
    forLayers(
      at,
      (l, seen) =>
        seen.missing.length > 0 ? { severity: 'note', figures: { layer: l.name, letters: seen.missing } } : null,
      'missing-letters',
    ),
};
