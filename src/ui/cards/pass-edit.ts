import type { Cutter } from '@/core/cutter/cutter';
import { applyEdits, inSetup } from '@/core/doc/edits';
import type { Pass, PassKindName } from '@/core/doc/pass';
import { addBit, addPass as proposedPass } from '@/core/passes/add-pass';
import { placeFor } from '@/core/passes/order';
import { freeId } from '@/core/passes/proposals';
import { bitFor, withBit } from '@/core/passes/with-bit';
import type { SetupView } from '@/core/setup/view';

/** Puts a bit of the drawer into a pass, with the figures that suit it. */
export function takeCutter(view: SetupView, id: string, cutter: Cutter): void {
  const pass = view.passes.find((q) => q.id === id);
  if (pass) applyEdits(view.document, withBit(view, pass, cutter));
}

/** Adds one more pass like the last of its kind. */
function passLike(view: SetupView, model: Pass, drawer: Cutter[]): string {
  const pass = { ...structuredClone(model), id: freeId(model.kind, view) };
  const bit = drawer.find((c) => c.id === pass.cutter);
  const place = { insert: inSetup(view, 'passes'), at: placeFor(view.passes, pass.kind), value: pass };
  applyEdits(view.document, [...(bit ? addBit(view, bit) : []), place]);
  return pass.id;
}

/**
 * Adds a pass where its kind belongs: after the pattern of the last of its kind, or as it is proposed for the bit at hand that suits it.
 * @param drawer bits that may be taken for it
 * @returns its id, or null where no bit suits it
 */
export function addPass(
  view: SetupView,
  kind: PassKindName,
  cutter: Cutter | undefined,
  drawer: Cutter[],
): string | null {
  const model = view.passes.findLast((p) => p.kind === kind);
  if (model) return passLike(view, model, drawer);
  const roughing = view.passes.find((p) => p.kind === 'rough')?.cutter;
  const atHand = [cutter, view.cutters.find((c) => c.id === roughing), ...view.cutters, ...drawer];
  const bit = bitFor(
    kind,
    atHand.filter((c) => c !== undefined),
  );
  if (!bit) return null;
  const before = new Set(view.passes.map((p) => p.id));
  applyEdits(view.document, proposedPass(view, kind, bit));
  return view.passes.find((p) => !before.has(p.id))?.id ?? null;
}

/** Takes a pass away, and the job's bits that no pass of any setup uses any more; the last bits stay. */
export function removePass(view: SetupView, id: string): void {
  view.passes = view.passes.filter((p) => p.id !== id);
  const used = new Set(view.document.boards.flatMap((b) => b.setups.flatMap((s) => s.passes.map((p) => p.cutter))));
  if (used.size > 0) view.cutters = view.cutters.filter((c) => used.has(c.id));
}
