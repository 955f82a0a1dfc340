import type { Cutter } from '../cutter/cutter';
import { inSetup } from '../doc/edits';
import { cutterOf, type Job, setupsOf } from '../doc/job';
import { bornBy } from '../doc/material';
import type { Pass } from '../doc/pass';
import { problem } from '../doc/problems/problem';
import { setupPath } from '../doc/problems/references';
import type { Fix, Found } from '../findings/finding';
import { type SetupView, viewOf } from '../setup/view';
import { dowelFault, placeDowels } from './dowels';
import type { HolePass } from './hole/schema';
import { aboutPass, type PassAt } from './kind';
import { inOrder, orderProblem } from './order';
import { passProblem, setOf, setValue } from './pass-problems';
import { kindOf } from './registry';
import { withBit } from './with-bit';

/** The bit of the job that suits a pass best: the nearest in width to the one that it has, or the first. */
function suitable(view: SetupView, pass: Pass, most: number): Cutter | undefined {
  const had = cutterOf(view, pass);
  const fits = view.cutters.filter(
    (c) => c.id !== pass.cutter && kindOf(pass).unsuited(c) === null && c.diameter <= most,
  );
  return had
    ? fits.sort((a, b) => Math.abs(a.diameter - had.diameter) - Math.abs(b.diameter - had.diameter))[0]
    : fits[0];
}

/** Gives a pass a bit that suits it. */
function otherBit(view: SetupView, pass: Pass, most = Infinity): Fix[] {
  const bit = suitable(view, pass, most);
  return bit ? [{ id: 'use-bit', figures: { bit: bit.name }, edits: withBit(view, pass, bit) }] : [];
}

function ofPass(view: SetupView, pass: Pass, path: (string | number)[]): Found[] {
  const had = cutterOf(view, pass);
  const cutter = had && bornBy(view.board.material, had);
  const subject = aboutPass({ view, pass });
  if (!cutter)
    return [
      problem('bit-missing', [...path, 'cutter'], { bit: pass.cutter }, { fixes: otherBit(view, pass), subject }),
    ];
  const at = { view, pass, cutter };
  const kind = kindOf(pass);
  const why = kind.unsuited(cutter);
  if (why !== null) return [passProblem(at, 'bit-unsuited', 'cutter', { why }, otherBit(view, pass))];
  const wide = Math.max(view.board.x, view.board.y);
  if (cutter.diameter > wide)
    return [passProblem(at, 'bit-wide', 'cutter', { width: cutter.diameter }, otherBit(view, pass, wide))];
  const own = [...(kind.problems?.(at) ?? []), ...roundProblems(at)];
  return pass.kind === 'hole' && pass.dowel !== null && !view.board.drum
    ? [...own, ...dowelProblems({ view, pass, cutter })]
    : own;
}

/** Directions that rows round a drum may have, degrees: along it or around it. */
const ALONG_OR_AROUND = 90;

/** A pass that does not work round a drum, or not that way; and a spiral on a board that lies flat. */
function roundProblems(at: PassAt<Pass>): Found[] {
  const { view, pass } = at;
  const { drum } = view.board;
  const { round, roundOnly, name } = kindOf(pass);
  const remove: Fix = {
    id: 'remove-pass',
    figures: {},
    edits: [{ remove: inSetup(view, 'passes', { id: pass.id }) }],
  };
  if (!drum && roundOnly) return [passProblem(at, 'drum-only', 'kind', { pass: name }, [remove])];
  const rows = (f: string, to: unknown): Fix[] => [{ id: 'plain-rows', figures: {}, edits: [setOf(at, f, to)] }];
  if (!drum)
    return pass.kind === 'finish' && pass.lines === 'spiral'
      ? [passProblem(at, 'round-rows', 'lines', { why: 'flat' }, rows('lines', 'rows'))]
      : [];
  if (!round) return [passProblem(at, 'drum-pass', 'kind', { pass: name }, [remove])];
  return 'angle' in pass && pass.angle % ALONG_OR_AROUND !== 0
    ? [passProblem(at, 'round-rows', 'angle', { why: 'askew' }, rows('angle', 0))]
    : [];
}

/** Dowels that do not go into their holes, or that hold the board in another place than its own. */
function dowelProblems(at: PassAt<HolePass>): Found[] {
  const { view, pass } = at;
  const out: Found[] = [];
  const figures = { dowel: pass.dowel ?? 0, hole: pass.diameter };
  if (pass.diameter < (pass.dowel ?? 0))
    out.push(passProblem(at, 'dowel-tight', 'dowel', figures, [setValue(at, 'dowel', pass.diameter)]));
  if (pass.depth !== null)
    out.push(
      passProblem(at, 'dowel-blind', 'depth', { ...figures, depth: pass.depth }, [
        { id: 'drill-through', figures: {}, edits: [setOf(at, 'depth', null)] },
      ]),
    );
  const fault = dowelFault(view, pass);
  if (fault === null) return out;
  const edits = placeDowels(view, pass);
  const fixes = edits ? [{ id: 'place-dowels', figures: {}, edits }] : [];
  return [...out, passProblem(at, 'dowel-places', 'places', { fault }, fixes)];
}

/** What passes have wrong: missing and unsuited bits, figures that do not go together, and the order of work. */
export function passProblems(job: Job): Found[] {
  return setupsOf(job).flatMap((p) => {
    const view = viewOf(job, p);
    const path = setupPath(job, p);
    const out = p.setup.passes.flatMap((pass, i) => ofPass(view, pass, [...path, 'passes', i]));
    const why = orderProblem(p.setup.passes);
    if (why === null) return out;
    const order = { id: 'in-order', figures: {}, edits: [{ set: inSetup(p, 'passes'), to: inOrder(p.setup.passes) }] };
    return [...out, problem('order', [...path, 'passes'], { why }, { fixes: [order], subject: { setup: p.setup.id } })];
  });
}
