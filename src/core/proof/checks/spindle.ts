import { aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

/** Cutting with the spindle stopped, or turning the wrong way: bits cut clockwise as seen from above. */
export const spindleOff: Rule = {
  id: 'spindle-off',
  run(at) {
    const { run } = at;
    const first = run.spindle.findIndex((rpm, i) => rpm <= 0 && !isRapid(run, i));
    if (first < 0) return [];
    return [
      {
        rule: 'spindle-off',
        severity: 'error',
        subject: aboutRun(at, first),
        place: endOf(run, first),
        figures: { wrong: run.spindle[first] < 0 },
      },
    ];
  },
};
