import { randomUUID } from 'node:crypto';
import type { Kysely } from 'kysely';
import type { History, JobInfo, Version } from '../contract/jobs';
import { sourceInfo } from '../contract/wire';
import { type Job, jobSchema } from '../core/doc/job';
import { describeIssues } from '../core/doc/refusal';
import type { SourceInfo } from '../core/sources/inspect';
import type { Schema } from './database';
import { NotFound, StaleSave, Unreadable } from './errors';

const REMOVED = 'there is no such job on the rack; when it was removed lately, the shop page brings it back';

const now = () => new Date().toISOString();

/** A stored document as it is read today. @throws Unreadable with the reason */
function parse(text: string): Job {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new Unreadable('the stored document is not JSON');
  }
  const parsed = jobSchema.safeParse(raw);
  if (!parsed.success) throw new Unreadable(`the stored document cannot be read: ${describeIssues(parsed.error, raw)}`);
  return parsed.data;
}

/** @param ahead whether it is to be planned before anybody asks for it */
export async function createJob(db: Kysely<Schema>, document: Job, { ahead = false } = {}): Promise<JobInfo> {
  const id = randomUUID();
  const revision = randomUUID();
  const created = now();
  await db.transaction().execute(async (t) => {
    await t
      .insertInto('jobs')
      .values({ id, head: revision, created, updated: created, ahead: ahead ? 1 : 0 })
      .execute();
    await t
      .insertInto('revisions')
      .values({ id: revision, job: id, base: null, document: JSON.stringify(document), kept: 0, created })
      .execute();
  });
  return { id, revision, document, updated: created, kept: [] };
}

export async function getJob(db: Kysely<Schema>, id: string): Promise<JobInfo> {
  const row = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select(['jobs.id', 'jobs.head', 'jobs.updated', 'revisions.document'])
    .where('jobs.id', '=', id)
    .where('jobs.removed', 'is', null)
    .executeTakeFirst();
  if (!row) throw new NotFound(REMOVED);
  const kept = await db
    .selectFrom('revisions')
    .select(['id', 'created'])
    .where('job', '=', id)
    .where('kept', '=', 1)
    .orderBy('created', 'desc')
    .execute();
  return { id: row.id, revision: row.head, document: parse(row.document), updated: row.updated, kept };
}

export async function getRevision(db: Kysely<Schema>, job: string, id: string): Promise<Job> {
  const row = await db
    .selectFrom('revisions')
    .select('document')
    .where('id', '=', id)
    .where('job', '=', job)
    .executeTakeFirst();
  if (!row) throw new NotFound('there is no such version of the job');
  return parse(row.document);
}

/**
 * Saves a new version on top of `base`. When another save came first, this one is kept aside and refused.
 * @throws StaleSave with both versions' ids
 */
export async function saveJob(db: Kysely<Schema>, id: string, base: string, document: Job): Promise<JobInfo> {
  const revision = randomUUID();
  const created = now();
  const head = await db.transaction().execute(async (t) => {
    const job = await t.selectFrom('jobs').select(['head', 'removed']).where('id', '=', id).executeTakeFirst();
    if (!job || job.removed !== null) throw new NotFound(REMOVED);
    const stale = job.head !== base;
    await t
      .insertInto('revisions')
      .values({ id: revision, job: id, base, document: JSON.stringify(document), kept: stale ? 1 : 0, created })
      .execute();
    if (stale) return job.head;
    await t.updateTable('jobs').set({ head: revision, updated: created }).where('id', '=', id).execute();
    return revision;
  });
  if (head !== revision) throw new StaleSave(head, revision);
  return getJob(db, id);
}

/** Most versions that undo reaches back to, and redo forward, after a page is opened anew. */
const CHAIN = 200;

/** The line of versions that a job stands on: its ancestors, and the newest children of its head. */
export async function getHistory(db: Kysely<Schema>, job: string): Promise<History> {
  const { revision: head } = await getJob(db, job);
  const rows = await db
    .selectFrom('revisions')
    .select(['id', 'base', 'created'])
    .where('job', '=', job)
    .where('kept', '=', 0)
    .orderBy('created')
    .orderBy('rowid' as never)
    .execute();
  const baseOf = new Map(rows.map((r) => [r.id, r.base]));
  // The last child made of a version is the one that redo goes to.
  const next = new Map(rows.filter((r) => r.base !== null).map((r) => [r.base as string, r.id]));
  const ids: string[] = [];
  for (let id: string | null | undefined = head; id && ids.length < CHAIN; id = baseOf.get(id)) ids.unshift(id);
  const at = ids.length - 1;
  for (let id = next.get(head); id && ids.length < at + 1 + CHAIN; id = next.get(id)) ids.push(id);
  const documents = await db.selectFrom('revisions').select(['id', 'document']).where('id', 'in', ids).execute();
  const text = new Map(documents.map((d) => [d.id, d.document]));
  // Versions that cannot be read are passed over: undo goes from one that can to the next.
  const chain: History['chain'] = [];
  let place = 0;
  ids.forEach((id, i) => {
    try {
      chain.push({ id, document: parse(text.get(id)!) });
      if (i === at) place = chain.length - 1;
    } catch (e) {
      if (!(e instanceof Unreadable)) throw e;
    }
  });
  return { chain, at: place };
}

/**
 * Undo and redo: puts another version of the job in force, when `from` still is.
 * @throws StaleSave when another page has changed the job since; NotFound
 */
export async function moveHead(db: Kysely<Schema>, job: string, from: string, to: string): Promise<JobInfo> {
  await getRevision(db, job, to);
  const done = await db
    .updateTable('jobs')
    .set({ head: to, updated: now() })
    .where('id', '=', job)
    .where('head', '=', from)
    .executeTakeFirst();
  if (done.numUpdatedRows === 0n) {
    const { revision } = await getJob(db, job);
    if (revision !== to) throw new StaleSave(revision, to);
  }
  return getJob(db, job);
}

export async function listVersions(db: Kysely<Schema>, job: string): Promise<Version[]> {
  return db
    .selectFrom('versions')
    .select(['id', 'name', 'revision', 'created'])
    .where('job', '=', job)
    .orderBy('created')
    .execute();
}

/** Gives a revision of a job a name; the same name again is moved to the new revision. */
export async function nameVersion(db: Kysely<Schema>, job: string, revision: string, name: string): Promise<Version[]> {
  await getRevision(db, job, revision);
  await db.transaction().execute(async (t) => {
    await t.deleteFrom('versions').where('job', '=', job).where('name', '=', name).execute();
    await t.insertInto('versions').values({ id: randomUUID(), job, revision, name, created: now() }).execute();
  });
  return listVersions(db, job);
}

/** @throws NotFound */
export async function removeVersion(db: Kysely<Schema>, job: string, id: string): Promise<Version[]> {
  const done = await db.deleteFrom('versions').where('job', '=', job).where('id', '=', id).executeTakeFirst();
  if (done.numDeletedRows === 0n) throw new NotFound('there is no such named version; it may have been removed');
  return listVersions(db, job);
}

/** The choice after a stale save: kept versions are settled, and stay in the history. @throws NotFound */
export async function settleKept(db: Kysely<Schema>, id: string): Promise<void> {
  await getJob(db, id);
  await db.updateTable('revisions').set({ kept: 2 }).where('job', '=', id).where('kept', '=', 1).execute();
}

/** Longest name of a job. */
const LONGEST = 80;

/** Makes another job of a job's newest version, under a name that says so. @throws NotFound, Unreadable */
export async function copyJob(db: Kysely<Schema>, id: string): Promise<JobInfo> {
  const { document } = await getJob(db, id);
  const copy = ' copy';
  const made = await createJob(db, { ...document, name: document.name.slice(0, LONGEST - copy.length) + copy });
  const { folder } = await db.selectFrom('jobs').select('folder').where('id', '=', id).executeTakeFirstOrThrow();
  await putInFolder(db, made.id, folder);
  return made;
}

/** Lays a job in a folder; in none where it has no name. @throws NotFound */
export async function putInFolder(db: Kysely<Schema>, id: string, folder: string): Promise<void> {
  const done = await db.updateTable('jobs').set({ folder }).where('id', '=', id).executeTakeFirst();
  if (done.numUpdatedRows === 0n) throw new NotFound(REMOVED);
}

/** The document of a job's newest version as it is stored, read or not. */
export async function getRaw(db: Kysely<Schema>, id: string): Promise<string> {
  const row = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select('revisions.document')
    .where('jobs.id', '=', id)
    .executeTakeFirst();
  if (!row) throw new NotFound(REMOVED);
  return row.document;
}

export async function putAsset(
  db: Kysely<Schema>,
  a: { hash: string; file: string; size: number; info: SourceInfo },
): Promise<void> {
  await db
    .insertInto('assets')
    .values({ ...a, info: JSON.stringify(a.info), created: now() })
    .onConflict((c) => c.column('hash').doUpdateSet({ info: JSON.stringify(a.info) }))
    .execute();
}

/** What a stored file was found to hold; one that an earlier version of the program looked at may know less of itself. */
export function readInfo(text: string): SourceInfo {
  const raw = { terraces: null, recess: false, notes: [], drawing: null, ...JSON.parse(text) };
  const whole = sourceInfo.safeParse(raw);
  if (whole.success) return whole.data;
  const notes = [...raw.notes, 'An earlier version of this program looked at this drawing: choose the file again.'];
  return sourceInfo.parse({ ...raw, drawing: null, notes });
}

export async function getAsset(db: Kysely<Schema>, hash: string): Promise<{ file: string; info: SourceInfo }> {
  const row = await db.selectFrom('assets').select(['file', 'info']).where('hash', '=', hash).executeTakeFirst();
  if (!row) throw new NotFound('this relief file is not in the store; drop it in again');
  return { file: row.file, info: readInfo(row.info) };
}
