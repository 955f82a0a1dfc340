import path from 'node:path';
import { type ColumnType, type Driver, type Generated, Kysely, Migrator, SqliteDialect, sql } from 'kysely';
import Libsql from 'libsql';
import type { PlanStatus } from '../contract/plans';
import { DRAWER, MACHINES, MATERIALS } from '../core/doc/defaults';
import { SHELVES } from '../core/doc/library';
import { NewerShop } from './errors';
import { makeFolder } from './files';
import { migrations } from './migrations';

type Json = ColumnType<string, string, string>;

export interface Schema {
  assets: { hash: string; file: string; size: number; info: Json; created: string };
  /** `removed` is when a job was taken off the rack; it can be brought back for a while. */
  jobs: {
    id: string;
    head: string;
    created: string;
    updated: string;
    removed: Generated<string | null>;
    folder: Generated<string>;
    /** 1 for a job that is to be planned before anybody asks for it. */
    ahead: Generated<number>;
  };
  /** Immutable. `kept` marks a stale save that was refused: it is a child of its base, never the head. */
  revisions: { id: string; job: string; base: string | null; document: Json; kept: number; created: string };
  /** Named versions of a job: a name for one of its revisions. */
  versions: { id: string; job: string; revision: string; name: string; created: string };
  patterns: {
    id: string;
    name: string;
    tags: Json;
    /** Where it is from. */
    origin: string;
    size: string | null;
    rise: number | null;
    price: number | null;
    licence: Generated<string>;
    asset: string;
    created: string;
  };
  machines: { id: string; document: Json; position: Generated<number> };
  cutters: { id: string; document: Json; position: Generated<number> };
  materials: { id: string; document: Json; position: Generated<number> };
  recipes: { id: string; document: Json; position: Generated<number> };
  plans: {
    id: string;
    job: string;
    revision: string;
    /** Hash of the document planned: the same document is not planned twice. */
    input: string;
    status: PlanStatus;
    message: string | null;
    created: string;
    finished: string | null;
  };
}

/** The database's file in the folder of the data. */
export const DATABASE_FILE = 'zealous-grain.sqlite';

/** The folder of the person's data: ZG_DATA, or data/ beside the program. */
export function dataFolder(): string {
  return path.resolve(/* turbopackIgnore: true */ process.cwd(), process.env.ZG_DATA ?? 'data');
}

/** Gives a shop that has nothing at all what a new one holds; who takes all bits out of the drawer does not get them back. */
async function fillLibrary(db: Kysely<Schema>): Promise<void> {
  for (const shelf of SHELVES) if (await db.selectFrom(shelf).select('id').executeTakeFirst()) return;
  await db.transaction().execute(async (t) => {
    const row = (document: unknown, position: number) => ({ document: JSON.stringify(document), position });
    await t
      .insertInto('cutters')
      .values(DRAWER.map((c, i) => ({ id: c.id, ...row(c, i) })))
      .execute();
    await t
      .insertInto('machines')
      .values(MACHINES.map((m, i) => ({ id: m.id, ...row(m, i) })))
      .execute();
    await t
      .insertInto('materials')
      .values(MATERIALS.map((m, i) => ({ id: m.id, ...row(m, i) })))
      .execute();
  });
}

/** The dialect, save that a rollback that fails (the database has rolled back by itself, as on a full disk) never hides what it was for. */
class ShopDialect extends SqliteDialect {
  override createDriver(): Driver {
    const driver = super.createDriver();
    const rollback = driver.rollbackTransaction.bind(driver);
    driver.rollbackTransaction = (connection) => rollback(connection).catch(() => {});
    return driver;
  }
}

/** @throws NewerShop when the database was brought up to date by a newer version of this program */
async function refuseNewer(db: Kysely<Schema>): Promise<void> {
  const had = await sql<{ name: string }>`select name from sqlite_master where name = 'kysely_migration'`.execute(db);
  if (had.rows.length === 0) return;
  const done = await sql<{ name: string }>`select name from kysely_migration order by name`.execute(db);
  const unknown = done.rows.find((r) => !(r.name in migrations));
  if (unknown)
    throw new NewerShop(
      `these data are of a newer version of this program (they have "${unknown.name}", this one knows up to "${Object.keys(migrations).at(-1)}"); start that version, or restore a backup of this one`,
    );
}

/**
 * Opens the database in a folder, brings it up to date, and marks plans that a crash cut short. Every commit is on the
 * disk before it is acknowledged (WAL, synchronous FULL).
 * @param running whether another process may have the shop open: its plans are left alone
 * @throws NewerShop
 */
export async function openDatabase(folder: string, { running = false } = {}): Promise<Kysely<Schema>> {
  makeFolder(folder);
  const file = new Libsql(path.join(folder, DATABASE_FILE));
  file.exec('pragma journal_mode = wal');
  file.exec('pragma synchronous = full');
  file.exec('pragma foreign_keys = on');
  file.exec('pragma busy_timeout = 5000');
  const db = new Kysely<Schema>({ dialect: new ShopDialect({ database: file as never }) });
  await refuseNewer(db);
  const migrator = new Migrator({ db, provider: { getMigrations: async () => migrations } });
  const { error } = await migrator.migrateToLatest();
  if (error) throw error;
  await fillLibrary(db);
  if (!running)
    await db.updateTable('plans').set({ status: 'interrupted' }).where('status', 'in', ['queued', 'running']).execute();
  return db;
}
