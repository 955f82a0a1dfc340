import { type Cutter, profileOf } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import type { KernelHost } from '../kernels/host';
import { SEGMENT } from '../kernels/stock-removal';
import { MOTION, type ReadProgram, readProgram } from '../program/reader';

export interface WrittenProgram {
  file: string;
  text: string;
  /** Number of the bit that is in the spindle when the program starts. */
  tool: number;
  /** Whether all that its runs do is roughing: the surface after the last such program is kept. */
  rough: boolean;
  /** Ids of the passes that it holds. */
  passes: string[];
}

/** What a program did with one bit, in the setup's coordinates. */
export interface Run {
  file: string;
  passes: string[];
  cutter: Cutter;
  /** SEGMENT numbers each. */
  segments: Float64Array;
  lines: Float64Array;
  bites: Float32Array;
  /** Surface after the run; only kept for the checks of the run. */
  after: HeightField;
}

export interface Simulated {
  /** Surface after roughing, when a roughing program was followed by another. */
  rough: HeightField | null;
  read: ReadProgram[];
}

export interface Cutting {
  programs: WrittenProgram[];
  cutters: Cutter[];
  /** The programs' zero in the setup's coordinates, mm. */
  zero: { x: number; y: number; z: number };
  host: KernelHost;
  /** Called after each run, with the surface as it then is; `run.after` must not be kept. */
  onRun(run: Run): Promise<void>;
}

/** The motions of one bit as segments in the setup's coordinates. */
function segmentsOf(r: ReadProgram, from: number, to: number, zero: Cutting['zero']) {
  const segments = new Float64Array((to - from) * SEGMENT);
  const lines = new Float64Array(to - from);
  for (let i = from; i < to; i++) {
    const m = i * MOTION;
    const s = (i - from) * SEGMENT;
    for (const k of [0, 3]) {
      segments[s + k] = r.motions[m + k] + zero.x;
      segments[s + k + 1] = r.motions[m + k + 1] + zero.y;
      segments[s + k + 2] = r.motions[m + k + 2] + zero.z;
    }
    segments[s + 6] = r.motions[m + 6];
    lines[i - from] = r.motions[m + 8];
  }
  return { segments, lines };
}

/**
 * Cuts a surface with programs as written: they are read back, moved into the setup's coordinates and simulated bit by bit. `surface` is
 * lowered in place.
 * @throws ProgramError, or an Error when a program calls for a bit that is not among the cutters
 */
export async function simulate(surface: HeightField, cutting: Cutting): Promise<Simulated> {
  const { programs, cutters, zero, host, onRun } = cutting;
  let rough: HeightField | null = null;
  const read: ReadProgram[] = [];
  for (const program of programs) {
    const r = readProgram(program.text, program.file, program.tool);
    read.push(r);
    for (let t = 0; t < r.tools.length; t++) {
      const from = r.tools[t].from;
      const to = r.tools[t + 1]?.from ?? r.motions.length / MOTION;
      if (to <= from) continue;
      const cutter = cutters.find((c) => c.number === r.tools[t].tool);
      if (!cutter) throw new Error(`${program.file} calls for bit ${r.tools[t].tool}, which the job does not have`);
      const { segments, lines } = segmentsOf(r, from, to, zero);
      const bites = await host.remove(surface, profileOf(cutter), segments);
      const { file, passes } = program;
      await onRun({ file, passes, cutter, segments, lines, bites, after: surface });
    }
    if (program.rough && program !== programs[programs.length - 1]) rough = { ...surface, data: surface.data.slice() };
  }
  return { rough, read };
}
