import type { Kysely } from 'kysely';
import type { Uses } from '../contract/shop';
import { jobSchema } from '../core/doc/job';
import { COPIED, type Copied, type Library, type LibraryChange, librarySchema, SHELVES } from '../core/doc/library';
import type { Schema } from './database';

/** What the shop has, each shelf in its order. */
export async function getLibrary(db: Kysely<Schema>): Promise<Library> {
  const read = async (shelf: (typeof SHELVES)[number]) =>
    (await db.selectFrom(shelf).select('document').orderBy('position').execute()).map((r) => JSON.parse(r.document));
  const [machines, cutters, materials, recipes] = await Promise.all(SHELVES.map(read));
  return librarySchema.parse({ machines, cutters, materials, recipes });
}

/** Puts things in, each in the place of the one of its id or behind all others, takes things away, and puts them in order: all of it or nothing. */
export async function changeLibrary(db: Kysely<Schema>, { put, remove, order }: LibraryChange): Promise<void> {
  await db.transaction().execute(async (t) => {
    for (const shelf of SHELVES) {
      for (const id of remove[shelf]) await t.deleteFrom(shelf).where('id', '=', id).execute();
      const { last } = await t
        .selectFrom(shelf)
        .select((e) => e.fn.max('position').as('last'))
        .executeTakeFirstOrThrow();
      let position = (last ?? -1) + 1;
      for (const thing of put[shelf]) {
        const document = JSON.stringify(thing);
        await t
          .insertInto(shelf)
          .values({ id: thing.id, document, position: position++ })
          .onConflict((c) => c.column('id').doUpdateSet({ document }))
          .execute();
      }
      if (order[shelf].length === 0) continue;
      const all = await t.selectFrom(shelf).select('id').orderBy('position').execute();
      const named = new Set(order[shelf]);
      const rest = all.filter((r) => !named.has(r.id)).map((r) => r.id);
      for (const [position, id] of [...named, ...rest].entries())
        await t.updateTable(shelf).set({ position }).where('id', '=', id).execute();
    }
  });
}

/** The ids of what a stored document has copies of, whatever its version; of one that cannot be read nothing is known. */
function copiesIn(text: string): ({ name: string } & Record<Copied, string[]>) | null {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return null;
  }
  const read = jobSchema.safeParse(raw);
  if (!read.success) return null;
  const { name, machine, cutters, boards } = read.data;
  return {
    name,
    machines: [machine.id],
    cutters: cutters.map((c) => c.id),
    materials: boards.map((b) => b.material.id),
  };
}

/** Which jobs on the rack have copies of what the shop has. */
export async function usesOf(db: Kysely<Schema>): Promise<Uses> {
  const rows = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select(['jobs.id', 'revisions.document'])
    .where('jobs.removed', 'is', null)
    .orderBy('jobs.updated', 'desc')
    .execute();
  const uses: Uses = { machines: {}, cutters: {}, materials: {} };
  for (const { id, document } of rows) {
    const copies = copiesIn(document);
    if (!copies) continue;
    for (const shelf of COPIED)
      for (const thing of new Set(copies[shelf])) {
        uses[shelf][thing] ??= [];
        uses[shelf][thing].push({ id, name: copies.name });
      }
  }
  return uses;
}
