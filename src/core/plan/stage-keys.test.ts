import { createHash } from 'node:crypto';
import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import { type Job, jobSchema } from '../doc/job';
import { WHOLE_PIECE } from '../doc/outline-ref';
import { localHost } from '../kernels/host';
import { addPass } from '../passes/add-pass';
import { setupView } from '../setup/view';
import { drumJob, hollow } from './drum-test-kit';
import { planJob } from './pipeline';
import { drawerBit, plainSetup, shapesOnly } from './plan-test-kit';
import { problems } from './problems';
import { addSetup } from './setups';
import type { RunStage, StageResult } from './stage';
import type { Plan } from './summary';
import { oneThread } from './threads';

const BOARD = { x: 44, y: 34, thickness: 9, material: materialNamed('maple') };

/** A small board with every kind of pass, both faces, a mask by another layer, a seat that presses, and an outline as an area. */
function rich(): Job {
  const job = plainSetup({
    name: 'Keys',
    order: 'K-1',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em3'),
    finish: drawerBit('ball3'),
    board: BOARD,
  });
  job.cell = 1;
  const shape = (id: string, x: number, y: number, rise: number) => ({
    ...newShape({ id: id, name: id }, { kind: 'rounded', radius: 2 }, { kind: 'bevel', width: 1, band: false }, BOARD),
    size: { x, y },
    centre: { x: 22, y: 17 },
    rise,
  });
  job.layers = [
    shape('plate', 24, 16, 2.5),
    { ...shape('boss', 8, 8, 1), lift: 0.2, copies: { kind: 'rows', columns: 2, rows: 1, dx: 10, dy: 3 } },
    {
      ...shape('masked', 20, 4, 0.8),
      join: 'highest',
      lift: 1.2,
      thin: 0.6,
      slope: { x: 1, y: 0 },
      mask: { kind: 'layer', layer: 'boss', grow: 0.5, outside: true },
    },
    { ...shape('soft', 6, 6, 1), centre: { x: 14, y: 17 }, join: 'blend', amount: 0.7 },
    {
      ...shape('vee', 5, 2, 0.7),
      centre: { x: 30, y: 13 },
      join: 'carve',
      source: {
        kind: 'shape',
        outline: { kind: 'rectangle' },
        edge: { kind: 'plain' },
        relief: { kind: 'vee', angle: 60 },
      },
    },
  ];
  job.gaps = [{ id: 'gap', axis: 'x', of: 'boss', ofSide: 'low', from: 'plate', fromSide: 'low', distance: 3 }];
  job.seat.press = { above: 2, factor: 0.9 };
  for (const [kind, id] of [
    ['flat', 'em3'],
    ['letter', 'v60'],
    ['hole', 'drill6'],
    ['cutout', 'em3'],
  ] as const)
    applyEdits(job.document, addPass(job, kind, drawerBit(id)));
  const hole = job.passes.find((p) => p.kind === 'hole')!;
  Object.assign(hole, { places: [{ x: 40, y: 30 }], depth: 3 });
  const finish = job.passes.find((p) => p.kind === 'finish')!;
  Object.assign(finish, {
    stepover: 0.8,
    area: { kind: 'outline', outline: { ...WHOLE_PIECE, of: ['plate'], less: ['soft'], grow: 1 } },
  });
  const { id, edits } = addSetup(job, 'back');
  applyEdits(job.document, edits);
  const back = setupView(job.document, id);
  applyEdits(job.document, addPass(back, 'skim', drawerBit('em6')));
  job.document.boards[0].setups.reverse();
  return job.document;
}

const keyOf = (name: string, input: unknown) =>
  createHash('sha256')
    .update(`${name}\0${JSON.stringify(input)}`)
    .digest('hex');

/** Plans with a way to come by what a stage makes: worked out, or taken from what is kept. */
function plan(job: Job, come: (key: string, run: () => Promise<StageResult>) => Promise<StageResult>): Promise<Plan> {
  const stage: RunStage = async (name, input, run) => {
    const key = keyOf(name, input);
    return { key, result: (await come(key, run)) as Awaited<ReturnType<typeof run>> };
  };
  return planJob(job, shapesOnly, { host: localHost, threads: oneThread, progress() {}, stage });
}

/** All that a stage leaves, as one sum. */
function sumOfStage({ meta, arrays }: StageResult): string {
  const h = createHash('sha256').update(JSON.stringify(meta) ?? '');
  for (const [name, a] of Object.entries(arrays).sort(([m], [n]) => (m < n ? -1 : 1)))
    h.update(name).update(new Uint8Array(a.buffer, a.byteOffset, a.byteLength));
  return h.digest('hex');
}

/** A plan with every stage worked out, and what each of them came to. */
async function worked(job: Job): Promise<{ plan: Plan; stages: Map<string, StageResult>; sums: Map<string, string> }> {
  const stages = new Map<string, StageResult>();
  const sums = new Map<string, string>();
  const made = await plan(job, async (key, run) => {
    const result = await run();
    stages.set(key, result);
    sums.set(key, sumOfStage(result));
    return result;
  });
  return { plan: made, stages, sums };
}

/** All that a plan says and shows, as one sum. */
function sumOf(p: Plan): string {
  const h = createHash('sha256').update(JSON.stringify(p.summary));
  for (const s of p.surfaces)
    for (const a of [s.target.data, s.mask, s.cut.data, s.rough?.data ?? new Uint8Array(0), s.deviation])
      h.update(new Uint8Array(a.buffer, a.byteOffset, a.byteLength));
  return h.digest('hex');
}

/** Every figure, switch and word of a document, with its path. */
function leaves(node: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof node !== 'object' || node === null) return [path];
  return Object.entries(node).flatMap(([k, v]) => leaves(v, [...path, Array.isArray(node) ? Number(k) : k]));
}

/** Other words that fields of the document may hold. */
const WORDS: Record<string, string> = {
  rings: 'raster',
  raised: 'sunk',
  stack: 'highest',
  highest: 'stack',
  carve: 'stack',
  blend: 'stack',
  outside: 'on',
  machined: 'top',
  mm: 'in',
  face: 'face',
  'along-x': 'along-y',
  'lower-left': 'centre',
  top: 'bed',
  bare: 'painted',
  round: 'sharp',
  low: 'high',
  x: 'y',
  A: 'B',
  'inverse-time': 'per-minute',
  up: 'down',
  usual: 'heavy',
  weak: 'heavy',
  none: 'along-x',
  boss: 'soft',
  plate: 'soft',
  soft: 'plate',
};

/** The document with one leaf changed; null where there is no other value that can be planned. */
function changedAt(job: Job, path: (string | number)[]): Job | null {
  const copy = structuredClone(job);
  const holder = path
    .slice(0, -1)
    .reduce((n: unknown, k) => (n as Record<string | number, unknown>)[k], copy) as Record<string | number, unknown>;
  const last = path[path.length - 1];
  const was = holder[last];
  if (typeof was === 'number')
    holder[last] = Number.isInteger(was) && was > 2 ? was + 1 : was === 0 ? 0.25 : was * 1.05;
  else if (typeof was === 'boolean') holder[last] = !was;
  else if (typeof was === 'string') holder[last] = WORDS[was] ?? `${was}2`;
  else return null;
  const read = jobSchema.safeParse(copy);
  if (!read.success || problems(read.data).some((f) => f.stops)) return null;
  return read.data;
}

/** A sixth of the fields is changed at a time; `ZG_SEED` chooses which, so that six seeds in a row go through all of them. */
const PARTS = 6;
const PART = Number(process.env.ZG_SEED ?? 20) % PARTS;

/** Every so many changed documents are planned through the store too. */
const THROUGH = 16;

test('stage keys are complete: with any field changed, equal keys stand for equal results, and a plan through the store is a fresh one', async () => {
  // As it is read, so that what is not changed has the very same keys.
  const job = jobSchema.parse(rich());
  expect(problems(job).filter((f) => f.stops)).toEqual([]);
  const base = await worked(job);
  const baseSum = sumOf(base.plan);
  expect(new Set(base.plan.summary.setups.flatMap((s) => s.passes.map((p) => p.kind))).size).toBe(7);
  const stale: string[] = [];
  let taken = 0;
  let tried = 0;
  let different = 0;
  for (const path of leaves(job).filter((_, n) => n % PARTS === PART)) {
    const other = changedAt(job, path);
    if (!other) continue;
    tried++;
    const fresh = await worked(other);
    const common = [...fresh.sums].filter(([key]) => base.sums.has(key));
    if (common.length > 0) taken++;
    for (const [key, sum] of common) if (base.sums.get(key) !== sum) stale.push(`${path.join('.')} ${key}`);
    const sum = sumOf(fresh.plan);
    if (sum !== baseSum) different++;
    if (tried % THROUGH > 0) continue;
    const kept = await plan(other, async (key, run) => base.stages.get(key) ?? run());
    if (sumOf(kept) !== sum) stale.push(path.join('.'));
  }
  expect(stale).toEqual([]);
  // Most fields were tried, and many of them matter.
  expect(tried).toBeGreaterThan(35);
  expect(different).toBeGreaterThan(20);
  // And stored results could be taken for nearly all of them.
  expect(taken).toBeGreaterThan(0.9 * tried);
});

test('so they are round a drum: what holds its ends, how it is turned, and where its axis lies', async () => {
  const { document } = drumJob([hollow('seam', 22, 0)], (v) => {
    v.cell = 1;
    v.passes = v.passes.filter((p) => p.kind === 'finish');
  });
  const job = jobSchema.parse(document);
  const base = await worked(job);
  const stale: string[] = [];
  const own = leaves(job).filter((path) => path.includes('drum') || path.includes('rotary'));
  let different = 0;
  for (const path of own) {
    const other = changedAt(job, path);
    if (!other) continue;
    const fresh = await worked(other);
    for (const [key, sum] of fresh.sums)
      if (base.sums.has(key) && base.sums.get(key) !== sum) stale.push(`${path.join('.')} ${key}`);
    if (sumOf(fresh.plan) !== sumOf(base.plan)) different++;
  }
  expect(stale).toEqual([]);
  expect(different).toBeGreaterThan(4);
});
