import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'kysely';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { jobSchema } from '../core/doc/job';
import { diskFull, isDiskFull } from './disk';
import { NotFound } from './errors';
import { contentsOf, keepWithin } from './files';
import { createJob, getJob, nameVersion, saveJob } from './jobs';
import { clearResults } from './keeping';
import { bringBack, listRemoved, removeJob } from './removed';
import { openShop, type Shop } from './shop';
import { StageCache } from './stage-cache';
import { Standings } from './standing';

const job = jobSchema.parse(JSON.parse(readFileSync('src/core/doc/upgrade/fixtures/v2-skimmed-face.json', 'utf8')));
let folder: string;
let shop: Shop;

beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'zg-keeping-'));
  shop = await openShop(folder);
});

const close = async () => {
  await shop.plans.close();
  await shop.db.destroy();
};

afterEach(async () => {
  await close();
  rmSync(folder, { recursive: true, force: true });
});

const reopen = async () => {
  await close();
  shop = await openShop(folder);
};

/** A finished plan of a revision with a result of so many bytes. */
async function finished(of: { id: string; revision: string }, input: string, bytes: number, created: string) {
  await shop.db
    .insertInto('plans')
    .values({
      id: input,
      job: of.id,
      revision: of.revision,
      input,
      status: 'done',
      message: null,
      created,
      finished: created,
    })
    .execute();
  mkdirSync(path.join(folder, 'plans', input), { recursive: true });
  writeFileSync(path.join(folder, 'plans', input, 'program-0.nc'), Buffer.alloc(bytes));
}

const results = () => readdirSync(path.join(folder, 'plans')).sort();

test('a removed job leaves the rack, comes back with its results, and is gone for good after 30 days', async () => {
  const made = await createJob(shop.db, job);
  await finished(made, 'a', 10, '2026-01-01');
  await removeJob(shop.db, made.id);
  expect(await shop.rack.list()).toEqual([]);
  await expect(getJob(shop.db, made.id)).rejects.toThrow('the shop page brings it back');
  await expect(saveJob(shop.db, made.id, made.revision, job)).rejects.toThrow(NotFound);
  await expect(removeJob(shop.db, made.id)).rejects.toThrow(NotFound);
  expect(await listRemoved(shop.db)).toMatchObject([{ id: made.id, name: job.name }]);
  await reopen();
  expect(results()).toEqual(['a']);
  await bringBack(shop.db, made.id);
  expect((await shop.rack.list()).map((r) => r.id)).toEqual([made.id]);
  await removeJob(shop.db, made.id);
  const long = new Date(Date.now() - 31 * 86_400_000).toISOString();
  await shop.db.updateTable('jobs').set({ removed: long }).where('id', '=', made.id).execute();
  await reopen();
  expect(await listRemoved(shop.db)).toEqual([]);
  await expect(bringBack(shop.db, made.id)).rejects.toThrow(NotFound);
  expect(await shop.db.selectFrom('revisions').select('id').execute()).toEqual([]);
});

test('results of newest and named versions stay, and the last few; all together lie within the limit', async () => {
  const first = await createJob(shop.db, job);
  await nameVersion(shop.db, first.id, first.revision, 'as sold');
  await finished(first, 'named', 10, '2026-01-01');
  let last = first;
  for (let i = 0; i < 5; i++) {
    last = await saveJob(shop.db, first.id, last.revision, { ...job, name: `Try ${i}` });
    await finished(last, `try-${i}`, 10, `2026-02-0${i + 1}`);
  }
  for (let i = 0; i < 30; i++) mkdirSync(path.join(folder, 'plans', `variant-${i}`));
  await clearResults(shop.db, path.join(folder, 'plans'));
  const all = results();
  // Of the results that no plan asks for any more, try-0 and try-1 among them, the 24 newest stay.
  expect(all.filter((n) => !/^variant|^try-[01]$/.test(n))).toEqual(['named', 'try-2', 'try-3', 'try-4']);
  expect(all).toHaveLength(4 + 24);
  await clearResults(shop.db, path.join(folder, 'plans'), 25);
  expect(results().filter((n) => !n.startsWith('variant') && !/^try-[01]$/.test(n))).toEqual(['named', 'try-4']);
});

test('what a crash left half done is swept at the start, what still runs is not, and a result that was being replaced comes back', async () => {
  const left = '.2147483646.00000000-0000-4000-8000-000000000000.part';
  const runs = `.${process.pid}.00000000-0000-4000-8000-000000000000.part`;
  const input = 'c'.repeat(64);
  for (const [place, name] of [
    ['assets', `incoming${left}`],
    ['assets', `incoming${runs}`],
    ['cache', `abc${left}`],
    ['pictures', `abc${left}`],
  ])
    writeFileSync(path.join(folder, place, name), 'half');
  mkdirSync(path.join(folder, 'plans', `d${left}`));
  mkdirSync(path.join(folder, 'plans', `${input}${left}.old`));
  writeFileSync(path.join(folder, 'plans', `${input}${left}.old`, 'program-0.nc'), 'whole');
  await reopen();
  expect(readdirSync(path.join(folder, 'assets'))).toEqual([`incoming${runs}`]);
  expect(readdirSync(path.join(folder, 'cache'))).toEqual([]);
  expect(readdirSync(path.join(folder, 'pictures'))).toEqual([]);
  expect(results()).toEqual([input]);
  expect(existsSync(path.join(folder, 'plans', input, 'program-0.nc'))).toBe(true);
});

test('a stored stage with a changed byte counts as none', () => {
  const cache = new StageCache(path.join(folder, 'cache'));
  const key = 'e'.repeat(64);
  cache.put(key, { meta: { n: 1 }, arrays: { f: Float32Array.from([1, 2]) } });
  expect(cache.get(key)?.meta).toEqual({ n: 1 });
  const file = path.join(folder, 'cache', `${key}.bin`);
  const bytes = readFileSync(file);
  bytes[bytes.length - 1] ^= 1;
  writeFileSync(file, bytes);
  expect(cache.get(key)).toBeUndefined();
});

test('what was used longest ago is evicted first, folders with all that is in them, and no more than has to be', () => {
  const place = path.join(folder, 'evicted');
  mkdirSync(path.join(place, 'large'), { recursive: true });
  const put = (name: string, bytes: number, used: number) => {
    writeFileSync(path.join(place, name), Buffer.alloc(bytes));
    utimesSync(path.join(place, name.split('/')[0]), used, used);
  };
  put('old', 40, 1000);
  put('large/inside', 60, 2000);
  put('new', 30, 3000);
  const left = () => readdirSync(place).sort();
  expect(contentsOf(place).map((f) => [path.basename(f.path), f.bytes])).toEqual([
    ['new', 30],
    ['large', 60],
    ['old', 40],
  ]);
  keepWithin(contentsOf(place), 130);
  expect(left()).toEqual(['large', 'new', 'old']);
  keepWithin(contentsOf(place), 90);
  expect(left()).toEqual(['large', 'new']);
  keepWithin(contentsOf(place), 89);
  expect(left()).toEqual(['new']);
});

test('a full database says that the disk is full, loses nothing, and goes on when there is room', async () => {
  const made = await createJob(shop.db, job);
  await finished(made, 'a', 10, '2026-01-01');
  await shop.db.updateTable('plans').set({ status: 'running' }).execute();
  const pages = await sql<{ page_count: number }>`pragma page_count`.execute(shop.db);
  const limit = async (n: number) => {
    await sql`pragma max_page_count = ${sql.lit(n)}`.execute(shop.db);
  };
  await limit(pages.rows[0].page_count);
  const large = { ...job, order: 'x'.repeat(40), name: 'y'.repeat(80) };
  let refused: unknown = null;
  for (let i = 0; i < 200 && refused === null; i++)
    refused = await createJob(shop.db, large).then(
      () => null,
      (e) => e,
    );
  expect(isDiskFull(refused), String(refused)).toBe(true);
  expect((await getJob(shop.db, made.id)).document.name).toBe(job.name);
  // The end of a plan that cannot be written is told all the same, and written when there is room.
  const standings = new Standings(shop.db, folder);
  const row = () => shop.db.selectFrom('plans').select(['id', 'status', 'message']).executeTakeFirstOrThrow();
  await standings.end('a', { status: 'failed', message: 'z'.repeat(200_000) });
  expect(await standings.of(await row())).toMatchObject({ status: 'failed' });
  expect((await row()).status).toBe('running');
  await limit(1e6);
  await standings.of(await row());
  expect(await row()).toMatchObject({ status: 'failed' });
  await createJob(shop.db, large);
});

test('a full disk is known by its code, by its sentence, and through a cause', () => {
  expect(isDiskFull(Object.assign(new Error('write'), { code: 'ENOSPC' }))).toBe(true);
  expect(isDiskFull(new Error('ENOSPC: no space left on device, write'))).toBe(true);
  expect(isDiskFull(new Error('outer', { cause: Object.assign(new Error('x'), { code: 'SQLITE_FULL' }) }))).toBe(true);
  expect(isDiskFull(new Error('EACCES'))).toBe(false);
  expect(isDiskFull(null)).toBe(false);
  expect(diskFull('/shop')).toContain('/shop is full');
});
