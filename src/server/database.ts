import { mkdirSync } from 'node:fs';
import path from 'node:path';
import { type ColumnType, type Generated, Kysely, type Migration, Migrator, SqliteDialect } from 'kysely';
import Libsql from 'libsql';
import { DRAWER, HOBBY_MACHINE, MATERIALS, SHOP_MACHINE } from '../core/doc/defaults';
import { cutterToV3, machineToV3, materialToV3 } from '../core/doc/upgrade/v2-to-v3';

type Json = ColumnType<string, string, string>;

export type PlanStatus = 'queued' | 'running' | 'done' | 'failed' | 'cancelled' | 'interrupted';

export interface Schema {
  assets: { hash: string; file: string; size: number; info: Json; created: string };
  jobs: { id: string; head: string; created: string; updated: string };
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
    asset: string;
    created: string;
  };
  machines: { id: string; document: Json; position: Generated<number> };
  cutters: { id: string; document: Json; position: Generated<number> };
  materials: { name: string; document: Json; position: Generated<number> };
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

const migrations: Record<string, Migration> = {
  '001-first': {
    async up(db: Kysely<unknown>) {
      const text = 'text' as const;
      await db.schema
        .createTable('assets')
        .addColumn('hash', text, (c) => c.primaryKey())
        .addColumn('file', text, (c) => c.notNull())
        .addColumn('size', 'integer', (c) => c.notNull())
        .addColumn('info', text, (c) => c.notNull())
        .addColumn('created', text, (c) => c.notNull())
        .execute();
      await db.schema
        .createTable('jobs')
        .addColumn('id', text, (c) => c.primaryKey())
        .addColumn('head', text, (c) => c.notNull())
        .addColumn('created', text, (c) => c.notNull())
        .addColumn('updated', text, (c) => c.notNull())
        .execute();
      await db.schema
        .createTable('revisions')
        .addColumn('id', text, (c) => c.primaryKey())
        .addColumn('job', text, (c) => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('base', text)
        .addColumn('document', text, (c) => c.notNull())
        .addColumn('kept', 'integer', (c) => c.notNull())
        .addColumn('created', text, (c) => c.notNull())
        .execute();
      await db.schema.createIndex('revisions_by_job').on('revisions').columns(['job', 'created']).execute();
      for (const [table, key] of [
        ['machines', 'id'],
        ['cutters', 'id'],
        ['materials', 'name'],
      ]) {
        await db.schema
          .createTable(table)
          .addColumn(key, text, (c) => c.primaryKey())
          .addColumn('document', text, (c) => c.notNull())
          .addColumn('position', 'integer', (c) => c.notNull().defaultTo(0))
          .execute();
      }
      await db.schema
        .createTable('plans')
        .addColumn('id', text, (c) => c.primaryKey())
        .addColumn('job', text, (c) => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('revision', text, (c) => c.notNull())
        .addColumn('input', text, (c) => c.notNull())
        .addColumn('status', text, (c) => c.notNull())
        .addColumn('message', text)
        .addColumn('created', text, (c) => c.notNull())
        .addColumn('finished', text)
        .execute();
      await db.schema.createIndex('plans_by_input').on('plans').columns(['input', 'status']).execute();
    },
  },
  '002-arrange': {
    async up(db: Kysely<unknown>) {
      const text = 'text' as const;
      await db.schema
        .createTable('versions')
        .addColumn('id', text, (c) => c.primaryKey())
        .addColumn('job', text, (c) => c.notNull().references('jobs.id').onDelete('cascade'))
        .addColumn('revision', text, (c) => c.notNull().references('revisions.id').onDelete('cascade'))
        .addColumn('name', text, (c) => c.notNull())
        .addColumn('created', text, (c) => c.notNull())
        .execute();
      await db.schema.createIndex('versions_by_job').on('versions').columns(['job', 'created']).execute();
      await db.schema
        .createTable('patterns')
        .addColumn('id', text, (c) => c.primaryKey())
        .addColumn('name', text, (c) => c.notNull())
        .addColumn('tags', text, (c) => c.notNull())
        .addColumn('origin', text, (c) => c.notNull())
        .addColumn('size', text)
        .addColumn('rise', 'real')
        .addColumn('asset', text, (c) => c.notNull().references('assets.hash'))
        .addColumn('created', text, (c) => c.notNull())
        .execute();
      await db.schema.createIndex('patterns_by_asset').on('patterns').columns(['asset']).execute();
    },
  },
  '003-setups': {
    /** Bits, machines and materials hold more since version 3 of the job document. */
    async up(db: Kysely<Schema>) {
      for (const [table, step] of [
        ['machines', machineToV3],
        ['cutters', cutterToV3],
      ] as const)
        for (const { id, document } of await db.selectFrom(table).select(['id', 'document']).execute())
          await db
            .updateTable(table)
            .set({ document: JSON.stringify(step(JSON.parse(document))) })
            .where('id', '=', id)
            .execute();
      for (const { name, document } of await db.selectFrom('materials').select(['name', 'document']).execute())
        await db
          .updateTable('materials')
          .set({ document: JSON.stringify({ ...(materialToV3(name) as object), ...JSON.parse(document) }) })
          .where('name', '=', name)
          .execute();
    },
  },
};

/** The folder of the person's data: ZG_DATA, or data/ beside the program. */
export function dataFolder(): string {
  return path.resolve(/* turbopackIgnore: true */ process.cwd(), process.env.ZG_DATA ?? 'data');
}

async function fillLibrary(db: Kysely<Schema>): Promise<void> {
  const had = await db.selectFrom('cutters').select('id').executeTakeFirst();
  if (had) return;
  await db.transaction().execute(async (t) => {
    const row = (document: unknown, position: number) => ({ document: JSON.stringify(document), position });
    await t
      .insertInto('cutters')
      .values(DRAWER.map((c, i) => ({ id: c.id, ...row(c, i) })))
      .execute();
    await t
      .insertInto('machines')
      .values([HOBBY_MACHINE, SHOP_MACHINE].map((m, i) => ({ id: m.id, ...row(m, i) })))
      .execute();
    await t
      .insertInto('materials')
      .values(MATERIALS.map((m, i) => ({ name: m.name, ...row(m, i) })))
      .execute();
  });
}

/**
 * Opens the database in a folder, brings it up to date, and marks plans that a crash cut short. Every commit is on the
 * disk before it is acknowledged (WAL, synchronous FULL).
 */
export async function openDatabase(folder: string): Promise<Kysely<Schema>> {
  mkdirSync(folder, { recursive: true });
  const file = new Libsql(path.join(folder, 'zealous-grain.sqlite'));
  file.exec('pragma journal_mode = wal');
  file.exec('pragma synchronous = full');
  file.exec('pragma foreign_keys = on');
  file.exec('pragma busy_timeout = 5000');
  const db = new Kysely<Schema>({ dialect: new SqliteDialect({ database: file as never }) });
  const migrator = new Migrator({ db, provider: { getMigrations: async () => migrations } });
  const { error } = await migrator.migrateToLatest();
  if (error) throw error;
  await fillLibrary(db);
  await db.updateTable('plans').set({ status: 'interrupted' }).where('status', 'in', ['queued', 'running']).execute();
  return db;
}
