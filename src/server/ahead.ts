import type { Kysely } from 'kysely';
import type { Schema } from './database';

/** The jobs that are to be planned before anybody asks for them, in the order of the rack. */
export async function toPlanAhead(db: Kysely<Schema>): Promise<string[]> {
  const rows = await db
    .selectFrom('jobs')
    .select('id')
    .where('ahead', '=', 1)
    .where('removed', 'is', null)
    .orderBy('updated', 'desc')
    .execute();
  return rows.map((r) => r.id);
}

/** A job that was planned, or that somebody stopped, is not planned ahead any more. */
export async function planned(db: Kysely<Schema>, job: string): Promise<void> {
  await db.updateTable('jobs').set({ ahead: 0 }).where('id', '=', job).where('ahead', '=', 1).execute();
}
