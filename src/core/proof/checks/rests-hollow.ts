import { strainOf } from '../rests';
import type { Rule } from './rule';

/** A board spans no more than so many times its thickness without bending under the bit (common practice, no source). */
export const MOST_SPAN = 15;

/** A board that lies on little of what its first side has left. */
export const restsHollow: Rule = {
  id: 'rests-hollow',
  laid({ view, rests }) {
    if (strainOf(rests) <= MOST_SPAN) return [];
    return [
      {
        rule: 'rests-hollow',
        severity: 'warning',
        subject: { setup: view.setup.id },
        place: { x: rests.x, y: rests.y },
        figures: {
          share: Math.round(100 * rests.share),
          span: rests.span,
          wood: rests.wood,
        },
      },
    ];
  },
};
