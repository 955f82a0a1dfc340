import type { Found } from '../../findings/finding';
import { type AfterRun, aboutRun, type Rule } from './rule';
import { endOf } from './run-places';

/** Less than this is rounding, mm. */
const ROUNDING = 0.01;

/** The move that brings the bit, its shank or its holder furthest over what holds an end of a drum, low enough to meet it, and how far, mm. */
function furthest({ view, run }: AfterRun): [number, number] {
  const { board, setup } = view;
  const { chuck, tailStock } = board.drum ?? { chuck: 0, tailStock: 0 };
  const { cutter } = run;
  let [worst, most] = [-1, ROUNDING];
  for (let i = 0; i < run.bites.length; i++) {
    const p = endOf(run, i);
    if (p.z >= setup.heights.everything - ROUNDING) continue;
    // A holder comes down beside a chuck that stands as high over the drum as everything is cleared by.
    const wide =
      p.z + cutter.stickOut < setup.heights.everything
        ? cutter.holderDiameter
        : Math.max(cutter.diameter, cutter.shankDiameter);
    const over = Math.max(
      chuck > 0 ? chuck + wide / 2 - p.x : 0,
      tailStock > 0 ? p.x + wide / 2 - (board.x - tailStock) : 0,
    );
    if (over > most) [worst, most] = [i, over];
  }
  return [worst, most];
}

/** A bit that comes over chuck or tail stock lower than what clears everything: it turns into steel. */
export const chuckHit: Rule = {
  id: 'chuck',
  run(at) {
    if (!at.view.board.drum) return [];
    const [worst, over] = furthest(at);
    if (worst < 0) return [];
    const place = endOf(at.run, worst);
    const found: Found = {
      rule: 'chuck',
      severity: 'error',
      subject: aboutRun(at, worst),
      place,
      figures: {
        end: place.x < at.view.board.x / 2 ? 'chuck' : 'tail stock',
        over,
        height: at.view.setup.heights.everything,
      },
    };
    return [found];
  },
};
