import type { Cutter } from '../cutter/cutter';
import { cutterOf, type Job } from './job';
import type { Pass } from './pass';

/** Width of the ground around the outline that a pass clears, mm: as given, or worked out from its bit. */
function trenchOf(pass: Pass, cutter: Cutter, roughTrench: number): number {
  // Level fields and letters lie within the relief.
  if (pass.kind !== 'rough' && pass.kind !== 'finish') return 0;
  if (pass.area.kind !== 'relief') return 0;
  if (pass.area.trench !== null) return pass.area.trench;
  // One and a half diameters as a rule, and room for the bit with stock on both sides (trade handbook, section 3;
  // common practice, no source).
  if (pass.kind === 'rough') return Math.max(1.5 * cutter.diameter, cutter.diameter + 2 * pass.stockToLeave + 1);
  const own = Math.max(3.175, cutter.diameter);
  return roughTrench > 0 ? Math.min(roughTrench, own) : own;
}

/** Trench width of every pass; a finishing pass's own follows from the widest roughing trench. */
export function resolveTrenches(job: Pick<Job, 'passes' | 'cutters' | 'seat'>): number[] {
  if (job.seat.mode === 'sunk') return job.passes.map(() => 0);
  let widest = 0;
  for (const p of job.passes) if (p.kind === 'rough') widest = Math.max(widest, trenchOf(p, cutterOf(job, p), 0));
  return job.passes.map((p) => trenchOf(p, cutterOf(job, p), widest));
}
