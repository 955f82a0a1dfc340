import type { Found } from '../findings/finding';
import type { PlannedProgram } from './programs';
import { type BoardToProve, type ProvenBoard, provePlan } from './prove-plan';
import type { PlanEnvironment } from './stage';

/** Words by which a finding is known again: what it is about, and for more than a note also where and how much. */
const wordsOf = ({ rule, severity, subject: { line: _, passage: __, ...subject }, place, figures }: Found): string =>
  JSON.stringify([rule, severity, subject, ...(severity === 'note' ? [] : [place, figures])]);

/** Gives programs what a proof saw of them. @param own the programs of a setup, in the proof's order */
function tell(own: PlannedProgram[], seen: ProvenBoard['setups'][number]['programs'], which: PlannedProgram[]): void {
  own.forEach((p, n) => {
    if (which.includes(p)) Object.assign(p, seen[n]);
  });
}

/**
 * Proves a board as it is cut as a matter of course, and where programs are kept in reserve once more with all of them in their places: what only that
 * shows is told as such. Each program gets what the first order that it is in shows of it.
 */
export async function proveOrders(
  b: BoardToProve,
  programs: PlannedProgram[],
  env: PlanEnvironment,
): Promise<ProvenBoard> {
  const cut = programs.filter((p) => !p.reserve);
  const proof = await provePlan(b, cut, env);
  const own = (s: BoardToProve['setups'][number], of: PlannedProgram[]) =>
    of.filter((p) => p.setup === s.view.setup.id);
  b.setups.forEach((s, k) => {
    tell(own(s, cut), proof.setups[k].programs, cut);
  });
  const reserve = programs.filter((p) => p.reserve && b.setups.some((s) => s.view.setup.id === p.setup));
  if (reserve.length === 0) return proof;
  const all = await provePlan(b, programs, env);
  b.setups.forEach((s, k) => {
    tell(own(s, programs), all.setups[k].programs, reserve);
  });
  const said = new Set(proof.found.map(wordsOf));
  const more = all.found.filter((f) => !said.has(wordsOf(f)));
  return {
    ...proof,
    found: [...proof.found, ...more.map((f) => ({ ...f, subject: { ...f.subject, reserve: true as const } }))],
  };
}
