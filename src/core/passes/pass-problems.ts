import type { Cutter } from '../cutter/cutter';
import { inSetup } from '../doc/edits';
import { LEAST_SIDE_STEP } from '../doc/parts';
import type { Pass } from '../doc/pass';
import type { Edit } from '../findings/edit';
import type { Figures, Fix, Found } from '../findings/finding';
import { clean } from '../units/round';
import { aboutPass, type PassAt } from './kind';

/** A problem of a pass: the rule, the field that it is about, and what mends it. */
export function passProblem(at: PassAt<Pass>, rule: string, field: string, figures: Figures, fixes: Fix[] = []): Found {
  const { view, pass, cutter } = at;
  return {
    rule,
    severity: 'error',
    subject: { ...aboutPass(at), path: [...pathOf(at), field] },
    place: null,
    figures: { bit: cutter?.name ?? pass.cutter, field, ...figures },
    fixes: fixes.filter((f) => f.edits.length > 0 && view !== null),
  };
}

/** Where a pass stands in the document. */
function pathOf({ view, pass }: PassAt<Pass>): (string | number)[] {
  const b = view.document.boards.findIndex((x) => x.id === view.board.id);
  const s = view.board.setups.findIndex((x) => x.id === view.setup.id);
  return ['boards', b, 'setups', s, 'passes', view.passes.indexOf(pass)];
}

/** Sets a field of a pass. */
export const setOf = ({ view, pass }: PassAt<Pass>, field: string, to: unknown): Edit => ({
  set: inSetup(view, 'passes', { id: pass.id }, ...field.split('.')),
  to,
});

/** The fix that sets a number of a pass. */
export const setValue = (at: PassAt<Pass>, field: string, value: number): Fix => ({
  id: 'use-value',
  figures: { value, field },
  edits: [setOf(at, field, value)],
});

/** A stepover that leaves ribs standing, or is far finer than any bit repeats. */
export function stepoverProblems(at: PassAt<Pass & { stepover: number }>, most: number): Found[] {
  const { pass, cutter } = at;
  const least = cutter.diameter / 400;
  if (pass.stepover > most)
    return [
      passProblem(at, 'stepover-wide', 'stepover', { stepover: pass.stepover, most }, [
        setValue(at, 'stepover', clean(most)),
      ]),
    ];
  // Below what any stepover may be it is the value itself that is told.
  if (pass.stepover < least && pass.stepover >= LEAST_SIDE_STEP)
    return [
      passProblem(at, 'stepover-fine', 'stepover', { stepover: pass.stepover, least }, [
        setValue(at, 'stepover', clean(Math.max(least, 0.0001))),
      ]),
    ];
  return [];
}

/** Whether a bit has a flat bottom. */
export const isFlat = (c: Cutter) => c.shape === 'endmill' || c.shape === 'bullnose';
