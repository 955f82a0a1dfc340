import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Kysely, Migrator, SqliteDialect } from 'kysely';
import Libsql from 'libsql';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { DRAWER, MACHINES, materialNamed } from '../core/doc/defaults';
import { openDatabase } from './database';
import { NewerShop } from './errors';
import { getJob, listVersions } from './jobs';
import { getLibrary } from './library';
import { migrations } from './migrations';

let folder: string;
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'zg-migrations-'));
});
afterEach(() => rmSync(folder, { recursive: true, force: true }));

// biome-ignore lint/suspicious/noExplicitAny: tables of versions that no longer exist
type Old = Kysely<any>;

const openPlain = (): Old =>
  new Kysely({
    dialect: new SqliteDialect({ database: new Libsql(path.join(folder, 'zealous-grain.sqlite')) as never }),
  });

const fixture = (name: string) => readFileSync(`src/core/doc/upgrade/fixtures/${name}.json`, 'utf8');

/** A shop as the program of a version left it: a job with the document of its time, bits, a machine, a material, a plan. */
async function shopOf(step: string): Promise<void> {
  const db = openPlain();
  const { error } = await new Migrator({ db, provider: { getMigrations: async () => migrations } }).migrateTo(step);
  if (error) throw error;
  const v3 = step >= '003';
  const document = fixture(step < '002' ? 'v1-mesh' : 'v2-skimmed-face');
  const { machine, cutters, board } = JSON.parse(fixture('v2-skimmed-face'));
  const created = '2026-01-01T00:00:00.000Z';
  await db.insertInto('jobs').values({ id: 'j', head: 'r', created, updated: created }).execute();
  await db.insertInto('revisions').values({ id: 'r', job: 'j', base: null, document, kept: 0, created }).execute();
  const plan = { id: 'p', job: 'j', revision: 'r', input: 'i', status: 'running', message: null };
  await db
    .insertInto('plans')
    .values({ ...plan, created, finished: null })
    .execute();
  if (step >= '002')
    await db.insertInto('versions').values({ id: 'v', job: 'j', revision: 'r', name: 'First', created }).execute();
  if (v3) {
    const row = (t: { id: string }) => ({ id: t.id, document: JSON.stringify(t) });
    await db.insertInto('cutters').values(DRAWER.map(row)).execute();
    await db.insertInto('machines').values(MACHINES.map(row)).execute();
    // Two names of one id, and a name that is another's id: what earlier steps could leave.
    const key = step < '005' ? 'name' : 'id';
    for (const name of step < '005' ? ['maple', 'Maple', 'oak'] : ['oak'])
      await db
        .insertInto('materials')
        .values({ [key]: name, document: JSON.stringify(materialNamed(name)) })
        .execute();
    return db.destroy();
  }
  for (const c of cutters)
    await db
      .insertInto('cutters')
      .values({ id: c.id, document: JSON.stringify(c) })
      .execute();
  await db
    .insertInto('machines')
    .values({ id: machine.id, document: JSON.stringify(machine) })
    .execute();
  await db
    .insertInto('materials')
    .values({ name: board.material, document: JSON.stringify({ name: board.material }) })
    .execute();
  await db.destroy();
}

test.each(Object.keys(migrations))('a shop of version %s opens, with its jobs, bits and machines', async (step) => {
  await shopOf(step);
  const db = await openDatabase(folder);
  const job = await getJob(db, 'j');
  expect(job.document.boards.length).toBe(1);
  const library = await getLibrary(db);
  expect(library.cutters.length).toBeGreaterThan(0);
  expect(library.machines.length).toBeGreaterThan(0);
  expect(library.materials.length).toBeGreaterThan(0);
  expect(new Set(library.materials.map((m) => m.id)).size).toBe(library.materials.length);
  if (step >= '003' && step < '005')
    expect(library.materials.map((m) => m.name).sort()).toEqual(['Maple', 'maple', 'oak']);
  expect(await listVersions(db, 'j')).toHaveLength(step >= '002' ? 1 : 0);
  const plan = await db.selectFrom('plans').select('status').executeTakeFirstOrThrow();
  expect(plan.status).toBe('interrupted');
  await db.destroy();
});

test('a shop of a newer version is refused by its name, and left as it is', async () => {
  await (await openDatabase(folder)).destroy();
  const raw = openPlain();
  await raw.insertInto('kysely_migration').values({ name: '099-later', timestamp: '2027-01-01' }).execute();
  await raw.destroy();
  await expect(openDatabase(folder)).rejects.toThrow(NewerShop);
  await expect(openDatabase(folder)).rejects.toThrow('"099-later"');
});

test('the database waits for the disk at every commit, and holds its references', async () => {
  const db = await openDatabase(folder);
  const ask = async (pragma: string) => {
    const { rows } = await db.executeQuery<Record<string, unknown>>({
      sql: `pragma ${pragma}`,
      parameters: [],
      query: { kind: 'RawNode', sqlFragments: [`pragma ${pragma}`], parameters: [] },
      queryId: { queryId: pragma },
    } as never);
    return Object.values(rows[0])[0];
  };
  expect(await ask('journal_mode')).toBe('wal');
  expect(await ask('synchronous')).toBe(2);
  expect(await ask('foreign_keys')).toBe(1);
  await db.destroy();
});
