import { SAFE_HEIGHT } from '../passes/context';
import { commentText, fileStem, type ProgramPart, writeProgram } from '../program/writer';
import { formatDuration, formatLength } from '../units/length';
import type { Job } from './job';
import type { Pass } from './pass';
import type { Planned } from './paths';

/** Most that arcs may lie off the path that they are fitted to, mm. */
const ARC_TOLERANCE = 0.01;

export interface PlannedProgram {
  file: string;
  /** Number of the bit it starts with. */
  cutter: number;
  text: string;
  passes: string[];
  rough: boolean;
  /** Whether the board lies on its face, turned over its y axis, while it runs. */
  back: boolean;
  seconds: number;
  naiveSeconds: number;
  cutLength: number;
  rapidLength: number;
  /** mm3 that the proof saw it remove. */
  volume: number;
}

/** Whether the board lies on its face for a pass. */
const backUp = (p: Pass) => p.kind === 'skim' && p.side === 'back';

/** Passes that follow each other with the same bit share a run; a run is a file, or all are in one where bits change by themselves. */
export function writePrograms(
  job: Job,
  planned: Planned[],
  zero: { x: number; y: number; z: number },
): PlannedProgram[] {
  const runs: Planned[][] = [];
  for (const p of planned) {
    if (p.moves.length === 0) continue;
    const last = runs.at(-1);
    const same = last && backUp(last[0].pass) === backUp(p.pass);
    if (same && (job.output.oneFile || last[0].cutter.id === p.cutter.id)) last.push(p);
    else runs.push([p]);
  }
  return runs.map((run, i) => {
    const sum = (key: 'seconds' | 'naiveSeconds' | 'cutLength' | 'rapidLength') =>
      run.reduce((s, p) => s + p.summary[key], 0);
    const bits = [...new Set(run.map((p) => p.cutter.name))];
    const file = `${fileStem(job.order, job.name, `${i + 1}-${bits.join('-')}`)}.nc`;
    const { board } = job;
    const header = [
      `${job.name}${job.order ? `, order ${job.order}` : ''}`,
      `board ${formatLength(board.x)} x ${formatLength(board.y)} x ${formatLength(board.thickness)} ${board.material}`,
      `origin ${board.origin}, Z zero on the ${board.zZero === 'top' ? 'board top' : 'machine bed'}, ${job.output.unit}`,
      ...run.map(
        (p) =>
          `${p.pass.kind} with bit ${p.cutter.number} ${p.cutter.name} at ${p.cutter.rpm} rpm, ${formatDuration(p.summary.seconds)}`,
      ),
      ...(backUp(run[0].pass) ? ['board on its face, turned over its y axis'] : []),
      ...(run.some((p) => p.pass.kind === 'skim')
        ? ['Z zero counts from the face that the skim leaves: set it from the bed']
        : []),
      `about ${formatDuration(sum('seconds'))}`,
      'eye and hearing protection, dust extraction, never leave it running alone',
    ].map(commentText);
    const parts: ProgramPart[] = run.map((p) => ({
      title: `${p.pass.kind}, ${p.cutter.name}`,
      toolNumber: p.cutter.number,
      rpm: p.cutter.rpm,
      moves: p.moves,
      arcs: p.pass.kind === 'cutout' || p.pass.kind === 'hole' ? ARC_TOLERANCE : 0,
    }));
    const text = writeProgram(parts, {
      header,
      zero,
      unit: job.output.unit,
      safeZ: SAFE_HEIGHT,
      toolChanger: job.output.oneFile && job.machine.toolChanger,
    });
    return {
      file,
      cutter: run[0].cutter.number,
      text,
      passes: run.map((p) => p.pass.id),
      back: backUp(run[0].pass),
      rough: run.every((p) => p.pass.kind === 'skim' || p.pass.kind === 'rough' || p.pass.kind === 'flat'),
      seconds: sum('seconds'),
      naiveSeconds: sum('naiveSeconds'),
      cutLength: sum('cutLength'),
      rapidLength: sum('rapidLength'),
      volume: 0,
    };
  });
}
