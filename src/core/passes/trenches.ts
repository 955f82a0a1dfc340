import type { Board } from '../doc/board';
import { cutterOf } from '../doc/job';
import type { Pass } from '../doc/pass';
import type { SetupView } from '../setup/view';
import { cutoutRoom } from './cutout/room';
import { kindOf } from './registry';

type Passes = Pick<SetupView, 'passes' | 'cutters' | 'seat'> & { board: Pick<Board, 'thickness'> };

/** Width of the ground around the outline that a pass clears, mm: as given, or worked out from its bit. */
function trenchOf(job: Passes, pass: Pass, rough: number): number {
  if (!('area' in pass) || pass.area.kind !== 'relief') return 0;
  const { trench } = kindOf(pass);
  if (!trench) return 0;
  const cutter = cutterOf(job, pass);
  if (pass.area.trench !== null || !cutter) return pass.area.trench ?? 0;
  const own = trench(pass, cutter, rough);
  // Roughing clears the ground that the bit of a cut-out needs after it.
  return pass.kind === 'rough' ? Math.max(own, cutoutRoom(job)?.width ?? 0) : own;
}

/** Trench width of every pass; a finishing pass's own follows from the widest roughing trench. */
export function resolveTrenches(job: Passes): number[] {
  if (job.seat.mode === 'sunk') return job.passes.map(() => 0);
  let widest = 0;
  for (const p of job.passes) if (kindOf(p).kind === 'rough') widest = Math.max(widest, trenchOf(job, p, 0));
  return job.passes.map((p) => trenchOf(job, p, widest));
}
