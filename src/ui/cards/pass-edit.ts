import { type Cutter, stepoverBase } from '@/core/cutter/cutter';
import type { Job, Pass } from '@/core/plan/job';
import { placeFor } from '@/core/plan/order';
import { proposeFlat, stepdownFor } from '@/core/plan/propose';

/** Puts a bit of the drawer into a pass, with the stepover and stepdown that suit it. */
export function takeCutter(job: Job, id: string, cutter: Cutter): void {
  if (!job.cutters.some((c) => c.id === cutter.id)) job.cutters.push(cutter);
  const p = job.passes.find((q) => q.id === id)!;
  p.cutter = cutter.id;
  p.stepover = Number(((p.kind === 'finish' ? 0.08 : 0.4) * stepoverBase(cutter)).toFixed(4));
  if (p.kind !== 'finish') p.stepdown = stepdownFor(cutter, job.board.material);
  job.cutters = job.cutters.filter((c) => job.passes.some((q) => q.cutter === c.id));
}

/** Adds a pass where its kind belongs, after the pattern of the last of its kind. @returns its id, or null where none can be proposed */
export function addPass(job: Job, kind: Pass['kind'], beside: Pass): string | null {
  const id = `${kind}-${Date.now().toString(36)}`;
  const model = job.passes.findLast((p) => p.kind === kind);
  let pass: Pass | null;
  if (model) pass = { ...structuredClone(model), id };
  else if (kind === 'flat') {
    const flat = proposeFlat(job);
    pass = flat && { ...flat, id };
  } else if (kind === 'rough')
    pass = {
      id,
      kind,
      cutter: beside.cutter,
      area: { kind: 'relief', trench: null },
      strategy: 'rings',
      angle: 0,
      stepover: beside.stepover,
      stepdown: 1,
      stockToLeave: 0.5,
      rampAngle: 4,
    };
  else
    pass = {
      id,
      kind,
      cutter: beside.cutter,
      area: { kind: 'relief', trench: null },
      angle: 0,
      stepover: beside.stepover,
      tolerance: 0.01,
    };
  if (!pass) return null;
  job.passes.splice(placeFor(job.passes, kind), 0, pass);
  return id;
}
