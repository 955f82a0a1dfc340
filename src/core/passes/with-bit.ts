import type { Cutter } from '../cutter/cutter';
import { inSetup } from '../doc/edits';
import { setupsOf } from '../doc/job';
import { bornBy } from '../doc/material';
import type { Pass, PassKindName } from '../doc/pass';
import type { Edit } from '../findings/edit';
import type { SetupView } from '../setup/view';
import { addBit } from './add-pass';
import { kindOf } from './registry';

/** Figures of a pass that follow its bit. */
const FOLLOW = ['stepover', 'stepdown', 'diameter', 'peck'] as const;

/** Edits that give a pass another bit, with the figures that are proposed for it; a bit that no pass uses any more goes. */
export function withBit(view: SetupView, pass: Pass, bit: Cutter): Edit[] {
  const at = (field: string) => inSetup(view, 'passes', { id: pass.id }, field);
  const proposed = kindOf(pass).propose(view, bornBy(view.board.material, bit)) as unknown as Record<string, unknown>;
  const edits: Edit[] = [...addBit(view, bit), { set: at('cutter'), to: bit.id }];
  for (const key of FOLLOW) if (key in proposed) edits.push({ set: at(key), to: proposed[key] });
  const used = setupsOf(view.document).some((p) => p.setup.passes.some((q) => q !== pass && q.cutter === pass.cutter));
  if (!used && pass.cutter !== bit.id && view.cutters.some((c) => c.id === pass.cutter))
    edits.push({ remove: ['cutters', { id: pass.cutter }] });
  return edits;
}

/** The bit that suits a new pass of a kind best: of those at hand in their order, the one that the kind likes best. */
export function bitFor(kind: PassKindName, atHand: Cutter[]): Cutter | null {
  const { unsuited, likes } = kindOf(kind);
  const fit = atHand.filter((c) => unsuited(c) === null);
  return fit.sort((a, b) => (likes?.(b) ?? 0) - (likes?.(a) ?? 0))[0] ?? null;
}
