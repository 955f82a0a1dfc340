import { isGroove, veesOf } from '../../arrange/grooves';
import { inSetup } from '../../doc/edits';
import type { Rule } from './rule';

/** A groove that is not carved in. */
export const grooveNotCarved: Rule = {
  id: 'groove-not-carved',
  before: ({ view }) =>
    veesOf(view.layers)
      .filter(({ layer }) => !isGroove(layer))
      .map(({ layer }) => ({
        rule: 'groove-not-carved',
        severity: 'warning',
        subject: { setup: view.setup.id, layer: layer.id },
        place: layer.centre,
        figures: { layer: layer.name },
        fixes: [
          {
            id: 'carve-in',
            figures: {},
            edits: [{ set: inSetup(view, 'layers', { id: layer.id }, 'join'), to: 'carve' }],
          },
        ],
      })),
};
