import { aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

/** The head of a slot bit that goes up, or away at a rapid, where wood stands over it. */
export const caught: Rule = {
  id: 'caught',
  run(at) {
    const { run } = at;
    if (!run.caught) return [];
    const { move, deep } = run.caught;
    return [
      {
        rule: 'caught',
        severity: 'error',
        subject: aboutRun(at, move),
        place: endOf(run, move),
        figures: { bit: run.cutter.name, deep, rapid: isRapid(run, move) },
      },
    ];
  },
};
