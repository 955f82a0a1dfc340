import { cellPlace } from '../../field/height-field';
import type { Fix } from '../../findings/finding';
import { cellFor } from '../../passes/cell';
import { clean } from '../../units/round';
import type { Rule } from './rule';

/** Deepest cut below the target, along the normal, that passes without a finding, mm. */
export const GOUGE_LIMIT = 0.02;
/** The finest cell that a job may ask for, mm. */
const FINEST = 0.01;

/** Anything cut deeper than wanted. */
export const gouge: Rule = {
  id: 'gouge',
  cut({ view, deviation, target, cutBy }) {
    if (deviation.deepest >= -GOUGE_LIMIT) return [];
    const { cell } = target.field;
    const fixes: Fix[] = [];
    if (view.cell !== null) fixes.push({ id: 'cell-of-bits', figures: {}, edits: [{ set: ['cell'], to: null }] });
    // Where no more cells can be held, a finer one is no remedy.
    const { width, height } = target.field;
    const finer = cellFor(cell / 2, width * height * cell ** 2) <= 0.75 * cell;
    if (cell / 2 >= FINEST && finer)
      fixes.push({
        id: 'finer-cell',
        figures: { cell: clean(cell / 2) },
        edits: [{ set: ['cell'], to: clean(cell / 2) }],
      });
    return [
      {
        rule: 'gouge',
        severity: 'error',
        subject: { setup: view.setup.id, ...cutBy(deviation.deepestAt) },
        place: cellPlace(target.field, deviation.deepestAt),
        figures: { deep: -deviation.deepest, most: GOUGE_LIMIT, finer },
        fixes,
      },
    ];
  },
};
