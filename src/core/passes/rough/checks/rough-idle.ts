import { inSetup } from '../../../doc/edits';
import type { Found } from '../../../findings/finding';
import { aboutPass, type PassDone } from '../../kind';
import type { RoughPass } from '../schema';

type Done = PassDone<RoughPass, { levels: number }>;

/** A depth over the stock to leave by less is nothing to rough, mm. */
const LITTLE = 0.05;

/** Why a roughing pass has nothing to do: it is too shallow for it, another left nothing, or its bit enters nowhere. */
function whyOf({ view, pass }: Done, deep: number): 'shallow' | 'rest' | 'narrow' {
  if (deep <= pass.stockToLeave + LITTLE) return 'shallow';
  const before = view.passes.slice(
    0,
    view.passes.findIndex((p) => p.id === pass.id),
  );
  return before.some((p) => 'area' in p) ? 'rest' : 'narrow';
}

/** A roughing pass that cuts nothing. */
export function roughIdle(d: Done): Found[] {
  if (d.facts.levels > 0) return [];
  const deep = d.ground.deepest;
  return [
    {
      rule: 'rough-idle',
      severity: 'warning',
      subject: aboutPass(d),
      place: null,
      figures: { why: whyOf(d, deep), bit: d.cutter.name, wide: d.cutter.diameter, leave: d.pass.stockToLeave, deep },
      fixes: [{ id: 'remove-pass', figures: {}, edits: [{ remove: inSetup(d.view, 'passes', { id: d.pass.id }) }] }],
    },
  ];
}
