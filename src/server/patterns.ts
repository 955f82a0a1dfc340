import { randomUUID } from 'node:crypto';
import type { Kysely } from 'kysely';
import type { Pattern } from '../contract/patterns';
import type { Schema } from './database';
import { NotFound } from './errors';
import { readInfo } from './jobs';

export type NewPattern = Omit<Pattern, 'id' | 'info'>;

/** Keeps a stored file as a pattern; one file is kept once, under the name given last. */
export async function putPattern(db: Kysely<Schema>, p: NewPattern): Promise<void> {
  const values = {
    name: p.name,
    tags: JSON.stringify(p.tags),
    origin: p.from,
    size: p.size ? JSON.stringify(p.size) : null,
    rise: p.rise,
    asset: p.hash,
    created: new Date().toISOString(),
  };
  await db.transaction().execute(async (t) => {
    const had = await t.selectFrom('patterns').select('id').where('asset', '=', p.hash).executeTakeFirst();
    if (had) await t.updateTable('patterns').set(values).where('id', '=', had.id).execute();
    else
      await t
        .insertInto('patterns')
        .values({ id: randomUUID(), ...values })
        .execute();
  });
}

export async function listPatterns(db: Kysely<Schema>): Promise<Pattern[]> {
  const rows = await db
    .selectFrom('patterns')
    .innerJoin('assets', 'assets.hash', 'patterns.asset')
    .select([
      'patterns.id',
      'patterns.name',
      'patterns.tags',
      'patterns.origin',
      'patterns.size',
      'patterns.rise',
      'assets.hash',
      'assets.file',
      'assets.info',
    ])
    .orderBy('patterns.name')
    .execute();
  return rows.map((r) => ({
    id: r.id,
    name: r.name,
    tags: JSON.parse(r.tags),
    from: r.origin,
    size: r.size ? JSON.parse(r.size) : null,
    rise: r.rise,
    file: r.file,
    hash: r.hash,
    info: readInfo(r.info),
  }));
}

/** Changes what is said of a pattern. @throws NotFound */
export async function describePattern(
  db: Kysely<Schema>,
  id: string,
  p: { name: string; tags: string[]; from: string },
): Promise<void> {
  const done = await db
    .updateTable('patterns')
    .set({ name: p.name, tags: JSON.stringify(p.tags), origin: p.from })
    .where('id', '=', id)
    .executeTakeFirst();
  if (done.numUpdatedRows === 0n) throw new NotFound('there is no such pattern; it may have been removed');
}

/** Takes a pattern out of the drawer; its file stays for the jobs that use it. @throws NotFound */
export async function removePattern(db: Kysely<Schema>, id: string): Promise<void> {
  const done = await db.deleteFrom('patterns').where('id', '=', id).executeTakeFirst();
  if (done.numDeletedRows === 0n) throw new NotFound('there is no such pattern; it may have been removed');
}
