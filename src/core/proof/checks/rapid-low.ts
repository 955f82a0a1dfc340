import { SEGMENT } from '../../kernels/segment';
import { highestUnder, standingUnder } from '../parted-offset';
import { aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

/** Cells on which what stands is looked at, and the steps along a move, mm. */
const COARSE = 0.5;
/** Heights lower by less than this are rounding or the coarse cells, mm. */
const ROUNDING = 0.05;

/**
 * Rapids lower over what stands than the setup's approach: a board that is not flat, or a zero that is a little off, is met at full speed.
 * What is left after the run certainly stood while it ran, so that nothing is told that was not so.
 */
export const rapidLow: Rule = {
  id: 'rapid-low',
  run(at) {
    const { view, run } = at;
    const { approach } = view.setup.heights;
    const over = standingUnder(run.after, { cell: COARSE, kind: 'max', R: run.cutter.diameter / 2 });
    let [worst, least] = [-1, approach - ROUNDING];
    for (let i = 0; i < run.bites.length; i++) {
      // A rapid into wood is told by itself.
      if (!isRapid(run, i) || run.bites[i] > 0.001) continue;
      const [x0, y0, z0, x1, y1, z1] = run.segments.subarray(i * SEGMENT, i * SEGMENT + 6);
      const long = Math.hypot(x1 - x0, y1 - y0);
      if (long < COARSE || Math.min(z0, z1) >= approach) continue;
      const steps = Math.ceil(long / COARSE);
      for (let n = 0; n <= steps; n++) {
        const t = n / steps;
        const x = x0 + (x1 - x0) * t;
        const y = y0 + (y1 - y0) * t;
        const { board } = view;
        if (x < 0 || x > board.x || (!board.drum && (y < 0 || y > board.y))) continue;
        const z = z0 + (z1 - z0) * t;
        // Coarse cells hold a wall that stands beside the bit's way: where they tell of one, the parts' own are asked.
        if (z - over(x, y) >= least) continue;
        const clear = z - highestUnder(run.after, { x, y }, run.cutter.diameter / 2);
        if (clear < least) [worst, least] = [i, clear];
      }
    }
    if (worst < 0) return [];
    return [
      {
        rule: 'rapid-low',
        severity: 'warning',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { clear: Math.max(0, least), least: approach },
      },
    ];
  },
};
