import { forLayers } from './layer-seen';
import type { Rule } from './rule';

/** Places of a layer that are finer than a cell of the grid. */
export const thinFeature: Rule = {
  id: 'thin-feature',
  before: (at) =>
    forLayers(
      at,
      (l, seen) =>
        seen.thinCells > 0 ? { severity: 'note', figures: { layer: l.name, places: seen.thinCells } } : null,
      'thin-feature',
    ),
};
