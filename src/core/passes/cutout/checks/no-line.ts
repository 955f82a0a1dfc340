import { inSetup } from '../../../doc/edits';
import { WHOLE_PIECE } from '../../../doc/outline-ref';
import type { Fix, Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import { setOf } from '../../pass-problems';
import type { CutoutFacts } from '../plan';
import type { CutoutPass } from '../schema';

type Done = PassDone<CutoutPass, CutoutFacts>;

/** A cut-out whose outline is empty, or too narrow for its bit. */
export function noLine(d: Done): Found[] {
  const { view, pass, facts } = d;
  if (facts.rings.length > 0) return [];
  const remove: Fix = {
    id: 'remove-pass',
    figures: {},
    edits: [{ remove: inSetup(view, 'passes', { id: pass.id }) }],
  };
  const whole: Fix = {
    id: 'outline-whole',
    figures: {},
    edits: [setOf(d, 'outline', WHOLE_PIECE), setOf(d, 'side', 'outside')],
  };
  return [
    {
      rule: 'cutout-no-line',
      severity: 'error',
      subject: aboutPass(d),
      place: null,
      fixes: view.layers.some((l) => !l.hidden) && pass.outline.of !== null ? [whole, remove] : [remove],
    },
  ];
}
