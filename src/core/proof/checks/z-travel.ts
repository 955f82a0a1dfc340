import { inSetup } from '../../doc/edits';
import type { Fix, Found } from '../../findings/finding';
import { clean } from '../../units/round';
import { type AfterRun, aboutRun, type Rule } from './rule';
import { spanOf } from './run-places';

/** Kept between a figure that a fix sets and the end of the travel, mm. */
const SPARE = 0.5;

/**
 * How high the spindle's nose stands over the bed at the highest and at the lowest place of a run, and the range that it can stand in:
 * bed to nose, less spoilboard, board and the bit's stick-out (trade handbook, section 3; common practice, no source). mm.
 */
function noses({ view, run }: AfterRun) {
  const { setup, board, machine } = view;
  const { low, high } = spanOf(run);
  // A drum turns over the bed, whatever lies on that.
  const under = board.drum && machine.rotary ? machine.rotary.height : (setup.spoilboard ?? 0);
  const top = under + board.thickness;
  return {
    highest: top + high.z + run.cutter.stickOut,
    lowest: top + low.z + run.cutter.stickOut,
    most: machine.bedToNose,
    least: machine.bedToNose - machine.zTravel,
    span: high.z - low.z,
  };
}

/** Lower travel where that is what is too high, and a longer or shorter stick-out where the bit has the length for it. */
function fixes(at: AfterRun, over: number, under: number): Fix[] {
  const { view, run } = at;
  const { heights } = view.setup;
  const { cutter } = run;
  const out: Fix[] = [];
  const lower = clean(heights.everything - over - SPARE);
  if (over > 0 && under <= 0 && lower >= heights.between + 1)
    out.push({
      id: 'lower-travel',
      figures: { height: lower },
      edits: [{ set: inSetup(view, 'heights', 'everything'), to: lower }],
    });
  const stickOut = clean(over > 0 ? cutter.stickOut - over - SPARE : cutter.stickOut + under + SPARE);
  if (!(over > 0 && under > 0) && stickOut >= cutter.fluteLength)
    out.push({
      id: 'stick-out',
      figures: { bit: cutter.name, stickOut },
      edits: [{ set: ['cutters', { id: cutter.id }, 'stickOut'], to: stickOut }],
    });
  return out;
}

/** A retract or a depth that the Z axis cannot reach: it stalls, loses its place, and the next plunge goes through the work. */
export const zTravel: Rule = {
  id: 'z-travel',
  run(at) {
    const { view } = at;
    const n = noses(at);
    const over = n.highest - n.most;
    const under = n.least - n.lowest;
    if (over <= 1e-6 && under <= 1e-6) return [];
    const found: Found = {
      rule: 'z-travel',
      severity: 'error',
      subject: aboutRun(at, 0),
      place: null,
      figures: {
        machine: view.machine.name,
        over: Math.max(0, over),
        under: Math.max(0, under),
        highest: n.highest,
        lowest: n.lowest,
        most: n.most,
        least: n.least,
      },
      fixes: fixes(at, over, under),
    };
    return [found];
  },
};
