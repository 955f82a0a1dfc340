import type { Kysely } from 'kysely';
import { describeIssues, type Job, jobSchema, setupsOf } from '../core/doc/job';
import { problems } from '../core/plan/problems';
import { setupView } from '../core/setup/view';
import type { PlanStatus, Schema } from './database';

export interface JobRow {
  id: string;
  name: string;
  order: string;
  board: string;
  updated: string;
  plan: { id: string; status: PlanStatus; revision: string } | null;
  revision: string;
  /** Why the stored document cannot be read; null when it can. */
  unreadable: string | null;
  /** What in the document stops planning. */
  problems: number;
  /** The setup that its picture is of; null when there is none. */
  setup: string | null;
}

/** What a job shows of itself on the rack. */
function labels(doc: Job) {
  const boards = doc.boards.map((b) => `${b.x} × ${b.y} × ${b.thickness} mm ${b.material.name}`);
  return {
    name: doc.name,
    order: doc.order,
    board: boards.length > 1 ? `${boards.length} boards` : (boards[0] ?? 'no board'),
    unreadable: null,
    problems: problems(doc).filter((f) => f.stops).length,
    setup: setupsOf(doc).length > 0 ? setupView(doc).setup.id : null,
  };
}

/** What can be told of a document that cannot be read: its name, if it has one, and why. */
function unreadable(raw: unknown, why: string) {
  const { name, order } = (raw ?? {}) as { name?: unknown; order?: unknown };
  return {
    name: typeof name === 'string' && name !== '' ? name.slice(0, 80) : 'A job that cannot be read',
    order: typeof order === 'string' ? order.slice(0, 40) : '',
    board: '',
    unreadable: why,
    problems: 0,
    setup: null,
  };
}

function read(text: string) {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return unreadable(null, 'its document is not JSON');
  }
  const parsed = jobSchema.safeParse(raw);
  return parsed.success ? labels(parsed.data) : unreadable(raw, describeIssues(parsed.error, raw));
}

/** All jobs, the one changed last first; one that cannot be read stands among them with its reason. */
export async function listJobs(db: Kysely<Schema>): Promise<JobRow[]> {
  const rows = await db
    .selectFrom('jobs')
    .innerJoin('revisions', 'revisions.id', 'jobs.head')
    .select(['jobs.id', 'jobs.head', 'jobs.updated', 'revisions.document'])
    .orderBy('jobs.updated', 'desc')
    .execute();
  return Promise.all(
    rows.map(async (r) => {
      const plan = await db
        .selectFrom('plans')
        .select(['id', 'status', 'revision'])
        .where('job', '=', r.id)
        .orderBy('created', 'desc')
        .executeTakeFirst();
      return { id: r.id, updated: r.updated, plan: plan ?? null, revision: r.head, ...read(r.document) };
    }),
  );
}
