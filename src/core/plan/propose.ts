import type { Cutter } from '../cutter/cutter';
import { type Board, LEAST_WEB } from '../doc/board';
import { materialNamed } from '../doc/defaults';
import { type Job, VERSION } from '../doc/job';
import { type Layer, PLAIN_LAYER } from '../doc/layer';
import type { Machine } from '../doc/machine';
import { bornBy } from '../doc/material';
import type { Origin, Setup } from '../doc/setup';
import { PLAIN_TONE } from '../doc/tone';
import { SPOILBOARD } from '../passes/bed';
import { stockFor } from '../passes/proposals';
import { kindOf } from '../passes/registry';
import { trenchFor } from '../passes/rough/trench';
import { setupView } from '../setup/view';
import type { SourceInfo } from '../sources/inspect';
import { MM_PER_INCH } from '../units/length';
import { clean } from '../units/round';

/** Floor kept under a proposed relief: the better of the two figures of the handbook, 1/8 in. */
export const SOUND_FLOOR = 3.175;

/** What of a board and its setup can be asked for. */
export interface ProposedBoard extends Pick<Board, 'x' | 'y' | 'thickness' | 'material' | 'grain' | 'face'> {
  origin: Origin;
  zZero: Setup['zero']['z'];
  spoilboard: Setup['spoilboard'];
}

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
  board?: Partial<ProposedBoard>;
  /** Plan size wanted in mm; one number locks the proportions. */
  size?: { x: number; y?: number };
  rise?: number;
  unit?: 'mm' | 'in';
  mode?: 'raised' | 'sunk';
  invert?: boolean;
}

/** Margin that a proposed relief keeps to the board's edge: its trench, or a rim of the board's own top, mm. */
const RIM = 10;
export function marginFor(p: Pick<Proposal, 'mode' | 'rough' | 'board'>): number {
  if ((p.mode ?? 'raised') === 'sunk') return RIM;
  return trenchFor(p.rough.diameter, stockFor(p.rough, p.board?.material ?? materialNamed('maple')));
}

/**
 * A whole job from a relief file: as large as the board leaves room for around it, or on a board that fits its own
 * size; the rise in proportion, but no more than leaves a sound floor; a roughing and a finishing pass.
 */
export function proposeJob(p: Proposal): Job {
  const { info } = p;
  const scale = (p.unit ?? info.unit) === 'in' ? MM_PER_INCH : 1;
  const mode = p.mode ?? 'raised';
  const margin = marginFor(p);
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
  const job = plainJob({ ...p, board: { ...p.board, x: clean(bx), y: clean(by), thickness } });
  const view = setupView(job);
  view.layers = [layer];
  view.seat = { mode, skin: 0, drop: mode === 'sunk' && !mould ? clean(rise) : 0, press: null };
  return job;
}

/** A layer of a file as it is proposed to be taken; its size, rise and place are still to be chosen. */
export function fileLayer(id: string, file: string, hash: string, info: SourceInfo, unit?: 'mm' | 'in'): Layer {
  return {
    ...structuredClone(PLAIN_LAYER),
    id,
    name:
      file
        .replace(/\.[a-z0-9]+$/i, '')
        .slice(0, 80)
        .trim() || 'Relief',
    source:
      info.kind === 'image'
        ? { kind: 'image', file, hash, blackIsGround: true, tone: structuredClone(PLAIN_TONE) }
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

export type PlainJob = Pick<Proposal, 'name' | 'order' | 'machine' | 'rough' | 'finish'> & {
  board: Partial<ProposedBoard> & { x: number; y: number; thickness: number };
};

/** A setup as it is proposed for a board on a machine: on a spoilboard, zero at the lower left corner of its top, low over the wood. */
export function proposeSetup(board: { x: number; y: number }, machine: { x: number; y: number }): Setup {
  return {
    id: 'face',
    name: 'Face',
    up: 'face',
    zero: { origin: 'lower-left', z: 'top' },
    place: {
      x: clean(Math.max(0, Math.min(20, (machine.x - board.x) / 2))),
      y: clean(Math.max(0, Math.min(20, (machine.y - board.y) / 2))),
    },
    spoilboard: SPOILBOARD,
    heights: { approach: 1, between: 1, everything: 5 },
    holding: [],
    references: { cross: null, ticks: [], spots: [] },
    register: 'none',
    layers: [],
    gaps: [],
    seat: { mode: 'raised', skin: 0, drop: 0, press: null },
    passes: [],
  };
}

/** A job with a board, two bits and two passes, and nothing on the board yet. */
export function plainJob(p: PlainJob): Job {
  const { x, y, thickness, material, origin, zZero, grain, face, spoilboard } = p.board;
  const setup = proposeSetup({ x, y }, p.machine);
  if (origin) setup.zero.origin = origin;
  if (zZero) setup.zero.z = zZero;
  if (spoilboard !== undefined) setup.spoilboard = spoilboard;
  const job: Job = {
    version: VERSION,
    name: p.name,
    order: p.order,
    boards: [
      {
        id: 'board',
        name: 'Board',
        x,
        y,
        thickness,
        material: material ?? materialNamed('maple'),
        grain: grain ?? 'along-x',
        face: face ?? 'bare',
        flip: 'about-y',
        web: LEAST_WEB,
        openings: [],
        jigFor: null,
        drum: null,
        setups: [setup],
      },
    ],
    machine: p.machine,
    cutters: [p.rough, p.finish].filter((c, i, all) => all.findIndex((d) => d.id === c.id) === i),
    output: { unit: 'mm', oneFile: false },
    cell: null,
  };
  const view = setupView(job);
  const born = (c: Cutter) => bornBy(view.board.material, c);
  view.passes.push(kindOf('rough').propose(view, born(p.rough)));
  view.passes.push(kindOf('finish').propose(view, born(p.finish)));
  return job;
}
