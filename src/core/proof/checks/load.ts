import { MOST_USUAL, mostChipArea } from '../../cutter/limits';
import type { Run } from '../simulate';
import { aboutRun, type Rule } from './rule';
import { along, endOf, worstMove } from './run-places';

/** How many times its usual volume a second a bit may take. Planning holds to MOST_USUAL; cells in other places than its own tell a third more of it. */
const MOST = (4 / 3) * MOST_USUAL;

/** The most that a bit takes a second, as a multiple of its usual volume a second. @returns the move, -1 where none cuts along, and how many times */
function hardestMove(run: Run): [number, number] {
  const usual = (mostChipArea(run.cutter) / MOST_USUAL) * run.cutter.feed;
  return worstMove(run, (i) => (along(run, i) ? (run.chip[i] * run.feeds[i]) / usual : 0));
}

/** Full slots, corners and walls at a feed that only a usual cut bears. */
export const load: Rule = {
  id: 'load',
  run(at) {
    const { run } = at;
    const [worst, times] = hardestMove(run);
    if (times <= MOST) return [];
    return [
      {
        rule: 'load',
        severity: 'warning',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { bit: run.cutter.name, times, most: MOST, feed: run.feeds[worst], area: run.chip[worst] },
        fixes: [],
      },
    ];
  },
};
