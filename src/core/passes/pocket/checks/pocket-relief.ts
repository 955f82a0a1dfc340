import { inSetup } from '../../../doc/edits';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import type { PocketFacts } from '../plan';
import type { PocketPass } from '../schema';

/** From this share of a pocket on it takes a relief away, and not only what lies at its edge. */
const MUCH = 0.1;

/** A pocket that takes away what another pass has finished. */
export function pocketRelief(d: PassDone<PocketPass, PocketFacts>): Found[] {
  const { view, pass, facts } = d;
  const before = view.passes.slice(0, view.passes.indexOf(pass));
  if (facts.relief < MUCH || !before.some((p) => p.kind === 'finish' || p.kind === 'letter')) return [];
  return [
    {
      rule: 'pocket-relief',
      severity: 'warning',
      subject: aboutPass(d),
      place: null,
      figures: { share: facts.relief },
      fixes: [{ id: 'remove-pass', figures: {}, edits: [{ remove: inSetup(view, 'passes', { id: pass.id }) }] }],
    },
  ];
}
