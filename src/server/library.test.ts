import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Kysely } from 'kysely';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { demoJobOf } from '../../demo/shop';
import { DRAWER, MACHINES, MATERIALS } from '../core/doc/defaults';
import { first, inverseOf, putting, removing } from '../core/doc/library';
import { openDatabase, type Schema } from './database';
import { createJob } from './jobs';
import { changeLibrary, getLibrary, usesOf } from './library';
import { removeJob } from './removed';

let folder: string;
let db: Kysely<Schema>;
beforeEach(async () => {
  folder = mkdtempSync(path.join(tmpdir(), 'zg-library-'));
  db = await openDatabase(folder);
});
afterEach(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

test('a new shop holds the example machines, bits and materials, and what is changed stays in its place', async () => {
  const before = await getLibrary(db);
  expect(before).toEqual({ machines: MACHINES, cutters: DRAWER, materials: MATERIALS, recipes: [] });
  await changeLibrary(db, putting('cutters', { ...DRAWER[2], feed: 999 }));
  const { cutters } = await getLibrary(db);
  expect(cutters.map((c) => c.id)).toEqual(DRAWER.map((c) => c.id));
  expect(cutters[2].feed).toBe(999);
  await changeLibrary(db, putting('materials', { ...MATERIALS[0], name: 'another name' }));
  expect((await getLibrary(db)).materials[0].name).toBe('another name');
});

test('a removed bit comes back by the inverse of its removal, and a shop that is opened again has it', async () => {
  const before = await getLibrary(db);
  const gone = removing('cutters', DRAWER[1].id, DRAWER[3].id);
  await changeLibrary(db, gone);
  expect((await getLibrary(db)).cutters).toHaveLength(DRAWER.length - 2);
  await changeLibrary(db, inverseOf(before, gone));
  await db.destroy();
  db = await openDatabase(folder);
  expect(await getLibrary(db)).toEqual(before);
  await changeLibrary(db, first('machines', MACHINES[2].id));
  const names = (await getLibrary(db)).machines.map((m) => m.id);
  expect(names).toEqual([2, 0, 1, 3].map((i) => MACHINES[i].id));
});

test('who takes everything out of the drawer does not find it filled again', async () => {
  await changeLibrary(db, removing('cutters', ...DRAWER.map((c) => c.id)));
  await db.destroy();
  db = await openDatabase(folder);
  expect((await getLibrary(db)).cutters).toEqual([]);
  expect((await getLibrary(db)).machines).toHaveLength(MACHINES.length);
});

test('which jobs have a copy of something is told, of those on the rack', async () => {
  const { job } = await demoJobOf('OE-104');
  const { id } = await createJob(db, job);
  const uses = await usesOf(db);
  expect(uses.machines[job.machine.id]).toEqual([{ id, name: job.name }]);
  for (const c of job.cutters) expect(uses.cutters[c.id]).toEqual([{ id, name: job.name }]);
  expect(uses.materials[job.boards[0].material.id]).toHaveLength(1);
  await removeJob(db, id);
  expect(await usesOf(db)).toEqual({ machines: {}, cutters: {}, materials: {} });
});
