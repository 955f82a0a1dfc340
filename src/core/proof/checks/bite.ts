import { mostChipArea, WIDE } from '../../cutter/limits';
import type { Fix } from '../../findings/finding';
import { sideOf } from '../../kernels/engagement';
import { addPass } from '../../passes/add-pass';
import { kindOf } from '../../passes/registry';
import type { SetupView } from '../../setup/view';
import type { Run } from '../simulate';
import { type AfterRun, aboutRun, type Rule } from './rule';
import { along, endOf, type Stretch, worstMove } from './run-places';

/** Roughs first where nothing has been. */
function fixes({ view, run }: AfterRun): Fix[] {
  const own = view.passes.filter((p) => run.passes.includes(p.id));
  return own.some((p) => kindOf(p).kind === 'finish') ? roughFirst(view, run.cutter.id) : [];
}

/** A roughing pass before all finishing, by the job's largest bit that suits it and has not roughed yet. */
function roughFirst(view: SetupView, finishing: string): Fix[] {
  const roughed = new Set(view.passes.filter((p) => p.kind === 'rough').map((p) => p.cutter));
  const bit = view.cutters
    .filter((c) => c.id !== finishing && c.shape === 'endmill' && !roughed.has(c.id))
    .sort((a, b) => b.diameter - a.diameter)[0];
  return bit ? [{ id: 'rough-first', figures: { bit: bit.name }, edits: addPass(view, 'rough', bit) }] : [];
}

/** Rounding of a written depth, and what a coarse cell may add, mm. */
const ROUNDING = 0.02;

/**
 * Width across move i of wood that stands higher than the stepdown, mm. The outermost places alone cannot tell a gap between two walls, or
 * a sliver on either side: what is taken of it says how much of the width is wood, half as much again for a round tip in a slot.
 */
function highWidth(run: Run, i: number): number {
  const over = run.bites[i] - run.cutter.maxStepdown;
  return over > 0 ? Math.min(sideOf(run.engaged, i, run.cutter.diameter / 2), (1.5 * run.high[i]) / over) : 0;
}

/** Whether wood higher than the stepdown is met over so much of the width that its height counts. */
const tooHigh = (run: Run, i: number) => along(run, i) && highWidth(run, i) > WIDE * run.cutter.diameter;

/** The deepest bite of a run, or of some of its moves, that counts against its bit's stepdown. @returns the move, -1 where there is none, and the bite, mm */
export function worstBite(run: Run, of?: Stretch): [number, number] {
  const over = worstMove(run, (i) => (tooHigh(run, i) ? run.bites[i] : 0), of);
  if (over[0] >= 0) return over;
  return worstMove(run, (i) => (along(run, i) && run.bites[i] <= run.cutter.maxStepdown ? run.bites[i] : 0), of);
}

/** Bites deeper than a bit takes at once, where it cuts over more than a quarter of its width. */
export const bite: Rule = {
  id: 'bite',
  run(at) {
    const { run } = at;
    const limit = run.cutter.maxStepdown;
    const [worst, deep] = worstBite(run);
    if (deep <= limit * 1.02 + ROUNDING) return [];
    return [
      {
        rule: 'bite',
        severity: 'error',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { bit: run.cutter.name, deep, most: limit },
        fixes: fixes(at),
      },
    ];
  },
};

/** Wood a mm of way in the narrow column that stands higher than the stepdown, mm3: what lies beside it no higher than that is a cut of its own. */
const narrowArea = (run: Run, i: number) =>
  Math.min(run.chip[i], run.high[i] + highWidth(run, i) * run.cutter.maxStepdown);

/** Narrow cuts that take far more at once than the bit's usual cut. */
export const narrowCut: Rule = {
  id: 'chip-area',
  run(at) {
    const { run } = at;
    const limit = mostChipArea(run.cutter);
    const [worst, area] = worstMove(run, (i) =>
      along(run, i) && !tooHigh(run, i) && run.bites[i] > run.cutter.maxStepdown ? narrowArea(run, i) : 0,
    );
    if (area <= limit * 1.02) return [];
    return [
      {
        rule: 'chip-area',
        severity: 'warning',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { bit: run.cutter.name, area, most: limit },
        fixes: fixes(at),
      },
    ];
  },
};
