import { upcutOf } from '../../../cutter/cutter';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import type { CutoutFacts } from '../plan';
import type { CutoutPass } from '../schema';

/** A compression bit whose first lap does not go deeper than its upcut part: that tears the board's upper edge. */
export function upcutLap(d: PassDone<CutoutPass, CutoutFacts>): Found[] {
  const { cutter, facts } = d;
  const upcut = upcutOf(cutter);
  if (upcut === 0 || facts.rings.length === 0 || facts.first > upcut) return [];
  return [
    {
      rule: 'upcut-lap',
      severity: 'warning',
      subject: aboutPass(d),
      place: null,
      figures: { bit: cutter.name, first: facts.first, upcut, shallow: facts.start - facts.floor <= upcut },
    },
  ];
}
