import { inSetup } from '../../doc/edits';
import { forLayers } from './layer-seen';
import type { Rule } from './rule';

/** An image of few levels, which makes visible steps. */
export const imageSteps: Rule = {
  id: 'image-steps',
  before: (at) =>
    forLayers(
      at,
      (l, seen) =>
        seen.step > 0 && l.source.kind === 'image' && !l.source.tone.terraces
          ? {
              severity: 'note',
              figures: { layer: l.name, step: l.rise * seen.step },
              fixes: [
                {
                  id: 'smooth-steps',
                  figures: {},
                  edits: [{ set: inSetup(at.view, 'layers', { id: l.id }, 'source', 'tone', 'terraces'), to: true }],
                },
              ],
            }
          : null,
      'image-steps',
    ),
};
