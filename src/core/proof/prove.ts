import type { Target } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import type { KernelHost } from '../kernels/host';
import type { Board, Machine } from '../plan/job';
import { formatLength } from '../units/length';
import { type CutoutProof, checkCutout, type PlannedCutout } from './connect';
import { compareSurfaces, type Deviation } from './deviation';
import type { Finding } from './finding';
import { checkRun } from './run-checks';
import { simulate, type WrittenProgram } from './simulate';
import { heldFindings, unevenFindings } from './skim-and-cutout';

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
  /** How high the board stands over its top before it is skimmed, as it lies or turned over; null where it is even. */
  tops(turned: boolean): Float32Array | null;
  /** Cells where cut-outs and holes go through the board, null when there is none; and each cut-out. */
  through: Uint8Array | null;
  cutouts: PlannedCutout[];
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
  /** What still joins the sides of each cut-out. */
  cutouts: CutoutProof[];
}

const mm = (v: number) => formatLength(v);

/** Whether a cell or one of its neighbours is a slot's: walls are met to a cell. */
function besideSlot(slots: Uint8Array, k: number, width: number): boolean {
  for (const row of [k - width, k, k + width]) for (let q = row - 1; q <= row + 1; q++) if (slots[q]) return true;
  return false;
}

/** Cuts the board with the written programs and says what it shows. */
export async function prove(input: ProofInput, host: KernelHost): Promise<Proof> {
  const { target, board, machine } = input;
  const findings: Finding[] = [];
  const volume = new Map<string, number>();
  const sumOf = (data: Float32Array) => {
    let sum = 0;
    for (const v of data) sum += v;
    return sum * target.field.cell ** 2;
  };
  const cutWith = (programs: WrittenProgram[], start: Float32Array | null) => {
    let standing = start ? sumOf(start) : 0;
    return simulate(programs, input.cutters, input.zero, target.field, host, start, async (run) => {
      findings.push(...checkRun(run, board, machine));
      const now = sumOf(run.after.data);
      volume.set(run.file, (volume.get(run.file) ?? 0) + standing - now);
      standing = now;
    });
  };
  // What the back is skimmed by is cut by itself, on the board turned over; from then on the board is even.
  const [behind, ahead] = [input.programs.filter((p) => p.back), input.programs.filter((p) => !p.back)];
  const turned = behind.length > 0 ? await cutWith(behind, input.tops(true)) : null;
  const sim = await cutWith(ahead, turned ? null : input.tops(false));
  findings.push(...unevenFindings((turned ?? sim).cut));
  [...(turned?.read ?? []), ...sim.read].forEach((r, i) => {
    const { file } = [...behind, ...ahead][i];
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
    if (v < lowest && !(input.through && besideSlot(input.through, k, target.field.width))) {
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
    const open = thinnest <= 0;
    const bed = open && !board.spoilboard;
    findings.push({
      rule: 'floor',
      severity: open ? 'error' : 'warning',
      message: open
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
  const { through } = input;
  const cutouts = through ? input.cutouts.map((c) => checkCutout(sim.cut, through, board.thickness, c)) : [];
  for (const c of cutouts) findings.push(...heldFindings(c, board));
  const volumes = input.programs.map((p) => volume.get(p.file) ?? 0);
  return { cut: sim.cut, rough: sim.rough, deviation, findings, thinnest, deepest: -lowest, volumes, cutouts };
}
