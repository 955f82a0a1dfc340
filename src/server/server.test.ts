import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { loaf, shapeMesh } from '../../demo/shapes';
import { DRAWER, HOBBY_MACHINE } from '../core/doc/defaults';
import type { Job } from '../core/doc/job';
import { makeField } from '../core/field/height-field';
import { localHost } from '../core/kernels/host';
import { proposeJob } from '../core/plan/propose';
import { setupView } from '../core/setup/view';
import { writeStl } from '../core/sources/stl';
import { StaleSave } from './errors';
import { copyJob, createJob, getJob, getRevision, putAsset, putInFolder, saveJob, settleKept } from './jobs';
import { KernelPool } from './kernel-pool';
import { isOwnRequest } from './origin';
import { PlanQueue, type Rank } from './plan-queue';
import { openShop, type Shop } from './shop';
import { StageCache, stageRunner } from './stage-cache';
import { StageTimes } from './stage-times';

const folder = mkdtempSync(path.join(tmpdir(), 'zg-test-'));
let shop: Shop;
let job: Job;

beforeAll(async () => {
  shop = await openShop(folder);
  const bytes = writeStl(shapeMesh(loaf, 2), 'loaf');
  const taken = await shop.assets.take(new Blob([bytes as Uint8Array<ArrayBuffer>]).stream() as never, 'loaf.stl');
  await putAsset(shop.db, { ...taken, file: 'loaf.stl' });
  const [em, ball] = [DRAWER.find((c) => c.id === 'em6')!, DRAWER.find((c) => c.id === 'ball6')!];
  job = proposeJob({
    name: 'Small loaf',
    order: '',
    file: 'loaf.stl',
    hash: taken.hash,
    info: taken.info,
    machine: HOBBY_MACHINE,
    rough: em,
    finish: ball,
    board: { x: 70, y: 60, thickness: 15 },
  });
});

afterAll(async () => {
  await shop.plans.close();
  await shop.db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

/** The job with its relief of another height. */
function risen(name: string, rise: number): Job {
  const view = setupView(structuredClone({ ...job, name }));
  view.layers[0].rise = rise;
  return view.document;
}

test('a stale save is refused, and both versions are kept', async () => {
  const first = await createJob(shop.db, job);
  const mine = await saveJob(shop.db, first.id, first.revision, { ...job, name: 'Mine' });
  const refused = await saveJob(shop.db, first.id, first.revision, { ...job, name: 'Other tab' }).catch((e) => e);
  expect(refused).toBeInstanceOf(StaleSave);
  expect(refused.head).toBe(mine.revision);
  expect((await getJob(shop.db, first.id)).document.name).toBe('Mine');
  expect((await getRevision(shop.db, first.id, refused.kept)).name).toBe('Other tab');
  expect((await getJob(shop.db, first.id)).kept).toHaveLength(1);
  await settleKept(shop.db, first.id);
  expect((await getJob(shop.db, first.id)).kept).toEqual([]);
});

test('a copy of a job is a job of its own: what is saved to it leaves the first as it is', async () => {
  const first = await createJob(shop.db, job);
  await putInFolder(shop.db, first.id, 'Mill');
  const copy = await copyJob(shop.db, first.id);
  expect(copy.id).not.toBe(first.id);
  const lies = await shop.db.selectFrom('jobs').select('folder').where('id', '=', copy.id).executeTakeFirst();
  expect(lies).toEqual({ folder: 'Mill' });
  await expect(putInFolder(shop.db, 'none', 'Mill')).rejects.toThrow('no such job');
  expect(copy.document).toEqual({ ...first.document, name: `${job.name} copy` });
  await saveJob(shop.db, copy.id, copy.revision, { ...copy.document, order: 'changed' });
  expect((await getJob(shop.db, first.id)).document).toEqual(first.document);
  // A name is never longer than a job's may be.
  const long = await copyJob(shop.db, (await createJob(shop.db, { ...job, name: 'n'.repeat(80) })).id);
  expect(long.document.name).toHaveLength(80);
});

test('an asset is stored once by its content; what is no relief leaves nothing behind', async () => {
  const dir = path.join(folder, 'assets');
  const before = readdirSync(dir);
  const bytes = writeStl(shapeMesh(loaf, 2), 'loaf');
  await shop.assets.take(new Blob([bytes as Uint8Array<ArrayBuffer>]).stream() as never, '../../evil.stl');
  await expect(shop.assets.take(new Blob(['not a mesh']).stream() as never, 'note.txt')).rejects.toThrow(
    'note.txt: is a text that no model',
  );
  expect(readdirSync(dir)).toEqual(before);
  expect(() => shop.assets.path('../../etc/passwd')).toThrow("is not a file's hash");
});

test('a plan runs in its worker, is found again after a restart, and its stages are not computed twice', async () => {
  const { id } = await createJob(shop.db, job);
  const started = await shop.plans.start(id);
  const done = await finished(started.id);
  expect(done.status).toBe('done');
  expect(done.summary?.programs).toHaveLength(2);
  expect(done.summary?.findings.filter((f) => f.severity === 'error')).toEqual([]);
  expect((await shop.plans.file(started.id, 'program-0.nc')).toString()).toContain('G21');
  const section = await shop.plans.surfaces.section(started.id, 'face', { x0: 0, y0: 30, x1: 70, y1: 30 }, 50);
  expect(Object.keys(section).sort()).toEqual(['cut', 'rough', 'target']);
  expect(Math.min(...section.cut)).toBeLessThan(-1);
  // Only the name of the job changes: the surfaces and paths are taken from the cache, in seconds that show it.
  const again = await saveJob(shop.db, id, (await getJob(shop.db, id)).revision, { ...job, name: 'Renamed' });
  const second = await finished((await shop.plans.start(again.id)).id);
  const sum = (s: Record<string, number>) =>
    ['layer', 'composite', 'target', 'rough', 'finish'].reduce((n, k) => n + s[k], 0);
  expect(sum(second.summary!.stageSeconds)).toBeLessThan(sum(done.summary!.stageSeconds) / 2);
  expect(second.summary!.programs[0].file).toContain('renamed');
});

test('a plan that was cut short is interrupted after the next start, and runs again', async () => {
  const { id } = await createJob(shop.db, risen('Cut short', 4));
  const started = await shop.plans.start(id);
  await new Promise((r) => setTimeout(r, 300));
  // Another process opens the same folder, as after a crash: what it finds running is marked.
  const other = await openShop(folder);
  expect((await other.plans.latest(id))?.status).toBe('interrupted');
  expect((await finished((await other.plans.start(id)).id, other)).status).toBe('done');
  await other.plans.close();
  await other.db.destroy();
  await shop.plans.cancel(started.id);
});

test('cancelling stops the worker and says so', async () => {
  const { id } = await createJob(shop.db, risen('Cancelled', 3.3));
  const started = await shop.plans.start(id);
  await new Promise((r) => setTimeout(r, 200));
  await shop.plans.cancel(started.id);
  expect((await finished(started.id)).status).toBe('cancelled');
  expect(existsSync(path.join(folder, 'plans'))).toBe(true);
});

async function finished(id: string, where: Shop = shop) {
  for (;;) {
    const s = await where.plans.state(id);
    if (s.status !== 'queued' && s.status !== 'running') return s;
    await new Promise((r) => setTimeout(r, 50));
  }
}

test('the cache gives back what was put, and a broken file counts as none', async () => {
  const cache = new StageCache(path.join(folder, 'cache-test'));
  const seconds = {};
  const run = stageRunner(cache, 'one', seconds);
  let runs = 0;
  const stage = () =>
    run('x', { a: 1 }, async () => ({
      meta: { n: ++runs },
      arrays: { f: Float32Array.from([1, 2]), b: Uint8Array.from([7]) },
    }));
  const first = await stage();
  const second = await stage();
  expect(runs).toBe(1);
  expect(second.result).toEqual(first.result);
  expect(cache.get('0'.repeat(64))).toBeUndefined();
  // What another planner stored is not taken.
  await stageRunner(cache, 'two', seconds)('x', { a: 1 }, async () => ({ meta: { n: ++runs }, arrays: {} }));
  expect(runs).toBe(2);
});

test('kernels spread over threads give what one thread gives', async () => {
  const pool = new KernelPool(2);
  try {
    const f = makeField({ width: 61, height: 47, cell: 0.2, originX: 0.1, originY: 0.1 });
    for (let k = 0; k < f.data.length; k++) f.data[k] = Math.sin(k * 0.37) - 2;
    const ball = { shape: 1 as const, R: 1.5, p0: 0, p1: 0, p2: 0 };
    expect(await pool.offset(f, ball, 0.1)).toEqual(await localHost.offset(f, ball, 0.1));
    const ys = Float64Array.from([-1, 0.33, 4.4, 9, 12]);
    expect(await pool.lines(f, ball, ys)).toEqual(await localHost.lines(f, ball, ys));
    const segments = Float64Array.from([1, 1, -2.5, 9, 8, -3, 0, 9, 8, -3, 2, 8, -3, 0]);
    const a = { ...f, data: f.data.slice() };
    const b = { ...f, data: f.data.slice() };
    const bitesA = await pool.remove(a, ball, segments);
    const bitesB = await localHost.remove(b, ball, segments);
    expect(bitesA).toEqual(bitesB);
    for (let k = 0; k < a.data.length; k++) expect(Math.abs(a.data[k] - b.data[k])).toBeLessThan(1e-5);
  } finally {
    await pool.close();
  }
});

test('only our own addresses are answered', () => {
  const headers = (h: Record<string, string>) => new Headers(h);
  for (const host of ['127.0.0.1:4173', 'localhost', '[::1]:4173']) expect(isOwnRequest(headers({ host }))).toBe(true);
  expect(isOwnRequest(headers({ host: 'example.org' }))).toBe(false);
  expect(isOwnRequest(headers({}))).toBe(false);
  // What a request says of the gate itself is nothing, whether there is one or not.
  expect(isOwnRequest(headers({ host: '192.168.1.5:4174', 'x-zealous-grain-gate': '' }))).toBe(false);
  expect(isOwnRequest(headers({ host: '192.168.1.5:4174', 'x-zealous-grain-gate': 'undefined' }))).toBe(false);
  expect(isOwnRequest(headers({ host: '127.0.0.1:4173', origin: 'http://127.0.0.1:4173' }))).toBe(true);
  expect(isOwnRequest(headers({ host: '127.0.0.1:4173', origin: 'http://evil.example' }))).toBe(false);
  expect(isOwnRequest(headers({ host: 'evil.example:4173' }))).toBe(false);
  expect(isOwnRequest(headers({ host: '127.0.0.1:4173', origin: 'null' }))).toBe(false);
});

test('a newer version of a job replaces its older plan, waiting or running, and drops variants of what it was', async () => {
  const { id, revision } = await createJob(shop.db, risen('Replaced', 4.4));
  const first = await shop.plans.start(id);
  await saveJob(shop.db, id, revision, risen('Replaced', 4.6));
  const second = await shop.plans.start(id);
  expect(second.id).not.toBe(first.id);
  expect((await shop.plans.state(first.id)).status).toBe('cancelled');
  await shop.plans.cancel(second.id);
});

test('no task of a queue is lost between two starts, however they are added and dropped', async () => {
  const ended: string[] = [];
  const places = {
    assets: folder,
    cache: path.join(folder, 'cache'),
    planner: 'p',
    out: (i: string) => path.join(folder, i),
  };
  const queue = new PlanQueue(places, new StageTimes(path.join(folder, 'queue-times.json')), () => {});
  // Tasks that turn out to be unwanted take a moment to be asked, and run nothing.
  const add = (key: string, rank: Rank = 'asked') =>
    queue.add({
      key,
      job: key,
      document: job,
      input: key,
      rank,
      ended: () => {},
      begins: async () => {
        await new Promise((r) => setTimeout(r, 5));
        ended.push(key);
        return false;
      },
    });
  add('a');
  const dropped = queue.drop('a');
  add('b');
  add('c');
  await dropped;
  add('d');
  await expect.poll(() => ended.filter((k) => k !== 'a')).toEqual(['b', 'c', 'd']);
  // What nobody waits for comes behind what somebody does, whenever it was put in line; what is asked for then comes forward.
  ended.length = 0;
  add('first');
  add('variant', 'variant');
  add('later', 'ahead');
  add('soon', 'ahead');
  add('now');
  expect(queue.aboutOf('soon')).toBeGreaterThan(0);
  expect(queue.aboutOf('gone')).toBeNull();
  queue.ask('soon');
  await expect.poll(() => ended).toEqual(['first', 'soon', 'now', 'later', 'variant']);
  await queue.close();
});

test('jobs that are to be planned ahead go on after a restart, give way to what is asked for, and stop where somebody stops them', async () => {
  const other = mkdtempSync(path.join(tmpdir(), 'zg-ahead-'));
  let ahead = await openShop(other);
  const source = job.boards[0].setups[0].layers[0].source;
  if (source.kind !== 'mesh') throw new Error('the job has no mesh');
  await ahead.assets.take(
    new Blob([readFileSync(shop.assets.path(source.hash)) as Uint8Array<ArrayBuffer>]).stream() as never,
    'loaf.stl',
  );
  const older = await createJob(ahead.db, risen('Older', 3.1), { ahead: true });
  await new Promise((r) => setTimeout(r, 5));
  const newer = await createJob(ahead.db, risen('Newer', 3.2), { ahead: true });
  await createJob(ahead.db, risen('Nobody asked', 3.3));
  await ahead.plans.planAhead();
  expect(await ahead.plans.latest(newer.id)).not.toBeNull();
  // Closed at once: both are still to be planned, and are when it is open again.
  await ahead.plans.close();
  await ahead.db.destroy();
  ahead = await openShop(other);
  const asked = await createJob(ahead.db, risen('Asked', 3.4));
  await ahead.plans.planAhead();
  const { id } = await ahead.plans.start(asked.id);
  const stateOf = async (of: string) => (await ahead.plans.latest(of))?.status;
  await expect.poll(() => stateOf(asked.id), { timeout: 600_000 }).toBe('done');
  expect(await stateOf(older.id)).not.toBe('done');
  expect((await ahead.plans.state(id)).status).toBe('done');
  await expect.poll(() => stateOf(newer.id), { timeout: 600_000 }).toBe('done');
  await ahead.plans.cancel((await ahead.plans.latest(older.id))!.id);
  await ahead.plans.planAhead();
  expect(['cancelled', 'done']).toContain(await stateOf(older.id));
  expect((await ahead.rack.list()).map((j) => [j.name, j.plan !== null])).toContainEqual(['Nobody asked', false]);
  await ahead.plans.close();
  await ahead.db.destroy();
  rmSync(other, { recursive: true, force: true });
});

test('a file that is missing or damaged is said by its name, and choosing it again puts it back', async () => {
  const { id } = await createJob(shop.db, risen('Missing file', 5.1));
  const source = job.boards[0].setups[0].layers[0].source;
  if (source.kind !== 'mesh') throw new Error('the job has no mesh');
  const stored = shop.assets.path(source.hash);
  const bytes = readFileSync(stored);
  const planned = async () => {
    const started = await shop.plans.start(id);
    return finished(started.id);
  };
  rmSync(stored);
  expect((await planned()).message).toContain('loaf.stl: is missing from the shop');
  writeFileSync(stored, bytes.subarray(0, bytes.length - 40));
  expect((await planned()).message).toContain('loaf.stl: its stored copy');
  await shop.assets.take(new Blob([bytes as Uint8Array<ArrayBuffer>]).stream() as never, 'loaf.stl');
  const done = await planned();
  expect(done.status, done.message ?? '').toBe('done');
});
