import type { Cutter } from '../cutter/cutter';
import { inBoard } from '../doc/edits';
import type { Job } from '../doc/job';
import type { Copied, Library } from '../doc/library';
import { bitIn } from '../doc/own-feeds';
import type { Edit } from '../findings/edit';
import { type Finding, type Found, identify } from '../findings/finding';
import { reachingFixes } from '../proof/checks/left-over';
import type { SetupView } from '../setup/view';
import { fittedTo } from './at-hand';

/** Findings of a setup with fixes by bits that the job does not have and the drawer has. */
export function withDrawer(findings: Finding[], view: SetupView, drawer: Cutter[]): Finding[] {
  return findings.map((f) => {
    const { most, depth, own, why } = f.figures as Record<string, number | string>;
    if (f.rule !== 'left-over' || f.fixes.length > 0 || why !== 'width') return f;
    const within = { most: Math.min(Number(most), Number(own)), depth: Number(depth) };
    return { ...f, fixes: reachingFixes(view, within, drawer) };
  });
}

/** Whether two copies of a thing have the same figures; `but` are fields that are each one's own. */
function same<T extends object>(a: T, b: T, but: (keyof T)[] = []): boolean {
  const plain = (v: T) =>
    JSON.stringify(
      Object.entries(v)
        .filter(([k]) => !but.includes(k as keyof T))
        .sort(),
    );
  return plain(a) === plain(b);
}

function changed(what: string, name: string, path: (string | number)[], edits: Edit[]): Found {
  return {
    rule: 'figures-changed',
    severity: 'note',
    subject: { path },
    place: null,
    figures: { what, name },
    fixes: [{ id: 'take-figures', figures: {}, edits }],
  };
}

/**
 * Bits, machine and materials that the shop has other figures for now than the job's own copies. A plan stays a function of its document:
 * the shop's figures are taken only when somebody says so.
 */
export function drawerFindings(job: Job, drawer: Pick<Library, Copied>): Finding[] {
  const out: Found[] = [];
  const machine = drawer.machines.find((m) => m.id === job.machine.id);
  if (machine && !same(machine, job.machine))
    out.push(changed('machine', machine.name, ['machine'], [{ set: ['machine'], to: machine }]));
  for (const [i, c] of job.cutters.entries()) {
    const kept = drawer.cutters.find((d) => d.id === c.id);
    if (!kept) continue;
    // A bit that works on boards of several materials is as the drawer has it when it is so for one of them.
    const [own, ...others] = job.boards.map((b) => bitIn(kept, b.material));
    // The number is the job's own, wear goes on in the drawer, and a bit may be run as the machine can.
    const asKept = (o: Cutter) => [o, fittedTo(job.machine, o)].some((k) => same(k, c, ['number', 'runs']));
    if (![own, ...others].some(asKept))
      out.push(
        changed(
          'bit',
          own.name,
          ['cutters', i],
          [{ set: ['cutters', { id: c.id }], to: { ...own, number: c.number } }],
        ),
      );
  }
  for (const [i, board] of job.boards.entries()) {
    const own = drawer.materials.find((m) => m.id === board.material.id);
    if (own && !same(own, board.material))
      out.push(
        changed('material', own.name, ['boards', i, 'material'], [{ set: inBoard({ board }, 'material'), to: own }]),
      );
  }
  return identify(out, false);
}
