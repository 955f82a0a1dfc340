import { MASK } from '../../arrange/target';
import { cellPlace } from '../../field/height-field';
import type { Rule } from './rule';

/** How much deeper than it was to go waste may be cut without a word, mm: nobody sees it, and the floor is told by itself. */
const LIMIT = 0.1;

/** Waste that is cut deeper than any pass was to go. */
export const wasteDeep: Rule = {
  id: 'waste-deep',
  cut({ view, target, cut, cutBy }) {
    const { field, mask } = target;
    const { width, height } = field;
    let [worst, deep] = [-1, LIMIT];
    for (let j = 1; j + 1 < height; j++) {
      for (let i = 1; i + 1 < width; i++) {
        const k = j * width + i;
        if (mask[k] !== MASK.waste || field.data[k] - cut.data[k] <= deep) continue;
        // Walls of slots are met to a cell.
        let low = field.data[k];
        for (const row of [k - width, k, k + width])
          for (let q = row - 1; q <= row + 1; q++) low = Math.min(low, field.data[q]);
        const over = low - cut.data[k];
        if (over > deep) [worst, deep] = [k, over];
      }
    }
    if (worst < 0) return [];
    return [
      {
        rule: 'waste-deep',
        severity: 'error',
        subject: { setup: view.setup.id, ...cutBy(worst) },
        place: cellPlace(field, worst),
        figures: { deep },
      },
    ];
  },
};
