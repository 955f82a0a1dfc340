import type { Kysely } from 'kysely';
import type { RemovedJob } from '../contract/jobs';
import type { Schema } from './database';
import { NotFound } from './errors';
import { REMOVED_DAYS } from './keeping';
import { labelsOf } from './rack';

const GONE = 'there is no such job; it may have been removed for good';

/** Takes a job off the rack; it can be brought back for a while. @throws NotFound */
export async function removeJob(db: Kysely<Schema>, id: string): Promise<void> {
  const done = await db
    .updateTable('jobs')
    .set({ removed: new Date().toISOString() })
    .where('id', '=', id)
    .where('removed', 'is', null)
    .executeTakeFirst();
  if (done.numUpdatedRows === 0n) throw new NotFound(GONE);
}

/** Puts a removed job back on the rack. @throws NotFound when it is there already, or gone for good */
export async function bringBack(db: Kysely<Schema>, id: string): Promise<void> {
  const done = await db
    .updateTable('jobs')
    .set({ removed: null })
    .where('id', '=', id)
    .where('removed', 'is not', null)
    .executeTakeFirst();
  if (done.numUpdatedRows === 0n) throw new NotFound(GONE);
}

/** Jobs that can be brought back, the one removed last first. */
export async function listRemoved(db: Kysely<Schema>): Promise<RemovedJob[]> {
  const rows = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select(['jobs.id', 'jobs.head', 'jobs.removed', 'revisions.document'])
    .where('jobs.removed', 'is not', null)
    .orderBy('jobs.removed', 'desc')
    .execute();
  return rows.map((r) => {
    const { name, order, board } = labelsOf(r.document);
    const removed = r.removed!;
    const until = new Date(Date.parse(removed) + REMOVED_DAYS * 86_400_000).toISOString();
    return { id: r.id, removed, until, name, order, board };
  });
}
