import { type Cutter, profileOf } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import type { PartedField } from '../field/parted';
import { bitesOf, chipAreas, ENGAGED, HIGH, joinEngaged, meantOver, VOLUME } from '../kernels/engagement';
import type { KernelHost } from '../kernels/host';
import { SEGMENT, trueWays } from '../kernels/segment';
import { engageBy } from '../kernels/spans';
import { MOTION, type ReadProgram } from '../program/reader';
import { type OnDrum, readFor } from '../program/round';
import { type BodyMet, bodyMet } from './body';
import { cutBeneath, type HeadCut, type Hollow, openHollow } from './hollow';

export interface WrittenProgram {
  file: string;
  text: string;
  /** Number of the bit that is in the spindle when the program starts. */
  tool: number;
  /** Whether all that its runs do is roughing: the surface after the last such program is kept. */
  rough: boolean;
  /** Ids of the passes that it holds, and the comment that each of them begins with. */
  passes: string[];
  titles: string[];
}

/** What a program did with one bit, in the setup's coordinates. */
export interface Run {
  file: string;
  passes: string[];
  cutter: Cutter;
  /** SEGMENT numbers each. */
  segments: Float64Array;
  /** The same with their true lengths, round a drum; absent on a board. */
  ways?: Float64Array;
  lines: Float64Array;
  /** Comments of the program with their lines. */
  notes: ReadProgram['notes'];
  /** Commanded feed of every move, mm/min, and the spindle as it turns meanwhile, rpm: negative the wrong way, 0 stopped. */
  feeds: Float64Array;
  spindle: Float64Array;
  /** What every move meets; see kernels/engagement.ts. */
  engaged: Float32Array;
  /** Height over the tip of the highest wood met under the whole cutter, mm; of a rapid how deep it reaches into wood. */
  bites: Float32Array;
  /** Wood taken a mm of way around every move, mm3; see chipAreas. */
  chip: Float32Array;
  /** The same of what stands higher over the tip than the bit's stepdown. */
  high: Float32Array;
  /** Where shank and holder stood in wood. */
  met: BodyMet[];
  /** The move at which a slot bit's head met the wood over it, and how far it went into it, mm; null for all other bits. */
  caught: HeadCut['caught'];
  /** Surface after the run; only kept for the checks of the run. */
  after: PartedField;
}

/** The line of a run's i-th move, with what the program itself says above it of where it is. */
export function lineOf(
  run: Pick<Run, 'file' | 'lines' | 'notes'>,
  i: number,
): { file: string; line: number; passage?: string } {
  const line = run.lines[i];
  const above = run.notes.findLast((n) => n.line <= line);
  return { file: run.file, line, ...(above ? { passage: above.text.slice(0, 60) } : {}) };
}

export interface Simulated {
  /** The parts of the surface after roughing, when a roughing program was followed by another. */
  rough: HeightField[] | null;
  read: ReadProgram[];
}

export interface Cutting {
  programs: WrittenProgram[];
  cutters: Cutter[];
  /** The programs' zero in the setup's coordinates, mm. */
  zero: { x: number; y: number; z: number };
  /** What turns the drum that is cut; null for a board. */
  round: OnDrum | null;
  host: KernelHost;
  /** What is hollow of each part of the surface, in its own heights; null where nothing is. Slot bits add to it. */
  hollows: (Hollow | null)[];
  /** Called after each run, with the surface as it then is; `run.after` must not be kept. */
  onRun(run: Run): Promise<void>;
  /** Called after each program, when the surface is as it leaves it. */
  onProgram(program: WrittenProgram): void;
}

/** The motions of one bit as segments in the setup's coordinates. */
function segmentsOf(r: ReadProgram, from: number, to: number, zero: Cutting['zero']) {
  const segments = new Float64Array((to - from) * SEGMENT);
  const [lines, feeds, spindle] = [0, 0, 0].map(() => new Float64Array(to - from));
  for (let i = from; i < to; i++) {
    const m = i * MOTION;
    const s = (i - from) * SEGMENT;
    for (const k of [0, 3]) {
      segments[s + k] = r.motions[m + k] + zero.x;
      segments[s + k + 1] = r.motions[m + k + 1] + zero.y;
      segments[s + k + 2] = r.motions[m + k + 2] + zero.z;
    }
    segments[s + 6] = r.motions[m + 6];
    feeds[i - from] = r.motions[m + 7];
    lines[i - from] = r.motions[m + 8];
    spindle[i - from] = r.motions[m + 9];
  }
  return { segments, lines, feeds, spindle };
}

/** A stretch of a program with one bit, as segments in the setup's coordinates. */
export interface Stretch extends ReturnType<typeof segmentsOf> {
  cutter: Cutter;
}

/** The stretches of a program with one bit each. A bit that the job does not have is for a rule to tell of: what it would do cannot be known. */
export function stretchesOf(r: ReadProgram, cutters: Cutter[], zero: Cutting['zero']): Stretch[] {
  return r.tools.flatMap(({ from, tool }, t) => {
    const to = r.tools[t + 1]?.from ?? r.motions.length / MOTION;
    const cutter = cutters.find((c) => c.number === tool);
    return to > from && cutter ? [{ cutter, ...segmentsOf(r, from, to, zero) }] : [];
  });
}

/** What a bit's moves do to a surface, and what its shank and holder meet meanwhile: all parts of it together. The parts are lowered in place. */
async function cutWith(
  { parts }: PartedField,
  { cutter, segments }: Pick<Stretch, 'cutter' | 'segments'>,
  { hollows, host }: Pick<Cutting, 'hollows' | 'host'>,
): Promise<Pick<Run, 'engaged' | 'met' | 'caught'>> {
  const met = new Map<BodyMet['name'], BodyMet>();
  const engaged = new Float32Array((segments.length / SEGMENT) * ENGAGED);
  let caught: Run['caught'] = null;
  for (const [n, part] of parts.entries()) {
    for (const m of await bodyMet(part, { cutter, segments }, host))
      if (m.deep > (met.get(m.name)?.deep ?? 0)) met.set(m.name, m);
    if (cutter.shape === 'slot') {
      const own = await cutBeneath(part, hollows[n], { cutter, segments }, host);
      hollows[n] = own.hollow;
      joinEngaged(engaged, own.engaged);
      if ((own.caught?.deep ?? 0) > (caught?.deep ?? 0)) caught = own.caught;
    } else joinEngaged(engaged, await engageBy(host, part, cutter, segments));
    const hollow = hollows[n];
    if (hollow) openHollow(part, hollow);
  }
  return { engaged, met: [...met.values()], caught };
}

/**
 * Cuts a surface with programs as written: they are read back, moved into the setup's coordinates and simulated bit by bit. Its parts are
 * lowered in place; nothing may be cut beyond them.
 * @throws ProgramError
 */
export async function simulate(surface: PartedField, cutting: Cutting): Promise<Simulated> {
  const { programs, cutters, zero, onRun, onProgram } = cutting;
  const cell = Math.max(...surface.parts.map((p) => p.cell));
  let rough: HeightField[] | null = null;
  const read: ReadProgram[] = [];
  for (const program of programs) {
    const r = readFor(program, cutting.round, zero.z);
    read.push(r);
    for (const { cutter, ...moves } of stretchesOf(r, cutters, zero)) {
      const did = await cutWith(surface, { cutter, segments: moves.segments }, cutting);
      const { engaged } = did;
      const ways = cutting.round ? trueWays(moves.segments, cutting.round.radius) : undefined;
      const long = ways ?? moves.segments;
      const bites = bitesOf(profileOf(cutter), long, engaged);
      const span = meantOver(cutter.diameter, cell);
      const [chip, high] = [VOLUME, HIGH].map((what) => chipAreas(long, engaged, span, what));
      const { file, passes } = program;
      await onRun({ file, passes, cutter, ...moves, ways, notes: r.notes, ...did, bites, chip, high, after: surface });
    }
    onProgram(program);
    if (program.rough && program !== programs[programs.length - 1])
      rough = surface.parts.map((p) => ({ ...p, data: p.data.slice() }));
  }
  return { rough, read };
}
