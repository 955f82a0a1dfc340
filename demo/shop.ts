import { createHash } from 'node:crypto';
import { NEW_WORDS, newWords } from '@/core/arrange/new-layer';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import { withEdits } from '@/core/doc/edits';
import type { Job } from '@/core/doc/job';
import { type Layer, PLAIN_LAYER } from '@/core/doc/layer';
import type { PassKindName } from '@/core/doc/pass';
import type { Words } from '@/core/doc/words';
import { addPass } from '@/core/passes/add-pass';
import { fileLayer, plainJob, proposeJob } from '@/core/plan/propose';
import { setupView } from '@/core/setup/view';
import type { SourceInfo } from '@/core/sources/inspect';
import { inspectSource } from '@/core/sources/inspect';
import { layWords, readFont } from '@/core/sources/lettering';
import { shippedFont } from '@/server/content';
import { readSource } from '@/server/read-source';
import { bracket } from './bracket';
import { breadBoard } from './bread-board';
import { peelHandle } from './handle';
import { heightPng, patternFile } from './patterns';
import { rollingPin } from './pin';
import { plaque, type Shape } from './shapes';
import { stamp } from './stamp';
import { tokens } from './tokens';

/** A shape as a 16-bit grayscale PNG, black outside its outline, white at its rise. */
export function shapeImage(s: Shape, pixel: number): Uint8Array {
  return heightPng(s.width, s.height, pixel, (x, y) => (s.inside(x, y) ? s.at(x, y) / s.rise : null));
}

export interface DemoJob {
  /** The files that it is made of, by hash. */
  files: Map<string, { name: string; bytes: Uint8Array }>;
  job: Job;
}

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const hashOf = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');

interface Taken {
  file: string;
  hash: string;
  info: SourceInfo;
}

/** A demo job of some files, each read as an upload would be. */
async function demoJob(
  files: { name: string; bytes: Uint8Array }[],
  make: (f: Taken[]) => Job | Promise<Job>,
): Promise<DemoJob> {
  const taken = await Promise.all(
    files.map(async (f) => ({
      file: f.name,
      hash: hashOf(f.bytes),
      info: inspectSource(await readSource(f.bytes, f.name)),
    })),
  );
  return { files: new Map(files.map((f, i) => [taken[i].hash, f])), job: await make(taken) };
}

const common = { machine: HOBBY_MACHINE, rough: bit('em6'), finish: bit('ball3') };
const board = { x: 300, y: 200, thickness: 19, material: materialNamed('maple') };

/** Words that a V bit cuts into what lies beneath, set and measured as the page does it; `at` is where their line begins to count from. */
async function grooved(
  id: string,
  name: string,
  words: Pick<Words, 'text' | 'font' | 'fontName' | 'height' | 'line'>,
  at: { x: number; y: number },
): Promise<Layer> {
  const all: Words = { ...NEW_WORDS, spacing: 0.4, ...words };
  const { size, origin } = layWords(all, readFont((await shippedFont(words.font))!, words.fontName));
  const layer = newWords(id, all, size, board);
  return {
    ...layer,
    name,
    source: { kind: 'words', words: all, relief: { kind: 'vee', angle: bit('v60').includedAngle } },
    join: 'carve',
    rise: 2.5,
    centre: { x: Number((at.x - origin.x).toFixed(4)), y: Number((at.y - origin.y).toFixed(4)) },
  };
}

/** Along the middle of the ribbon, a sine as Bezier curves, lowered so that small letters stand about it. */
function ribbonLine(): string {
  const wave = RIBBON.x / 3;
  const high = (5 * RIBBON.x) / 220;
  const low = 2.2;
  const y = (v: number) => (low - v).toFixed(3);
  const h = wave / 2;
  // A half wave between its crests has its control points at 0.3642 of its length.
  const c = 0.3642 * wave;
  return [
    `M ${-2 * h} ${y(0)}`,
    `C ${(-2 * h + 0.5123 * h).toFixed(3)} ${y(-0.5123 * (Math.PI / 2) * high)} ${(-h - c / 2).toFixed(3)} ${y(-high)} ${-h} ${y(-high)}`,
    `C ${(-h + c).toFixed(3)} ${y(-high)} ${(h - c).toFixed(3)} ${y(high)} ${h} ${y(high)}`,
    `C ${(h + c / 2).toFixed(3)} ${y(high)} ${(2 * h - 0.5123 * h).toFixed(3)} ${y(0.5123 * (Math.PI / 2) * high)} ${2 * h} ${y(0)}`,
  ].join(' ');
}
const RIBBON = { x: 176, y: 36.8 };

/** The wall plaque of the mill, joined from ten layers, three of them words that a V bit cuts; cleared, lettered and cut out. */
async function arranged([sheaf, ribbon, ear]: Taken[]): Promise<Job> {
  const job = setupView(plainJob({ ...common, name: 'Ottersedge plaque', order: 'OE-100', board }));
  const panel = (id: string, name: string, x: number, y: number, radius: number): Layer => ({
    ...PLAIN_LAYER,
    id,
    name,
    source: {
      kind: 'shape',
      outline: { kind: 'rounded', radius },
      edge: { kind: 'plain' },
      relief: { kind: 'ogee', width: 12, band: false },
    },
    size: { x, y },
    rise: 8,
    centre: { x: 150, y: 100 },
  });
  const ears = (id: string, name: string, x: number, mirror: boolean): Layer => ({
    ...fileLayer(id, ear.file, ear.hash, ear.info),
    name,
    size: { x: 16, y: Number(((16 * ear.info.size.y) / ear.info.size.x).toFixed(4)) },
    rise: 2.6,
    centre: { x, y: 66 },
    turn: mirror ? 24 : -24,
    mirror,
    join: 'stack',
    group: 'Ears',
  });
  job.layers = [
    panel('panel', 'Panel', 268, 168, 22),
    {
      ...panel('field', 'Field', 240, 140, 12),
      source: {
        kind: 'shape',
        outline: { kind: 'rounded', radius: 12 },
        edge: { kind: 'plain' },
        relief: { kind: 'cove', width: 5, band: false },
      },
      rise: 4,
      join: 'carve',
    },
    {
      ...fileLayer('sheaf', sheaf.file, sheaf.hash, sheaf.info),
      name: 'Wheat sheaf',
      size: { x: 72, y: Number(((72 * sheaf.info.size.y) / sheaf.info.size.x).toFixed(4)) },
      rise: 5.6,
      centre: { x: 150, y: 100 },
    },
    {
      ...fileLayer('ribbon', ribbon.file, ribbon.hash, ribbon.info),
      name: 'Ribbon',
      size: { ...RIBBON },
      rise: 4,
      lift: 4.4,
      centre: { x: 150, y: 62 },
      join: 'highest',
    },
    ears('ear-left', 'Ear, left', 55, false),
    ears('ear-right', 'Ear, right', 245, true),
    {
      ...PLAIN_LAYER,
      id: 'name',
      name: 'Ottersedge Mill',
      source: {
        kind: 'words',
        words: {
          text: 'Ottersedge Mill',
          font: 'slab-bold',
          fontName: 'Slab, bold',
          height: 11,
          stretch: 1,
          spacing: 0.6,
          kerning: true,
          nudges: {},
          lineGap: 1.6,
          align: 'middle',
          line: { kind: 'arc', radius: 210, under: false },
        },
        relief: { kind: 'bevel', width: 0.8, band: false },
      },
      size: { x: 127.4308, y: 20.8867 },
      rise: 2.2,
      centre: { x: 150, y: 153 },
    },
    await grooved(
      'flour',
      'Flour',
      { text: 'Flour', font: 'script', fontName: 'Script', height: 17, line: { kind: 'straight' } },
      { x: 74, y: 108 },
    ),
    await grooved(
      'bread',
      'Bread',
      { text: 'Bread', font: 'script', fontName: 'Script', height: 17, line: { kind: 'straight' } },
      { x: 226, y: 108 },
    ),
    await grooved(
      'motto',
      'Ground by water',
      {
        text: 'Ground by water',
        font: 'slab-bold',
        fontName: 'Slab, bold',
        height: 7,
        line: { kind: 'curve', d: ribbonLine() },
      },
      { x: 150, y: 62 },
    ),
  ];
  return [
    ['letter', 'v60'],
    ['cutout', 'em6'],
    ['flat', 'em6'],
  ].reduce(
    (made, [kind, id]) => withEdits(made, addPass(setupView(made), kind as PassKindName, bit(id))),
    job.document,
  );
}

/** What makes the jobs that the sample shop starts with, by their orders. */
const JOBS = {
  'OE-101': () =>
    demoJob([patternFile('wheat-sheaf.stl')], ([f]) =>
      proposeJob({ ...common, ...f, name: 'Wheat-sheaf plaque', order: 'OE-101', board, size: { x: 280 }, rise: 10.6 }),
    ),
  'OE-102': () =>
    demoJob([{ name: 'wheat-sheaf-heights.png', bytes: shapeImage(plaque, 0.2) }], ([f]) =>
      proposeJob({
        ...common,
        ...f,
        name: 'Wheat-sheaf, from heights',
        order: 'OE-102',
        board: { ...board, material: materialNamed('pine'), origin: 'centre' },
        size: { x: 200 },
        rise: 8,
      }),
    ),
  'OE-103': () =>
    demoJob([patternFile('loaf.stl')], ([f]) =>
      proposeJob({
        ...common,
        ...f,
        name: 'Cookie mould',
        order: 'OE-103',
        board: { x: 160, y: 110, thickness: 22, material: materialNamed('beech') },
        size: { x: 116 },
        rise: 9,
        mode: 'sunk',
        invert: true,
      }),
    ),
  'OE-100': () => demoJob(['wheat-sheaf-alone.stl', 'ribbon.png', 'ear-of-wheat.stl'].map(patternFile), arranged),
  'OE-104': () => demoJob([], bracket),
  'OE-105': () => demoJob(['wheat-sheaf-alone.stl', 'mill-wheel.png'].map(patternFile), stamp),
  'OE-106': () => demoJob([], breadBoard),
  'OE-107': () => demoJob(['mill-wheel.png', 'ear-of-wheat.stl'].map(patternFile), tokens),
  'OE-108': () => demoJob([], rollingPin),
  'OE-109': () => demoJob([], peelHandle),
} satisfies Record<string, () => Promise<DemoJob>>;

export type DemoOrder = keyof typeof JOBS;
export const DEMO_ORDERS = Object.keys(JOBS) as DemoOrder[];

/** One of the jobs that the sample shop starts with, by its order. */
export const demoJobOf = (order: DemoOrder): Promise<DemoJob> => JOBS[order]();

/** The jobs that the sample shop starts with; all of it is made here. */
export const demoJobs = (): Promise<DemoJob[]> => Promise.all(Object.values(JOBS).map((make) => make()));
