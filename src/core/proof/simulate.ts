import { type Cutter, profileOf } from '../cutter/cutter';
import { type Grid, type HeightField, makeField } from '../field/height-field';
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
  /** Whether the board lies on its face while it runs. */
  back: boolean;
}

/** What the programs did with one bit, in board coordinates. */
export interface Run {
  file: string;
  cutter: Cutter;
  /** SEGMENT numbers each. */
  segments: Float64Array;
  lines: Float64Array;
  bites: Float32Array;
  /** Surface after the run; only kept for the checks of the run. */
  after: HeightField;
}

export interface Simulated {
  cut: HeightField;
  /** Surface after roughing, when a roughing program was followed by another. */
  rough: HeightField | null;
  read: ReadProgram[];
}

/**
 * Cuts a whole board (0 at its top, or as high as `start` says where it is uneven) with the programs as written: they are read back, moved into board coordinates by
 * `zero`, and simulated bit by bit.
 * @param onRun called after each run, with the surface as it then is; `run.after` must not be kept
 * @throws ProgramError, or an Error when a program calls for a bit that is not among `cutters`
 */
export async function simulate(
  programs: WrittenProgram[],
  cutters: Cutter[],
  zero: { x: number; y: number; z: number },
  grid: Grid,
  host: KernelHost,
  start: Float32Array | null,
  onRun: (run: Run) => Promise<void>,
): Promise<Simulated> {
  const cut = makeField(grid, 0);
  if (start) cut.data.set(start);
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
      const bites = await host.remove(cut, profileOf(cutter), segments);
      await onRun({ file: program.file, cutter, segments, lines, bites, after: cut });
    }
    if (program.rough && program !== programs[programs.length - 1]) {
      rough = { ...cut, data: cut.data.slice() };
    }
  }
  return { cut, rough, read };
}
