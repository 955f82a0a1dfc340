import { aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

/** Rapid moves that go through wood. */
export const rapid: Rule = {
  id: 'rapid-through-material',
  run(at) {
    const { run } = at;
    let worst = -1;
    let count = 0;
    for (let i = 0; i < run.bites.length; i++) {
      if (!isRapid(run, i) || run.bites[i] <= 0.001) continue;
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
