import path from 'node:path';
import type { Kysely } from 'kysely';
import type { Schema } from './database';
import { contentsOf, removeFile } from './files';

/** Days that a removed job can be brought back, with its results. */
export const REMOVED_DAYS = 30;

/** Newest plans of a job whose results are kept, besides those of its newest version and of named ones. */
const LAST_PLANS = 3;

/** Newest results of variants and others that no plan names. */
const LAST_OTHERS = 24;

/** Bytes of all results together, the most wanted first. A result that goes can be planned again. */
const RESULTS_LIMIT = 8 * 1024 ** 3;

const since = (days: number) => new Date(Date.now() - days * 86_400_000).toISOString();

/** Takes jobs off for good that were removed over REMOVED_DAYS ago, their versions and plans with them. */
export async function forgetRemoved(db: Kysely<Schema>): Promise<void> {
  await db.deleteFrom('jobs').where('removed', '<', since(REMOVED_DAYS)).execute();
}

/** Inputs of finished plans in the order in which their results are worth keeping. */
async function wantedResults(db: Kysely<Schema>): Promise<string[]> {
  const plans = await db
    .selectFrom('plans')
    .innerJoin('jobs', 'jobs.id', 'plans.job')
    .leftJoin('versions', 'versions.revision', 'plans.revision')
    .select(['plans.job', 'plans.input', 'plans.revision', 'jobs.head', 'versions.id as version'])
    .where('plans.status', '=', 'done')
    .orderBy('plans.created', 'desc')
    .execute();
  const first = plans.filter((p) => p.revision === p.head || p.version !== null);
  const count = new Map<string, number>();
  const last = plans.filter((p) => {
    const n = (count.get(p.job) ?? 0) + 1;
    count.set(p.job, n);
    return n <= LAST_PLANS;
  });
  return [...new Set([...first, ...last].map((p) => p.input))];
}

/**
 * Clears away results that nobody will ask for again: those of newest and named versions stay, and the last few of each job and of
 * variants, as long as all together lie within `limit` bytes.
 */
export async function clearResults(db: Kysely<Schema>, folder: string, limit = RESULTS_LIMIT): Promise<void> {
  const place = new Map((await wantedResults(db)).map((input, i) => [input, i]));
  const order = (f: { path: string }) => place.get(path.basename(f.path)) ?? Number.POSITIVE_INFINITY;
  const kept = contentsOf(folder);
  const named = kept.filter((f) => order(f) < Number.POSITIVE_INFINITY).sort((a, b) => order(a) - order(b));
  const others = kept.filter((f) => order(f) === Number.POSITIVE_INFINITY);
  let total = 0;
  for (const f of [...named, ...others.slice(0, LAST_OTHERS)]) {
    total += f.bytes;
    if (total > limit) removeFile(f.path);
  }
  for (const f of others.slice(LAST_OTHERS)) removeFile(f.path);
}
