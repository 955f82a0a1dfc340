import { type Mark, MOVES } from '../motion/path';
import { type MotionTime, motionTime } from '../motion/time';
import { kindOf } from '../passes/registry';
import type { LayerSeen } from '../proof/checks/rule';
import type { SetupView } from '../setup/view';
import type { Planned } from './plan-passes';

/** A move between plots. */
const LINK = Uint8Array.from([0, MOVES.indexOf('link')]);

/** Time and lengths of several paths and of the ways between them. */
function sumTimes(all: MotionTime[]): MotionTime {
  const spent: MotionTime['spent'] = {};
  for (const t of all)
    for (const [kind, s] of Object.entries(t.spent) as [keyof typeof spent, number][])
      spent[kind] = (spent[kind] ?? 0) + s;
  const sum = (k: Exclude<keyof MotionTime, 'spent'>) => all.reduce((s, t) => s + t[k], 0);
  return {
    seconds: sum('seconds'),
    naiveSeconds: sum('naiveSeconds'),
    cutLength: sum('cutLength'),
    rapidLength: sum('rapidLength'),
    cutSeconds: sum('cutSeconds'),
    rapidSeconds: sum('rapidSeconds'),
    spent,
  };
}

/** One pass as it was planned on several plots, as one path: plot after plot, from one to the next at the height that both end and begin at. */
function joinPass(parts: Planned[], machine: SetupView['machine']): Planned {
  const some = parts.filter((p) => p.moves.length > 0);
  const [first] = parts;
  const moves = new Float64Array(some.reduce((s, p) => s + p.moves.length, 0));
  const marks: Mark[] = [];
  const times: MotionTime[] = [];
  let at = 0;
  for (const [n, p] of some.entries()) {
    moves.set(p.moves, at);
    const own = p.marks[0]?.move === 0 ? p.marks : [{ move: 0, place: [] }, ...p.marks];
    marks.push(...own.map((m): Mark => ({ move: m.move + at / 4, place: [['plot', n + 1, some.length], ...m.place] })));
    times.push(p.summary);
    if (at > 0) times.push(motionTime(moves.subarray(at - 4, at + 4), machine, LINK));
    at += p.moves.length;
  }
  const all = parts.map((p) => p.summary.facts);
  const facts = kindOf(first.pass).joinFacts?.(all) ?? all[0];
  return {
    ...first,
    moves,
    marks,
    summary: { ...first.summary, ...sumTimes(times), moves: moves.length / 4, facts },
  };
}

/** The passes of a setup, each as one path over all plots that it works on. @param plots the passes planned on every plot */
export function joinPlanned(view: SetupView, plots: Planned[][]): Planned[] {
  if (plots.length === 1) return plots[0];
  return view.passes.map((pass) => {
    const parts = plots.flat().filter((p) => p.pass.id === pass.id);
    return parts.length === 1 ? parts[0] : joinPass(parts, view.machine);
  });
}

/** What is known of the layers of a setup from all its plots: what a layer does on one of them it does. */
export function joinSeen(plots: LayerSeen[][]): LayerSeen[] {
  const [first] = plots;
  return first.map((l, i): LayerSeen => {
    const all = plots.map((p) => p[i]);
    const most = (of: (e: LayerSeen) => number) => Math.max(...all.map(of));
    return {
      ...l,
      lostPlan: most((e) => e.lostPlan),
      thinCells: all.reduce((s, e) => s + e.thinCells, 0),
      effect: {
        stands: all.some((e) => e.effect.stands),
        changed: most((e) => e.effect.changed),
        lost: most((e) => e.effect.lost),
        visible: most((e) => e.effect.visible),
      },
    };
  });
}
