import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import type { FinishFacts } from '../plan';
import type { FinishPass } from '../schema';

/** Gaps that a finishing bit fits into, but in which it has no room to go down into the wood. */
export function entryRefused(d: PassDone<FinishPass, FinishFacts>): Found[] {
  const { refused } = d.facts;
  if (refused.length === 0) return [];
  const { x, y, deep } = refused.reduce((a, b) => (b.deep > a.deep ? b : a));
  return [
    {
      rule: 'entry-refused',
      severity: 'note',
      subject: aboutPass(d),
      place: { x, y },
      figures: { bit: d.cutter.name, places: refused.length, deep, most: d.cutter.maxPlungeDepth },
    },
  ];
}
