import { randomUUID } from 'node:crypto';
import type { Kysely } from 'kysely';
import type { Pattern } from '../contract/patterns';
import type { Schema } from './database';
import { BadRequest, NotFound } from './errors';
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
    price: p.price,
    licence: p.licence,
    created: new Date().toISOString(),
  };
  await db.transaction().execute(async (t) => {
    const had = await t
      .selectFrom('patterns')
      .select(['id', 'price', 'licence'])
      .where('asset', '=', p.hash)
      .executeTakeFirst();
    // What was noted of it is not lost when the same file comes again with nothing said of it.
    const noted = had && { price: p.price ?? had.price, licence: p.licence || had.licence };
    if (had)
      await t
        .updateTable('patterns')
        .set({ ...values, ...noted })
        .where('id', '=', had.id)
        .execute();
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
      'patterns.price',
      'patterns.licence',
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
    price: r.price,
    licence: r.licence,
    file: r.file,
    hash: r.hash,
    info: readInfo(r.info),
  }));
}

/** Changes what is said of a pattern. @throws NotFound */
export async function describePattern(
  db: Kysely<Schema>,
  id: string,
  p: Pick<Pattern, 'name' | 'tags' | 'from' | 'price' | 'licence'>,
): Promise<void> {
  const done = await db
    .updateTable('patterns')
    .set({ name: p.name, tags: JSON.stringify(p.tags), origin: p.from, price: p.price, licence: p.licence })
    .where('id', '=', id)
    .executeTakeFirst();
  if (done.numUpdatedRows === 0n) throw new NotFound('there is no such pattern; it may have been removed');
}

/** Puts another version of a pattern's file in its place. @throws NotFound; Refused where that file is in the drawer as another pattern */
export async function replacePattern(
  db: Kysely<Schema>,
  id: string,
  { hash, size, rise }: Pick<Pattern, 'hash' | 'size' | 'rise'>,
): Promise<void> {
  await db.transaction().execute(async (t) => {
    const other = await t.selectFrom('patterns').select(['id', 'name']).where('asset', '=', hash).executeTakeFirst();
    if (other && other.id !== id)
      throw new BadRequest(`this file is in the drawer already, as ${other.name}; take that one instead`);
    const asset = await t.selectFrom('assets').select('hash').where('hash', '=', hash).executeTakeFirst();
    if (!asset) throw new NotFound('that file is not stored here; choose it again');
    const done = await t
      .updateTable('patterns')
      .set({ asset: hash, size: size ? JSON.stringify(size) : null, rise })
      .where('id', '=', id)
      .executeTakeFirst();
    if (done.numUpdatedRows === 0n) throw new NotFound('there is no such pattern; it may have been removed');
  });
}

/** Takes a pattern out of the drawer; its file stays for the jobs that use it. @throws NotFound */
export async function removePattern(db: Kysely<Schema>, id: string): Promise<void> {
  const done = await db.deleteFrom('patterns').where('id', '=', id).executeTakeFirst();
  if (done.numDeletedRows === 0n) throw new NotFound('there is no such pattern; it may have been removed');
}
