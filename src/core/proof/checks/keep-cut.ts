import { cellPlace } from '../../field/height-field';
import type { Rule } from './rule';

/** Board that is to stay and was cut. */
export const keepCut: Rule = {
  id: 'keep-cut',
  cut({ view, deviation, target, cutBy }) {
    if (deviation.keepCut <= 1e-4) return [];
    return [
      {
        rule: 'keep-cut',
        severity: 'error',
        subject: { setup: view.setup.id, ...cutBy(deviation.keepAt) },
        place: cellPlace(target.field, deviation.keepAt),
        figures: { deep: deviation.keepCut },
      },
    ];
  },
};
