import { inSetup } from '../../doc/edits';
import type { Fix } from '../../findings/finding';
import { addPass } from '../../passes/add-pass';
import { kindOf } from '../../passes/registry';
import type { SetupView } from '../../setup/view';
import { type AfterRun, aboutRun, type Rule } from './rule';
import { endOf, isRapid } from './run-places';

/** Takes less at once where passes of the run say how much, and roughs first where nothing has been. */
function fixes({ view, run }: AfterRun): Fix[] {
  const limit = run.cutter.maxStepdown;
  const own = view.passes.filter((p) => run.passes.includes(p.id));
  const deep = own.filter((p) => 'stepdown' in p && p.stepdown > limit);
  if (deep.length > 0)
    return [
      {
        id: 'use-stepdown',
        figures: { stepdown: limit },
        edits: deep.map((p) => ({ set: inSetup(view, 'passes', { id: p.id }, 'stepdown'), to: limit })),
      },
    ];
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

/** Bites deeper than a bit takes at once. */
export const stepdown: Rule = {
  id: 'stepdown',
  run(at) {
    const { run } = at;
    const limit = run.cutter.maxStepdown;
    let worst = -1;
    for (let i = 0; i < run.bites.length; i++)
      if (!isRapid(run, i) && (worst < 0 || run.bites[i] > run.bites[worst])) worst = i;
    if (worst < 0 || run.bites[worst] <= limit * 1.02 + 0.02) return [];
    return [
      {
        rule: 'stepdown',
        severity: 'warning',
        subject: aboutRun(at, worst),
        place: endOf(run, worst),
        figures: { bit: run.cutter.name, deep: run.bites[worst], most: limit },
        fixes: fixes(at),
      },
    ];
  },
};
