import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import { setOf } from '../../pass-problems';
import type { CutoutFacts } from '../plan';
import type { CutoutPass } from '../schema';

type Done = PassDone<CutoutPass, CutoutFacts>;

/** Upright tabs behind which the bit goes straight down deeper than it may. */
export function tabPlunge(d: Done): Found[] {
  const { pass, cutter, facts } = d;
  const deep = (facts.tabTop - facts.bottom) / Math.max(1, facts.levels);
  if (facts.rings.length === 0 || pass.tabs.sloped || facts.tabs.length === 0 || deep <= cutter.maxPlungeDepth)
    return [];
  return [
    {
      rule: 'tab-plunge',
      severity: 'warning',
      subject: aboutPass(d),
      place: facts.tabs[0],
      figures: {
        bit: cutter.name,
        deep: Math.min(pass.stepdown, facts.tabTop - facts.bottom),
        most: cutter.maxPlungeDepth,
      },
      fixes: [{ id: 'slope-tabs', figures: {}, edits: [setOf(d, 'tabs.sloped', true)] }],
    },
  ];
}
