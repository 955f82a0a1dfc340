import type { Target } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import type { KernelHost } from '../kernels/host';
import type { Board, Machine } from '../plan/job';
import { formatLength } from '../units/length';
import { compareSurfaces, type Deviation } from './deviation';
import type { Finding } from './finding';
import { checkRun } from './run-checks';
import { simulate, type WrittenProgram } from './simulate';

/** Deepest cut below the target, along the normal, that passes without a finding, mm. */
export const GOUGE_LIMIT = 0.02;
/** Least floor, and the better one (trade handbook, section 3; common practice, no source), mm. */
export const FLOOR_LEAST = 25.4 / 16;

export interface ProofInput {
  programs: WrittenProgram[];
  cutters: Cutter[];
  zero: { x: number; y: number; z: number };
  target: Target;
  board: Board;
  machine: Machine;
}

export interface Proof {
  cut: HeightField;
  rough: HeightField | null;
  deviation: Deviation;
  findings: Finding[];
  /** Board left under the deepest cut, mm. */
  thinnest: number;
  deepest: number;
  /** Volume removed by each program, mm3. */
  volumes: number[];
}

const mm = (v: number) => formatLength(v);

/** Cuts the board with the written programs and says what it shows. */
export async function prove(input: ProofInput, host: KernelHost): Promise<Proof> {
  const { target, board, machine } = input;
  const findings: Finding[] = [];
  const volume = new Map<string, number>();
  let standing = 0;
  const sim = await simulate(input.programs, input.cutters, input.zero, target.field, host, async (run) => {
    findings.push(...checkRun(run, board, machine));
    let sum = 0;
    for (const v of run.after.data) sum -= v;
    const removed = sum * target.field.cell ** 2;
    volume.set(run.file, (volume.get(run.file) ?? 0) + removed - standing);
    standing = removed;
  });
  sim.read.forEach((r, i) => {
    const { file } = input.programs[i];
    const base = { x: board.x / 2, y: board.y / 2 };
    if (r.spindleOffLine > 0) {
      findings.push({
        ...base,
        rule: 'spindle',
        severity: 'error',
        message: `${file}, line ${r.spindleOffLine}: cuts with the spindle stopped`,
        remedy: 'do not run this program; plan the pass again',
      });
    }
    if (r.topRpm > machine.maxRpm || r.topRpm < machine.minRpm) {
      findings.push({
        ...base,
        rule: 'spindle',
        severity: 'warning',
        message: `${file}: asks for ${r.topRpm} rpm, ${machine.name} turns ${machine.minRpm} to ${machine.maxRpm}`,
        remedy: 'set the bit to a speed within that range',
      });
    }
  });
  const deviation = compareSurfaces(sim.cut, target.field, target.mask);
  let lowest = 0;
  let lowestAt = 0;
  sim.cut.data.forEach((v, k) => {
    if (v < lowest) {
      lowest = v;
      lowestAt = k;
    }
  });
  const place = (k: number) => ({
    x: target.field.originX + (k % target.field.width) * target.field.cell,
    y: target.field.originY + Math.floor(k / target.field.width) * target.field.cell,
  });
  if (deviation.deepest < -GOUGE_LIMIT) {
    findings.push({
      rule: 'gouge',
      severity: 'error',
      message: `cut ${mm(-deviation.deepest)} too deep, more than ${mm(GOUGE_LIMIT)}`,
      remedy: 'use a finer cell or a smaller tolerance',
      ...place(deviation.deepestAt),
    });
  }
  if (deviation.keepCut > 1e-4) {
    findings.push({
      rule: 'keep-cut',
      severity: 'error',
      message: `board that must stay is cut ${formatLength(deviation.keepCut, 'mm', 4)} deep`,
      remedy: 'do not run these programs; make the area smaller',
      ...place(deviation.keepAt),
    });
  }
  const thinnest = board.thickness + lowest;
  if (thinnest < FLOOR_LEAST - 1e-6) {
    const through = thinnest <= 0;
    const bed = through && !board.spoilboard;
    findings.push({
      rule: 'floor',
      severity: through ? 'error' : 'warning',
      message: through
        ? `cuts through the board${bed ? ' into the bed: there is no spoilboard' : ''} by ${mm(-thinnest)}`
        : `only ${mm(thinnest)} of board is left, less than ${mm(FLOOR_LEAST)}`,
      remedy: 'lower the rise or the skin, or use a thicker board',
      ...place(lowestAt),
    });
  }
  if (deviation.leftShare > 0.05) {
    findings.push({
      rule: 'left-over',
      severity: 'note',
      message: `${(deviation.leftShare * 100).toFixed(1)} % of the relief stands more than ${mm(deviation.notable)} above the target`,
      remedy: 'a smaller bit reaches finer detail, a smaller stepover leaves lower ridges',
      x: board.x / 2,
      y: board.y / 2,
    });
  }
  const volumes = input.programs.map((p) => volume.get(p.file) ?? 0);
  return { cut: sim.cut, rough: sim.rough, deviation, findings, thinnest, deepest: -lowest, volumes };
}
