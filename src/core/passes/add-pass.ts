import type { Cutter } from '../cutter/cutter';
import { inSetup } from '../doc/edits';
import { bornBy } from '../doc/material';
import type { PassKindName } from '../doc/pass';
import type { Edit } from '../findings/edit';
import type { SetupView } from '../setup/view';
import { placeFor } from './order';
import { kindOf } from './registry';

/** Edits that bring a bit into a job that does not have it yet, with a number of its own. */
export function addBit(view: Pick<SetupView, 'cutters'>, bit: Cutter): Edit[] {
  if (view.cutters.some((c) => c.id === bit.id)) return [];
  const taken = new Set(view.cutters.map((c) => c.number));
  let number = bit.number;
  while (taken.has(number)) number++;
  return [{ insert: ['cutters'], at: view.cutters.length, value: { ...bit, number } }];
}

/** Edits that add a pass as it is proposed for a bit, at its place in the order of work; the bit comes with it. */
export function addPass(view: SetupView, kind: PassKindName, bit: Cutter): Edit[] {
  const pass = kindOf(kind).propose(view, bornBy(view.board.material, bit));
  return [...addBit(view, bit), { insert: inSetup(view, 'passes'), at: placeFor(view.passes, kind), value: pass }];
}
