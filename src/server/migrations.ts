import type { Kysely, Migration } from 'kysely';
import { cutterToV3, machineToV3, materialToV3 } from '../core/doc/upgrade/v2-to-v3';
import { machineToV9 } from '../core/doc/upgrade/v8-to-v9';

/** The tables of the third step as they stood then: a step never changes, whatever becomes of today's tables. */
interface ThirdStep {
  machines: { id: string; document: string };
  cutters: { id: string; document: string };
  materials: { name: string; document: string };
}

/** What brings a shop's database from each version to the next, by name in their order. */
export const migrations: Record<string, Migration> = {
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
    async up(db: Kysely<ThirdStep>) {
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
  '004-removed': {
    /** Removed jobs can be brought back for a while. */
    async up(db: Kysely<unknown>) {
      await db.schema.alterTable('jobs').addColumn('removed', 'text').execute();
    },
  },
  '005-materials-by-id': {
    /** Materials are told apart by their ids, as bits and machines are, so that one can be renamed. */
    async up(db: Kysely<{ materials: { id: string; document: string } }>) {
      await db.schema.alterTable('materials').renameColumn('name', 'id').execute();
      const rows = await db.selectFrom('materials').select(['id', 'document']).execute();
      const taken = new Set<string>();
      for (const { id: name, document } of rows) {
        const material = JSON.parse(document);
        let id = String(material.id);
        for (let n = 2; taken.has(id); n++) id = `${material.id}-${n}`;
        taken.add(id);
        // Names may be ids of others: no row may get an id while another still has it as its name.
        await db
          .updateTable('materials')
          .set({ id: `new ${id}`, document: JSON.stringify({ ...material, id }) })
          .where('id', '=', name)
          .execute();
      }
      for (const id of taken) await db.updateTable('materials').set({ id }).where('id', '=', `new ${id}`).execute();
    },
  },
  '006-recipes-and-folders': {
    /** Ways of working that are used again; what patterns cost, and what their makers allow; folders of jobs. */
    async up(db: Kysely<unknown>) {
      await db.schema
        .createTable('recipes')
        .addColumn('id', 'text', (c) => c.primaryKey())
        .addColumn('document', 'text', (c) => c.notNull())
        .addColumn('position', 'integer', (c) => c.notNull().defaultTo(0))
        .execute();
      await db.schema.alterTable('patterns').addColumn('price', 'real').execute();
      await db.schema
        .alterTable('patterns')
        .addColumn('licence', 'text', (c) => c.notNull().defaultTo(''))
        .execute();
      await db.schema
        .alterTable('jobs')
        .addColumn('folder', 'text', (c) => c.notNull().defaultTo(''))
        .execute();
    },
  },
  '007-rotary-axes': {
    /** Machines say how their rotary axis is driven since version 9 of the job document. */
    async up(db: Kysely<Pick<ThirdStep, 'machines'>>) {
      for (const { id, document } of await db.selectFrom('machines').select(['id', 'document']).execute())
        await db
          .updateTable('machines')
          .set({ document: JSON.stringify(machineToV9(JSON.parse(document))) })
          .where('id', '=', id)
          .execute();
    },
  },
  '008-plan-ahead': {
    /** Jobs that are planned before anybody asks for them, as those of the sample shop. */
    async up(db: Kysely<unknown>) {
      await db.schema
        .alterTable('jobs')
        .addColumn('ahead', 'integer', (c) => c.notNull().defaultTo(0))
        .execute();
    },
  },
};
