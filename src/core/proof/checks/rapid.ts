import { aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

/**
 * How deep a rapid may seem to go through wood, mm: at a ball's rim, where it is upright, a place that is known to e sideways is known to
 * sqrt(2 R e) upright, and 32-bit numbers know places on a board to 2e-5 mm.
 */
const RIM = 0.01;

/** Rapid moves that go through wood. */
export const rapid: Rule = {
  id: 'rapid-through-material',
  run(at) {
    const { run } = at;
    let worst = -1;
    let count = 0;
    for (let i = 0; i < run.bites.length; i++) {
      if (!isRapid(run, i) || run.bites[i] <= RIM) continue;
      count++;
      if (worst < 0 || run.bites[i] > run.bites[worst]) worst = i;
    }
    if (worst < 0) return [];
    return [
      {
        rule: 'rapid-through-material',
        severity: 'error',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { count, deep: run.bites[worst] },
      },
    ];
  },
};
