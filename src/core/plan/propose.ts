import { type Layer, PLAIN_LAYER } from '../arrange/layer';
import { WHOLE_PIECE } from '../arrange/silhouette';
import type { Cutter } from '../cutter/cutter';
import { stepoverBase } from '../cutter/cutter';
import type { SourceInfo } from '../sources/inspect';
import { PLAIN_TONE } from '../sources/tone';
import { MM_PER_INCH } from '../units/length';
import { MATERIALS } from './defaults';
import type { Board, Job, Machine } from './job';
import type { CutoutPass, FlatPass, HolePass, LetterPass, SkimPass } from './pass';

/** Floor kept under a proposed relief: the better of the two figures of the handbook, 1/8 in. */
export const SOUND_FLOOR = 3.175;

export interface Proposal {
  name: string;
  order: string;
  file: string;
  hash: string;
  info: SourceInfo;
  machine: Machine;
  rough: Cutter;
  finish: Cutter;
  /** Absent: proposed from the relief's size. */
  board?: Partial<Board>;
  /** Plan size wanted in mm; one number locks the proportions. */
  size?: { x: number; y?: number };
  rise?: number;
  unit?: 'mm' | 'in';
  mode?: 'raised' | 'sunk';
  invert?: boolean;
}

const clean = (v: number) => Number(v.toFixed(4));

/** Stepdown for a bit in a material, mm: the material's share of the diameter, within the bit's own limit. */
export function stepdownFor(c: Cutter, material: string): number {
  const share = MATERIALS.find((m) => m.name === material)?.stepdown ?? 0.4;
  return clean(Math.min(c.maxStepdown, share * c.diameter));
}

/** Trench proposed around a raised relief, mm; see trenchOf for the rule. */
function trenchFor(rough: Cutter): number {
  return Math.max(1.5 * rough.diameter, rough.diameter + 3);
}

/**
 * A whole job from a relief file: as large as the board leaves room for around it, or on a board that fits its own
 * size; the rise in proportion, but no more than leaves a sound floor; a roughing and a finishing pass.
 */
export function proposeJob(p: Proposal): Job {
  const { info } = p;
  const scale = (p.unit ?? info.unit) === 'in' ? MM_PER_INCH : 1;
  const mode = p.mode ?? 'raised';
  const margin = mode === 'raised' ? trenchFor(p.rough) : 10;
  const aspect = info.size.y / info.size.x;
  const natural = info.kind === 'image' ? 150 / Math.max(1, aspect) : info.size.x * scale;
  let x = p.size?.x ?? natural;
  let y = p.size?.y ?? x * aspect;
  const wantBoard = p.board?.x === undefined || p.board.y === undefined;
  if (wantBoard && p.size === undefined) {
    // A plausible piece on this machine: downloaded models come in any size.
    const most = Math.min(p.machine.x, p.machine.y, 300) - 2 * margin;
    const k = Math.min(1, most / Math.max(x, y));
    x *= k;
    y *= k;
  }
  const bx = p.board?.x ?? Math.ceil((x + 2 * margin) / 5) * 5;
  const by = p.board?.y ?? Math.ceil((y + 2 * margin) / 5) * 5;
  if (!wantBoard && p.size === undefined) {
    const k = Math.min((bx - 2 * margin) / info.size.x, (by - 2 * margin) / info.size.y);
    x = Math.max(1, Math.floor(info.size.x * k * 100) / 100);
    y = Math.max(1, Math.floor(info.size.y * k * 100) / 100);
  }
  const thickness = p.board?.thickness ?? 19;
  const inProportion = info.kind === 'image' ? Math.min(10, thickness / 2) : (info.size.z * x) / info.size.x;
  const reach = Math.min(p.finish.fluteLength, p.rough.fluteLength) - 1;
  const rise =
    p.rise ?? Math.max(0.5, Math.floor(Math.min(inProportion, thickness - SOUND_FLOOR, reach) * 100 + 1e-6) / 100);
  const mould = mode === 'sunk' && p.invert === true;
  const layer = {
    ...fileLayer('relief', p.file, p.hash, info, p.unit),
    size: { x: clean(x), y: clean(y) },
    rise: clean(rise),
    centre: { x: clean(bx / 2), y: clean(by / 2) },
    // A mould is carved into the board's top.
    join: mould ? ('carve' as const) : ('stack' as const),
    invert: mode === 'raised' && (p.invert ?? false),
  };
  return {
    ...plainJob({ ...p, board: { ...p.board, x: clean(bx), y: clean(by), thickness } }),
    layers: [layer],
    seat: { mode, skin: 0, drop: mode === 'sunk' && !mould ? clean(rise) : 0, press: null },
  };
}

/** A layer of a file as it is proposed to be taken; its size, rise and place are still to be chosen. */
export function fileLayer(id: string, file: string, hash: string, info: SourceInfo, unit?: 'mm' | 'in'): Layer {
  return {
    ...PLAIN_LAYER,
    id,
    name:
      file
        .replace(/\.[a-z0-9]+$/i, '')
        .slice(0, 80)
        .trim() || 'Relief',
    source:
      info.kind === 'image'
        ? { kind: 'image', file, hash, blackIsGround: true, tone: PLAIN_TONE }
        : {
            kind: 'mesh',
            file,
            hash,
            unit: unit ?? info.unit,
            turns: info.turns,
            flip: info.mirror,
            base: info.base,
          },
    size: { x: 1, y: 1 },
    rise: 1,
    centre: { x: 0, y: 0 },
  };
}

/**
 * The pass that would clear the level fields of a job: with its roughing bit, when that has a flat bottom and finishing follows; null
 * otherwise.
 */
export function proposeFlat(job: Job): FlatPass | null {
  const rough = job.passes.find((p) => p.kind === 'rough');
  const finish = job.passes.find((p) => p.kind === 'finish');
  const cutter = rough && job.cutters.find((c) => c.id === rough.cutter);
  if (!finish || !cutter || (cutter.shape !== 'endmill' && cutter.shape !== 'bullnose')) return null;
  return {
    id: 'flat',
    kind: 'flat',
    cutter: cutter.id,
    area: structuredClone(finish.area),
    stepover: clean(0.4 * cutter.diameter),
    stepdown: stepdownFor(cutter, job.board.material),
    rampAngle: 4,
    overlap: 1,
  };
}

/** The pass that cuts letters with a V bit, as deep at once as the bit may. */
export function proposeLetter(cutter: Cutter): LetterPass {
  return {
    id: 'letter',
    kind: 'letter',
    cutter: cutter.id,
    area: { kind: 'relief', trench: null },
    stepdown: cutter.maxStepdown,
  };
}

export type PlainJob = Pick<Proposal, 'name' | 'order' | 'machine' | 'rough' | 'finish'> & {
  board: Partial<Board> & { x: number; y: number; thickness: number };
};

/** A job with a board, two bits and two passes, and nothing on the board yet. */
export function plainJob(p: PlainJob): Job {
  const { x, y } = p.board;
  const material = p.board.material ?? 'maple';
  return {
    version: 2,
    name: p.name,
    order: p.order,
    board: {
      material,
      grain: 'along-x',
      origin: 'lower-left',
      zZero: 'top',
      spoilboard: true,
      face: 'bare',
      place: {
        x: clean(Math.max(0, Math.min(20, (p.machine.x - x) / 2))),
        y: clean(Math.max(0, Math.min(20, (p.machine.y - y) / 2))),
      },
      ...p.board,
    },
    machine: p.machine,
    cutters: [p.rough, p.finish].filter((c, i, all) => all.findIndex((d) => d.id === c.id) === i),
    layers: [],
    gaps: [],
    seat: { mode: 'raised', skin: 0, drop: 0, press: null },
    passes: [
      {
        id: 'rough',
        kind: 'rough',
        cutter: p.rough.id,
        area: { kind: 'relief', trench: null },
        strategy: 'rings',
        angle: 0,
        stepover: clean(0.4 * p.rough.diameter),
        stepdown: stepdownFor(p.rough, material),
        stockToLeave: p.rough.diameter >= 3 ? (material === 'brass' ? 0.2 : 1) : 0.2,
        rampAngle: 4,
      },
      {
        id: 'finish',
        kind: 'finish',
        cutter: p.finish.id,
        area: { kind: 'relief', trench: null },
        angle: 0,
        stepover: clean(0.08 * stepoverBase(p.finish)),
        tolerance: 0.01,
      },
    ],
    output: { unit: 'mm', oneFile: false },
    cell: null,
  };
}

/** Tabs in hardwood are about 8 mm tall and 25 mm long (trade handbook, section 3; common practice, no source), mm. */
const TAB = { thickness: 8, length: 25 };

/** Cuts the whole piece out, held by four tabs; none is thicker than a third of the board. */
export function proposeCutout(job: Pick<Job, 'board'>, cutter: Cutter): CutoutPass {
  const { thickness, material, spoilboard } = job.board;
  return {
    id: 'cutout',
    kind: 'cutout',
    cutter: cutter.id,
    outline: { ...WHOLE_PIECE },
    side: 'outside',
    start: 'machined',
    stepdown: stepdownFor(cutter, material),
    rampAngle: 4,
    into: spoilboard ? 0.5 : 0,
    lead: 7,
    last: 0.2,
    floor: 0,
    tabs: {
      count: 4,
      length: Math.min(TAB.length, clean(Math.min(job.board.x, job.board.y) / 10)),
      thickness: clean(Math.min(TAB.thickness, Math.floor(thickness / 0.3) / 10)),
      sloped: cutter.maxPlungeDepth === 0,
      at: null,
    },
  };
}

/** Brings the board to its thickness from a little more, measured in the middle; the back's where the face is finished. */
export function proposeSkim(job: Pick<Job, 'board'>, cutter: Cutter): SkimPass {
  const { x, y, thickness, face } = job.board;
  return {
    id: 'skim',
    kind: 'skim',
    cutter: cutter.id,
    side: face === 'bare' ? 'face' : 'back',
    stepover: clean(0.4 * cutter.diameter),
    stepdown: 1,
    points: [{ x: clean(x / 2), y: clean(y / 2), thickness: clean(thickness + 0.5) }],
  };
}

/** Two holes on the board's long middle line, near its ends, as for pins to turn it over on. */
export function proposeHoles(job: Pick<Job, 'board'>, cutter: Cutter): HolePass {
  const { x, y, thickness } = job.board;
  const drilled = cutter.maxPlungeDepth > 0;
  const inset = clean(Math.max(cutter.diameter, Math.min(x, y) / 20));
  const ends =
    x >= y
      ? [
          { x: inset, y: y / 2 },
          { x: clean(x - inset), y: y / 2 },
        ]
      : [
          { x: x / 2, y: inset },
          { x: x / 2, y: clean(y - inset) },
        ];
  return {
    id: 'hole',
    kind: 'hole',
    cutter: cutter.id,
    places: ends,
    diameter: drilled ? cutter.diameter : clean(1.5 * cutter.diameter),
    depth: clean(Math.min(10, thickness / 2)),
    into: 0.5,
    peck: drilled ? Math.min(cutter.maxPlungeDepth, cutter.maxStepdown) : cutter.maxStepdown,
    rampAngle: 4,
  };
}
