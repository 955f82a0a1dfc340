import { mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, beforeEach, expect, test } from 'vitest';
import { jobSchema } from '../core/doc/job';
import { problems } from '../core/plan/problems';
import { createJob, getRaw } from './jobs';
import { OlderProof, wanted } from './older';
import { openShop, type Shop } from './shop';

const folder = mkdtempSync(path.join(tmpdir(), 'zg-results-'));
const fixture = (name: string) =>
  jobSchema.parse(JSON.parse(readFileSync(`src/core/doc/upgrade/fixtures/${name}.json`, 'utf8')));
let shop: Shop;
let id: string;
let plan: string;

beforeAll(async () => {
  shop = await openShop(folder);
  id = (await createJob(shop.db, fixture('v2-skimmed-face'))).id;
});

afterAll(async () => {
  await shop.plans.close();
  await shop.db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

/** Plans the job and waits for its proof. */
async function proven() {
  const started = await shop.plans.start(id);
  for (;;) {
    const s = await shop.plans.state(started.id);
    if (s.status !== 'queued' && s.status !== 'running') return s;
    await new Promise((r) => setTimeout(r, 50));
  }
}

beforeEach(async () => {
  const s = await proven();
  expect(s.status, s.message ?? '').toBe('done');
  plan = s.id;
});

/** The folder of the job's result, which is named by its document. */
async function result(): Promise<string> {
  const { input } = await shop.db.selectFrom('plans').select('input').where('id', '=', plan).executeTakeFirstOrThrow();
  return path.join(folder, 'plans', input);
}

/** Writes into the envelope of the stored result, as another version of the planner would have left it. */
async function asLeft(change: (envelope: { planner: string; programs: string[] }) => void): Promise<void> {
  const file = path.join(await result(), 'envelope.json');
  const envelope = JSON.parse(readFileSync(file, 'utf8'));
  change(envelope);
  writeFileSync(file, JSON.stringify(envelope));
}

test('a result of another planner is told as such, keeps its programs back, and comes out the same in its place', async () => {
  await asLeft((e) => {
    e.planner = 'another';
  });
  const older = await shop.plans.state(plan);
  expect(older).toMatchObject({ status: 'done', older: true, again: null });
  // Its figures can be looked at; its programs go out only to whoever says that he knows.
  expect(older.summary?.programs.length).toBeGreaterThan(0);
  expect(() => wanted(undefined, older)).toThrow(OlderProof);
  expect(wanted('yes', older)).toBe(older);
  const again = await proven();
  expect(again).toMatchObject({ id: plan, status: 'done', older: false, again: 'same' });
  expect(wanted(undefined, again)).toBe(again);
});

test('programs that come out otherwise than the older planner wrote them are told as changed', async () => {
  await asLeft((e) => {
    e.planner = 'another';
    e.programs[0] = '0'.repeat(64);
  });
  expect(await proven()).toMatchObject({ status: 'done', older: false, again: 'changed' });
});

for (const name of ['program-0.nc', 'summary.json', 'full-0.bin'])
  test(`a result whose ${name} was shortened is told, never handed out, and planned again`, async () => {
    const file = path.join(await result(), name);
    const whole = readFileSync(file);
    truncateSync(file, whole.length - 7);
    const lost = await shop.plans.state(plan);
    expect(lost.status).toBe('interrupted');
    expect(lost.message).toContain('cleared away or is damaged');
    expect(lost.summary).toBeNull();
    await expect(shop.plans.file(plan, name)).rejects.toThrow('damaged or missing');
    expect((await proven()).status).toBe('done');
    expect((await shop.plans.file(plan, name)).length).toBeGreaterThan(7);
  });

test('a program with one figure changed, its length kept, is not handed out', async () => {
  const file = path.join(await result(), 'program-0.nc');
  const text = readFileSync(file, 'utf8');
  const other = text.replace(/X(\d)/, (_, d) => `X${(Number(d) + 1) % 10}`);
  expect(other).not.toBe(text);
  writeFileSync(file, other);
  await expect(shop.plans.file(plan, 'program-0.nc')).rejects.toThrow('damaged or missing');
  expect((await shop.plans.state(plan)).status).toBe('interrupted');
});

test('a document that cannot be read stands on the rack beside the others, and goes out as it is stored', async () => {
  const broken = [
    ['{"version": 99, "name": "From tomorrow", "order": "7"}', 'From tomorrow'],
    ['{"version": 3, "name": "Half', 'A job that cannot be read'],
  ];
  const { document } = await shop.db.selectFrom('revisions').select('document').executeTakeFirstOrThrow();
  for (const [text, name] of broken) {
    const made = await createJob(shop.db, jobSchema.parse(JSON.parse(document)));
    await shop.db.updateTable('revisions').set({ document: text }).where('id', '=', made.revision).execute();
    const rows = await shop.rack.list();
    const row = rows.find((r) => r.id === made.id)!;
    expect(row.name).toBe(name);
    expect(row.unreadable).toBeTruthy();
    expect(rows.find((r) => r.id === id)).toMatchObject({ unreadable: null, problems: 0 });
    expect(await getRaw(shop.db, made.id)).toBe(text);
  }
});

test('a document with problems is stored and told on the rack; planning it is refused with the first of them', async () => {
  const doc = fixture('v2-skimmed-face');
  const { setups } = doc.boards[0];
  setups[0].passes[0].cutter = 'lent';
  setups[0].passes.push(structuredClone(setups[0].passes[0]));
  const made = await createJob(shop.db, doc);
  const found = problems(doc).filter((f) => f.stops);
  expect(found.length).toBeGreaterThan(1);
  expect((await shop.rack.list()).find((r) => r.id === made.id)?.problems).toBe(found.length);
  await expect(shop.plans.start(made.id)).rejects.toThrow(/; /);
});
