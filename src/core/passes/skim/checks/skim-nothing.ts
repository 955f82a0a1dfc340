import { inSetup } from '../../../doc/edits';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import { skimDepths } from '../plan';
import type { SkimPass } from '../schema';

type Done = PassDone<SkimPass, unknown>;

/** A skim of a board that is no thicker than it is to be. */
export function skimNothing(d: Done): Found[] {
  const { thin, skims } = skimDepths(d.pass, d.view.board.thickness);
  if (thin || skims > 0) return [];
  return [
    {
      rule: 'skim-nothing',
      severity: 'warning',
      subject: aboutPass(d),
      place: null,
      fixes: [{ id: 'remove-pass', figures: {}, edits: [{ remove: inSetup(d.view, 'passes', { id: d.pass.id }) }] }],
    },
  ];
}
