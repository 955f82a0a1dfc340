import { MOST_USUAL, mostChipArea } from '../../cutter/limits';
import { ENGAGED, VOLUME } from '../../kernels/engagement';
import type { Run } from '../simulate';
import { aboutRun, type Rule } from './rule';
import { along, endOf, isRapid, wayOf, worstMove } from './run-places';

/** How many times its usual volume a second a bit may take. Planning holds to MOST_USUAL; cells in other places than its own tell a third more of it. */
const MOST = (4 / 3) * MOST_USUAL;
/** Share of a bit's diameter of way over which what it takes is meant: a hair in a corner is over before it bends. */
const MEANT = 0.5;

/** What is taken a second around every move, mm3, over at least `span` mm of the cut that it belongs to; 0 for rapids. */
function rates(run: Run, span: number): Float64Array {
  const n = run.feeds.length;
  const [way, volume, seconds] = [0, 0, 0].map(() => new Float64Array(n + 1));
  for (let i = 0; i < n; i++) {
    const { long } = wayOf(run, i);
    const taken = along(run, i) ? run.engaged[i * ENGAGED + VOLUME] : 0;
    way[i + 1] = way[i] + long;
    volume[i + 1] = volume[i] + taken;
    seconds[i + 1] = seconds[i] + (run.feeds[i] > 0 ? (60 * long) / run.feeds[i] : 0);
  }
  const out = new Float64Array(n);
  let [from, to] = [0, 0];
  for (let i = 0; i < n; i++) {
    if (isRapid(run, i)) continue;
    if (i === 0 || isRapid(run, i - 1)) [from, to] = [i, i];
    const middle = (way[i] + way[i + 1]) / 2;
    while (from < i && way[from + 1] <= middle - span / 2) from++;
    while (to < n && !isRapid(run, to) && (to <= i || way[to] < middle + span / 2)) to++;
    if (seconds[to] > seconds[from]) out[i] = (volume[to] - volume[from]) / (seconds[to] - seconds[from]);
  }
  return out;
}

/** Full slots, corners and walls at a feed that only a usual cut bears. */
export const load: Rule = {
  id: 'load',
  run(at) {
    const { run } = at;
    const usual = ((mostChipArea(run.cutter) / MOST_USUAL) * run.cutter.feed) / 60;
    const taken = rates(run, MEANT * run.cutter.diameter);
    const [worst, most] = worstMove(run, (i) => (along(run, i) ? taken[i] : 0));
    const times = most / usual;
    if (times <= MOST) return [];
    return [
      {
        rule: 'load',
        severity: 'warning',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { bit: run.cutter.name, times, most: MOST, feed: run.feeds[worst] },
        fixes: [],
      },
    ];
  },
};
