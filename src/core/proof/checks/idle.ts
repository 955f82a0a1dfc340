import { aboutRun, type Rule } from './rule';
import { isRapid } from './run-places';

/** A run that takes nothing away: its bit, its zero or its order is another than was meant. */
export const idle: Rule = {
  id: 'cuts-nothing',
  run(at) {
    const { run } = at;
    const cuts = run.bites.some((b, i) => b > 0 && !isRapid(run, i));
    if (cuts || run.bites.length === 0) return [];
    return [
      {
        rule: 'cuts-nothing',
        severity: 'warning',
        subject: aboutRun(at, 0),
        place: null,
        figures: { bit: run.cutter.name },
      },
    ];
  },
};
