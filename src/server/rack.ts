import type { Kysely } from 'kysely';
import type { JobLabels, RackEntry } from '../contract/jobs';
import { type Job, jobSchema, setupsOf } from '../core/doc/job';
import { describeIssues } from '../core/doc/refusal';
import { problems } from '../core/plan/problems';
import { setupView } from '../core/setup/view';
import type { Schema } from './database';

/** A job as the rack's own tables tell it; its plan's figures come from elsewhere. */
export type JobRow = Omit<RackEntry, 'summary' | 'older' | 'about'>;

function labels(doc: Job): JobLabels {
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
function unreadable(raw: unknown, why: string): JobLabels {
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

/** What a stored document shows of itself, read or not. */
export function labelsOf(text: string): JobLabels {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return unreadable(null, 'its document is not JSON');
  }
  const parsed = jobSchema.safeParse(raw);
  return parsed.success ? labels(parsed.data) : unreadable(raw, describeIssues(parsed.error, raw));
}

/** Most versions whose labels are kept in memory. */
const LABELS = 2000;

/** The rack of a shop. A version never changes, so that its document is read once and not at every look. */
export class Rack {
  private readonly labels = new Map<string, JobLabels>();

  constructor(private readonly db: Kysely<Schema>) {}

  /** All jobs, the one changed last first; one that cannot be read stands among them with its reason. */
  async list(): Promise<JobRow[]> {
    const rows = await this.db
      .selectFrom('jobs')
      .select(['id', 'head', 'updated', 'folder'])
      .where('removed', 'is', null)
      .orderBy('updated', 'desc')
      .execute();
    return this.entries(rows);
  }

  /** One of them; null where there is none. */
  async one(id: string): Promise<JobRow | null> {
    const rows = await this.db
      .selectFrom('jobs')
      .select(['id', 'head', 'updated', 'folder'])
      .where('removed', 'is', null)
      .where('id', '=', id)
      .execute();
    const [entry] = await this.entries(rows);
    return entry ?? null;
  }

  private async entries(rows: { id: string; head: string; updated: string; folder: string }[]): Promise<JobRow[]> {
    await this.read(rows.map((r) => r.head));
    const plans = await this.plans(rows.map((r) => r.id));
    return rows.map((r) => ({
      id: r.id,
      updated: r.updated,
      folder: r.folder,
      revision: r.head,
      plan: plans.get(r.id) ?? null,
      ...this.labels.get(r.head)!,
    }));
  }

  private async read(heads: string[]): Promise<void> {
    if (this.labels.size > LABELS + heads.length) this.labels.clear();
    const fresh = heads.filter((h) => !this.labels.has(h));
    if (fresh.length === 0) return;
    const documents = await this.db
      .selectFrom('revisions')
      .select(['id', 'document'])
      .where('id', 'in', fresh)
      .execute();
    for (const d of documents) this.labels.set(d.id, labelsOf(d.document));
  }

  /** The newest plan of each of some jobs. */
  private async plans(jobs: string[]): Promise<Map<string, NonNullable<JobRow['plan']>>> {
    const rows = await this.db
      .selectFrom('plans')
      .select(['id', 'job', 'status', 'revision'])
      .where('job', 'in', jobs)
      .orderBy('created')
      .execute();
    return new Map(rows.map(({ job, ...plan }) => [job, plan]));
  }
}
