import { type Cutter, cutterSchema } from '../core/cutter/cutter';
import { DRAWER } from '../core/doc/defaults';
import { ORIGINS, type Origin } from '../core/doc/setup';
import { parseLength } from '../core/units/length';

/** A command line that cannot be followed; one line says what is wrong. */
export class UsageError extends Error {}

export const USAGE = `usage:
  zg plan JOB.json --out DIR [--beside MM [--turned DEGREES]]   and how boards come out that lie so far beside their place
  zg plan --relief FILE --board 300x200x19 [--size W|WxH] [--rise MM] [--unit mm|in] [--rough endmill:6.35]
          [--finish ball:3.175] [--origin centre|lower-left] [--z-zero top|bed] [--seat raised|sunk] [--invert]
          [--material NAME] --out DIR
  zg prove JOB.json FILE.nc ... --out DIR   programs as they lie in files, in the order in which they are run
  zg backup FILE.tar.gz             the whole shop of ZG_DATA, while it may be running
  zg restore FILE.tar.gz [--replace]   in the place of the shop of ZG_DATA, which must not be running`;

const VALUES = [
  'relief',
  'board',
  'size',
  'rise',
  'unit',
  'rough',
  'finish',
  'origin',
  'z-zero',
  'seat',
  'material',
  'beside',
  'turned',
  'out',
] as const;
type ValueName = (typeof VALUES)[number];

export interface PlanOptions {
  out: string;
  jobFile?: string;
  relief?: string;
  board?: { x: number; y: number; thickness: number };
  size?: { x: number; y?: number };
  rise?: number;
  unit?: 'mm' | 'in';
  rough: Cutter;
  finish: Cutter;
  origin: Origin;
  zZero: 'top' | 'bed';
  seat: 'raised' | 'sunk';
  invert: boolean;
  material?: string;
  /** How far boards are also studied beside their place, mm and degrees; null: not at all. */
  beside: { shift: number; turn: number } | null;
}

function positive(option: string, text: string): number {
  let mm: number;
  try {
    mm = parseLength(text);
  } catch (e) {
    throw new UsageError(`--${option}: ${(e as Error).message}`);
  }
  if (!(mm > 0)) throw new UsageError(`--${option}: "${text}" must be more than 0`);
  return mm;
}

function oneOf<T extends string>(option: string, text: string | undefined, values: readonly T[], fallback: T): T {
  if (text === undefined) return fallback;
  const v = values.find((x) => x === text);
  if (!v) throw new UsageError(`--${option}: "${text}" is not one of ${values.join(', ')}`);
  return v;
}

/**
 * A bit from "shape:diameter": the drawer's own where it has one of that shape and size, else one scaled from the
 * drawer's nearest of that shape.
 */
export function cutterFromText(option: string, text: string, number: number): Cutter {
  const [shape, width, ...more] = text.split(':');
  const kin = DRAWER.filter((c) => c.shape === shape);
  if (kin.length === 0 || width === undefined || more.length > 0) {
    throw new UsageError(`--${option}: "${text}" is not a bit; write it like endmill:6.35 or ball:3.175`);
  }
  const diameter = positive(option, width);
  if (diameter > 200)
    throw new UsageError(`--${option}: ${diameter} mm is wider than any bit; bits are named by their diameter in mm`);
  // A tapered ball is named by its tip.
  const size = (c: Cutter) => (c.shape === 'tapered-ball' ? c.tipDiameter : c.diameter);
  const nearest = kin.reduce((a, b) => (Math.abs(size(a) - diameter) <= Math.abs(size(b) - diameter) ? a : b));
  if (Math.abs(size(nearest) - diameter) < 0.01) return { ...nearest, number };
  const k = diameter / size(nearest);
  const scaled = {
    ...nearest,
    id: `${shape}-${diameter}`,
    number,
    name: `${nearest.name.replace(/[\d.]+.*$/, '').trim()} ${diameter}`,
    diameter: nearest.diameter * k,
    cornerRadius: nearest.cornerRadius * k,
    tipDiameter: nearest.tipDiameter * k,
    fluteLength: Math.max(nearest.fluteLength * Math.min(1, k), 2 * diameter),
    shankDiameter: Math.max(3.175, nearest.diameter * k),
    stickOut: Math.max(nearest.stickOut, 3 * diameter),
    feed: Math.round(nearest.feed * Math.min(1.2, Math.max(0.4, k))),
    plunge: Math.round(nearest.plunge * Math.min(1.2, Math.max(0.4, k))),
    maxStepdown: nearest.maxStepdown * k,
    maxPlungeDepth: nearest.maxPlungeDepth * k,
  };
  return cutterSchema.parse(scaled);
}

function dimensions(option: string, text: string, counts: number[]): number[] {
  const parts = text.split(/\s*[x×]\s*/i);
  if (!counts.includes(parts.length)) {
    throw new UsageError(
      `--${option}: "${text}" must have ${counts.join(' or ')} numbers with an x between, like 300x200${counts[0] === 3 ? 'x19' : ''}`,
    );
  }
  return parts.map((p) => positive(option, p));
}

/** Reads the words after "prove". @throws UsageError */
export function proveOptions(args: string[]): { jobFile: string; programs: string[]; out: string } {
  const at = args.indexOf('--out');
  const out = at < 0 ? undefined : args[at + 1];
  const files = args.filter((_, i) => at < 0 || (i !== at && i !== at + 1));
  const option = files.find((f) => f.startsWith('--'));
  if (option !== undefined) throw new UsageError(`"${option}" is not an option; --out DIR is the only one`);
  if (out === undefined || out.startsWith('--'))
    throw new UsageError('--out DIR is missing: where the report and the pictures go');
  const [jobFile, ...programs] = files;
  if (jobFile === undefined) throw new UsageError('give the job file first, then its programs');
  if (programs.length === 0)
    throw new UsageError('give the programs after the job, in the order in which they are run');
  return { jobFile, programs, out };
}

/** Furthest that a board is studied beside its place: what is beyond is seen by eye, mm and degrees. */
const FURTHEST = { shift: 5, turn: 5 };

function besideOf(shift: string | undefined, turn: string | undefined): PlanOptions['beside'] {
  if (shift === undefined && turn === undefined) return null;
  const out = {
    shift: shift === undefined ? 0 : positive('beside', shift),
    turn: turn === undefined ? 0 : Number(turn),
  };
  if (out.shift > FURTHEST.shift)
    throw new UsageError(
      `--beside: ${out.shift} mm is more than ${FURTHEST.shift}; what a board lies off is tenths of a mm`,
    );
  if (!(out.turn >= 0 && out.turn <= FURTHEST.turn))
    throw new UsageError(`--turned: "${turn}" has to be 0 to ${FURTHEST.turn} degrees`);
  return out;
}

/** Reads the words after "plan". @throws UsageError */
export function parseOptions(args: string[]): PlanOptions {
  const values = new Map<ValueName, string>();
  let invert = false;
  let jobFile: string | undefined;
  for (let i = 0; i < args.length; i++) {
    const arg = args[i];
    if (!arg.startsWith('--')) {
      if (jobFile !== undefined) throw new UsageError(`"${arg}" is one file too many; one job is planned at a time`);
      jobFile = arg;
      continue;
    }
    const name = arg.slice(2);
    if (name === 'invert') {
      invert = true;
      continue;
    }
    const known = VALUES.find((v) => v === name);
    if (!known)
      throw new UsageError(`"${arg}" is not an option; ${VALUES.map((v) => `--${v}`).join(' ')} --invert are`);
    const value = args[++i];
    if (value === undefined || value.startsWith('--')) throw new UsageError(`${arg} needs a value`);
    values.set(known, value);
  }
  const out = values.get('out');
  if (!out) throw new UsageError('--out DIR is missing: where the programs and the report go');
  const relief = values.get('relief');
  if ((jobFile === undefined) === (relief === undefined))
    throw new UsageError('give either a job file or --relief FILE with --board');
  const board = values.get('board');
  if (relief !== undefined && board === undefined)
    throw new UsageError('--board is missing, such as --board 300x200x19');
  const b = board === undefined ? undefined : dimensions('board', board, [3]);
  const size = values.get('size') === undefined ? undefined : dimensions('size', values.get('size')!, [1, 2]);
  const rise = values.get('rise');
  const unit = values.get('unit');
  return {
    out,
    jobFile,
    relief,
    board: b && { x: b[0], y: b[1], thickness: b[2] },
    size: size && { x: size[0], y: size[1] },
    rise: rise === undefined ? undefined : positive('rise', rise),
    unit: unit === undefined ? undefined : oneOf('unit', unit, ['mm', 'in'] as const, 'mm'),
    rough: cutterFromText('rough', values.get('rough') ?? 'endmill:6.35', 1),
    finish: cutterFromText('finish', values.get('finish') ?? 'ball:3.175', 2),
    origin: oneOf('origin', values.get('origin'), ORIGINS, 'lower-left'),
    zZero: oneOf('z-zero', values.get('z-zero'), ['top', 'bed'] as const, 'top'),
    seat: oneOf('seat', values.get('seat'), ['raised', 'sunk'] as const, 'raised'),
    invert,
    material: values.get('material'),
    beside: besideOf(values.get('beside'), values.get('turned')),
  };
}
