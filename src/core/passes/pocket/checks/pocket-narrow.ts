import { inSetup } from '../../../doc/edits';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import type { PocketFacts } from '../plan';
import type { PocketPass } from '../schema';

/** A pocket whose outline is empty, or narrower than its bit everywhere. */
export function pocketNarrow(d: PassDone<PocketPass, PocketFacts>): Found[] {
  const { view, pass, cutter, facts } = d;
  if (facts.fits) return [];
  return [
    {
      rule: 'pocket-narrow',
      severity: 'error',
      subject: aboutPass(d),
      place: null,
      figures: { bit: cutter.name },
      fixes: [{ id: 'remove-pass', figures: {}, edits: [{ remove: inSetup(view, 'passes', { id: pass.id }) }] }],
    },
  ];
}
