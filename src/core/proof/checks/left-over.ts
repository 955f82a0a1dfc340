import { type Cutter, stepoverBase, tipRadius } from '../../cutter/cutter';
import { cellPlace } from '../../field/height-field';
import type { Fix, Found } from '../../findings/finding';
import { addPass } from '../../passes/add-pass';
import { kindOf } from '../../passes/registry';
import type { SetupView } from '../../setup/view';
import { NOTABLE } from '../deviation';
import { middleOf, widestThere } from '../reaching';
import type { Rule } from './rule';

/** Share of the relief from which what stands over it is told however low it is. */
const MUCH = 0.05;
/** Less than this at a place that bits do not reach is no matter, mm3. */
const LITTLE = 5;

/** Width of the finest tip that finishes in a setup, mm; of any bit where nothing finishes. */
function finest(view: SetupView): number {
  const finishing = view.passes.filter((p) => kindOf(p).kind === 'finish');
  const own = (finishing.length > 0 ? finishing : view.passes).map((p) => view.cutters.find((c) => c.id === p.cutter));
  return Math.min(...own.flatMap((c) => (c ? [stepoverBase(c)] : [])));
}

/** The widest of some bits that gets into a place no wider than `most` and as deep as that, as a pass more. */
export function reachingFixes(
  view: SetupView,
  { most, depth }: { most: number; depth: number },
  bits: Cutter[],
): Fix[] {
  const used = new Set(view.passes.filter((p) => p.kind === 'finish').map((p) => p.cutter));
  const bit = bits
    .filter((c) => tipRadius(c) > 0 && kindOf('finish').unsuited(c) === null && !used.has(c.id))
    .filter((c) => stepoverBase(c) <= most && c.stickOut >= depth)
    .sort((a, b) => stepoverBase(b) - stepoverBase(a))[0];
  return bit ? [{ id: 'add-finish', figures: { bit: bit.name }, edits: addPass(view, 'finish', bit) }] : [];
}

/**
 * Wood that no bit of the job took away: the deepest place and the volume, with the widest bit that gets in. A fillet at the foot of a wall is
 * what every round tip leaves, and is told only where much of the relief stands high.
 */
export const leftOver: Rule = {
  id: 'left-over',
  cut({ view, target, cut, deviation: { left } }): Found[] {
    if (left.at < 0) return [];
    const own = finest(view);
    const deep = left.deepest > own / 2 + NOTABLE && left.volume > LITTLE;
    if (!deep && left.share <= MUCH) return [];
    const at = middleOf(cut, target.field, left.at);
    const most = deep ? widestThere(target.field, at, left.deepest) : own;
    const depth = -target.field.data[at];
    return [
      {
        rule: 'left-over',
        severity: 'note',
        subject: { setup: view.setup.id },
        place: cellPlace(target.field, at),
        figures: {
          share: left.share * 100,
          height: NOTABLE,
          deep: left.deepest,
          volume: left.volume / 1000,
          most,
          depth,
          own,
          why: !deep || most >= own ? 'path' : most > 0 ? 'width' : 'none',
        },
        fixes: deep && most > 0 && most < own ? reachingFixes(view, { most, depth }, view.cutters) : [],
      },
    ];
  },
};
