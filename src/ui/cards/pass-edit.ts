import { type Cutter, stepoverBase } from '@/core/cutter/cutter';
import type { Job } from '@/core/plan/job';
import { placeFor } from '@/core/plan/order';
import type { Pass } from '@/core/plan/pass';
import { proposeCutout, proposeFlat, proposeHoles, proposeLetter, proposeSkim, stepdownFor } from '@/core/plan/propose';

/** Puts a bit of the drawer into a pass, with the stepover and stepdown that suit it. */
export function takeCutter(job: Job, id: string, cutter: Cutter): void {
  if (!job.cutters.some((c) => c.id === cutter.id)) job.cutters.push(cutter);
  const p = job.passes.find((q) => q.id === id)!;
  p.cutter = cutter.id;
  if ('stepover' in p) p.stepover = Number(((p.kind === 'finish' ? 0.08 : 0.4) * stepoverBase(cutter)).toFixed(4));
  if (p.kind === 'letter') p.stepdown = cutter.maxStepdown;
  else if ('stepdown' in p) p.stepdown = stepdownFor(cutter, job.board.material);
  job.cutters = job.cutters.filter((c) => job.passes.some((q) => q.cutter === c.id));
}

const widest = (list: Cutter[]) => [...list].sort((a, b) => b.diameter - a.diameter)[0];

function freshPass(job: Job, kind: Pass['kind'], cutter: Cutter, drawer: Cutter[]): Pass | null {
  const area = { kind: 'relief', trench: null } as const;
  switch (kind) {
    case 'rough':
      return {
        id: kind,
        kind,
        cutter: cutter.id,
        area,
        strategy: 'rings',
        angle: 0,
        stepover: 0.4 * stepoverBase(cutter),
        stepdown: 1,
        stockToLeave: 0.5,
        rampAngle: 4,
      };
    case 'flat':
      return proposeFlat(job);
    case 'finish':
      return {
        id: kind,
        kind,
        cutter: cutter.id,
        area,
        angle: 0,
        stepover: 0.08 * stepoverBase(cutter),
        tolerance: 0.01,
      };
    case 'letter': {
      const v = [...job.cutters, ...drawer].find((c) => c.shape === 'v');
      return v ? proposeLetter(v) : null;
    }
    case 'skim': {
      const mill = widest([cutter, ...job.cutters, ...drawer].filter((c) => c.shape === 'endmill'));
      return mill ? proposeSkim(job, mill) : null;
    }
    case 'hole': {
      const bits = [...job.cutters, ...drawer];
      const bit = bits.find((c) => c.shape === 'drill') ?? bits.find((c) => c.shape === 'endmill');
      return bit ? proposeHoles(job, bit) : null;
    }
    case 'cutout': {
      const rough = job.cutters.find((c) => c.id === job.passes.find((p) => p.kind === 'rough')?.cutter);
      const mill = [cutter, ...(rough ? [rough] : []), ...job.cutters, ...drawer].find((c) => c.shape === 'endmill');
      return mill ? proposeCutout(job, mill) : null;
    }
  }
}

/**
 * Adds a pass where its kind belongs, after the pattern of the last of its kind.
 * @param drawer bits that may be taken for it
 * @returns its id, or null where none can be proposed
 */
export function addPass(job: Job, kind: Pass['kind'], cutter: Cutter, drawer: Cutter[]): string | null {
  const model = job.passes.findLast((p) => p.kind === kind);
  const pass = model ? structuredClone(model) : freshPass(job, kind, cutter, drawer);
  if (!pass) return null;
  pass.id = `${kind}-${crypto.randomUUID().slice(0, 8)}`;
  const own = drawer.find((c) => c.id === pass.cutter);
  if (own && !job.cutters.some((c) => c.id === own.id)) job.cutters.push(own);
  job.passes.splice(placeFor(job.passes, kind), 0, pass);
  return pass.id;
}
