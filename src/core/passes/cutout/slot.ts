import type { Cutter } from '../../cutter/cutter';
import type { Polygon } from '../../outline/polygon';
import type { Slot } from '../slots';
import { atDepth, type CutLine, cutLines } from './line';
import { asCut, type CutoutFacts, lastTabs } from './plan';
import type { CutoutPass } from './schema';

/** Heights this near the bottom of a slot or the top of a tab are it, mm. */
const SLACK = 0.005;

/** What a cut-out leaves in the target: its lines at their depths, the last lap's tabs a hair longer. */
export function cutoutSlot(asked: CutoutPass, cutter: Cutter, facts: CutoutFacts, outline: Polygon): Slot {
  const pass = asCut(asked);
  const lines = cutLines(outline, pass, cutter);
  const laps: [CutLine, number][] = [
    ...(facts.levels > 0 ? lines.wide.map((l): [CutLine, number] => [l, facts.floor]) : []),
    ...lines.last.map((l): [CutLine, number] => [l, facts.bottom]),
  ];
  const chains = laps.map(([l, z]) => {
    const { half } = lines.wide.includes(l) ? lines : lastTabs(lines, pass);
    const points = atDepth(l, z, facts.tabTop, half, lines.slope);
    return Float64Array.from([...points, ...points.subarray(0, 3)]);
  });
  // Where the bit runs up to a tab, a hair sideways is a fifth of a millimetre in height: the tabs are measured by themselves.
  if (pass.depth !== null) return { cutter, chains, loose: null, through: false };
  return { cutter, chains, loose: [facts.bottom + SLACK, facts.tabTop - SLACK], through: true };
}
