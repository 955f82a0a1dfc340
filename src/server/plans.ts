import { randomUUID } from 'node:crypto';
import path from 'node:path';
import type { Kysely } from 'kysely';
import type { Judged, WhatIf } from '../contract/jobs';
import type { PlanState } from '../contract/plans';
import { withEdits } from '../core/doc/edits';
import { setupsOf } from '../core/doc/job';
import type { Edit } from '../core/findings/edit';
import type { GivenProgram } from '../core/plan/given-programs';
import { variantsOf } from '../core/plan/variants';
import { planned, toPlanAhead } from './ahead';
import type { AssetStore } from './assets';
import type { Schema } from './database';
import { BadRequest, NotFound } from './errors';
import { GivenProofs } from './given';
import { getJob } from './jobs';
import { clearResults } from './keeping';
import { PlanQueue, type Task } from './plan-queue';
import { PlanSurfaces, whole } from './plan-surfaces';
import { refuseStopped } from './refuse-stopped';
import { type PlanBrief, ResultStore } from './results';
import { StageTimes } from './stage-times';
import { Standings } from './standing';
import { inputOf, Variants } from './what-if';

/** What planning took here, in the folder of the data. */
const TIMES_FILE = 'plan-times.json';

/** The plans of all jobs: what is wanted, what is being done, and the results. */
export class PlanRunner {
  readonly surfaces: PlanSurfaces;
  private readonly queue: PlanQueue;
  private readonly results: ResultStore;
  private readonly listeners = new Map<string, Set<() => void>>();
  private readonly variants: Variants;
  private readonly given: GivenProofs;
  private readonly standings: Standings;

  constructor(
    private readonly db: Kysely<Schema>,
    assets: AssetStore,
    folder: string,
    cache: string,
    planner: string,
  ) {
    this.results = new ResultStore(folder, planner);
    this.standings = new Standings(db, folder);
    this.surfaces = new PlanSurfaces(this.results, async (id) => (await this.row(id)).input);
    const out = (input: string) => this.results.place(input);
    const times = new StageTimes(path.join(path.dirname(folder), TIMES_FILE));
    this.queue = new PlanQueue({ assets: assets.folder, cache, planner, out }, times, (key) => this.tell(key));
    this.variants = new Variants(this.results, this.queue);
    this.given = new GivenProofs(this.results, this.queue);
  }

  private tell(key: string): void {
    for (const call of this.listeners.get(key) ?? []) call();
  }

  /**
   * Plans the job's newest version; a whole result of the very same document by this planner is taken as it is, one of another planner is
   * proven again. Other plans of the job are stopped.
   * @param rank 'ahead' where nobody waits for it yet
   * @throws BadRequest naming what stops planning
   */
  async start(job: string, rank: 'asked' | 'ahead' = 'asked'): Promise<PlanState> {
    const view = await getJob(this.db, job);
    refuseStopped(view.document);
    const input = inputOf(view.document);
    const rows = await this.db
      .selectFrom('plans')
      .selectAll()
      .where('job', '=', job)
      .orderBy('created', 'desc')
      .execute();
    const same = rows.find((r) => r.input === input && (r.status === 'queued' || r.status === 'running'));
    if (same && this.queue.has(same.id)) {
      // Undone and done again while it runs: the same document under a newer version.
      await this.db.updateTable('plans').set({ revision: view.revision }).where('id', '=', same.id).execute();
      if (rank === 'asked') this.queue.ask(same.id);
      return this.state(same.id);
    }
    const fresh = this.results.isFresh(input);
    const last = rows[0];
    if (fresh && last?.status === 'done' && last.input === input && last.revision === view.revision)
      return this.state(last.id);
    for (const r of rows) if (this.queue.has(r.id)) await this.cancel(r.id);
    // A plan that an older version proved keeps its place while it is proven again.
    const id = last?.status === 'done' && last.input === input ? last.id : randomUUID();
    const now = new Date().toISOString();
    const values = {
      id,
      job,
      revision: view.revision,
      input,
      status: fresh ? ('done' as const) : ('queued' as const),
      message: null,
      created: now,
      finished: fresh ? now : null,
    };
    await this.db
      .insertInto('plans')
      .values(values)
      .onConflict((c) => c.column('id').doUpdateSet(values))
      .execute();
    if (!fresh) this.enqueue({ key: id, job, document: view.document, input, rank });
    return this.state(id);
  }

  private enqueue(task: Pick<Task, 'key' | 'job' | 'document' | 'input' | 'rank'>): void {
    const { key: id, job, document } = task;
    const wanted: Task = {
      ...task,
      begins: () => this.standings.begin(id),
      ended: async ({ status, message }) => {
        await this.standings.end(id, { status, message });
        await planned(this.db, job);
        await clearResults(this.db, this.results.folder);
        // Somebody is looking, and the machine has nothing else to do now: the other ways are worked out before they are asked for.
        if (status === 'done' && wanted.rank === 'asked')
          for (const { setup } of setupsOf(document))
            for (const v of variantsOf(document, setup.id)) this.variants.tryOut(job, withEdits(document, v.edits));
      },
    };
    this.standings.forget(id);
    this.queue.dropVariants(job);
    this.queue.add(wanted);
  }

  /** Goes on with jobs that are to be planned before anybody asks for them, in the order of the rack. What stops one is told where it is opened. */
  async planAhead(): Promise<void> {
    for (const job of await toPlanAhead(this.db)) await this.start(job, 'ahead').catch(() => planned(this.db, job));
  }

  /** What a plan that runs or waits is still expected to take, s; null for one that does neither. */
  aboutOf(id: string): number | null {
    return this.queue.aboutOf(id);
  }

  /** What edits of a job's newest version would come to, in the machine's time. @throws RangeError when they do not fit it any more */
  async whatIf(job: string, edits: Edit[]): Promise<WhatIf> {
    const { document } = await getJob(this.db, job);
    try {
      return this.variants.tryOut(job, withEdits(document, edits));
    } catch (e) {
      if (e instanceof RangeError) throw new BadRequest(e.message);
      throw e;
    }
  }

  /** Judges programs from files for a job's newest version. @throws BadRequest naming what stops planning, or the number that is given twice */
  async judge(job: string, given: GivenProgram[]): Promise<Judged> {
    const { document } = await getJob(this.db, job);
    refuseStopped(document);
    const names = given.map((g) => g.file);
    const twice = names.find((n, i) => names.indexOf(n) !== i);
    if (twice) throw new BadRequest(`${twice} is there twice; give each program once`);
    return this.given.judge(job, document, given);
  }

  /** What came of programs from files. */
  async judged(proof: string): Promise<Judged> {
    return this.given.state(proof);
  }

  async cancel(id: string): Promise<void> {
    const { job } = await this.row(id);
    await planned(this.db, job);
    await this.db
      .updateTable('plans')
      .set({ status: 'cancelled', finished: new Date().toISOString() })
      .where('id', '=', id)
      .where('status', 'in', ['queued', 'running'])
      .execute();
    await this.queue.drop(id);
    this.tell(id);
  }

  /** Calls back at every change of a plan until the returned function is called. */
  listen(id: string, call: () => void): () => void {
    const set = this.listeners.get(id) ?? new Set();
    this.listeners.set(id, set);
    set.add(call);
    return () => {
      set.delete(call);
      if (set.size === 0) this.listeners.delete(id);
    };
  }

  private async row(id: string) {
    const row = await this.db.selectFrom('plans').selectAll().where('id', '=', id).executeTakeFirst();
    if (!row) throw new NotFound('there is no such plan');
    return row;
  }

  async state(id: string): Promise<PlanState> {
    const row = await this.row(id);
    const { status, message } = await this.standings.of(row);
    const envelope = status === 'done' ? this.results.open(row.input) : null;
    const summary = envelope ? this.results.summary(row.input) : null;
    // A result that was cleared away or damaged can be planned again.
    const lost = status === 'done' && !summary;
    return {
      id,
      revision: row.revision,
      status: lost ? 'interrupted' : status,
      message: lost ? 'the result of this plan was cleared away or is damaged; it is planned again' : message,
      progress: this.queue.progressOf(id),
      summary,
      older: envelope !== null && envelope.planner !== this.results.planner,
      again: envelope?.again ?? null,
    };
  }

  async latest(job: string): Promise<PlanState | null> {
    const row = await this.db
      .selectFrom('plans')
      .select('id')
      .where('job', '=', job)
      .orderBy('created', 'desc')
      .executeTakeFirst();
    return row ? this.state(row.id) : null;
  }

  /** What the rack shows of a plan: its figures, null without a whole result, and whether an older version proved it. */
  async brief(id: string): Promise<{ figures: PlanBrief | null; older: boolean }> {
    const { input, status } = await this.row(id);
    const envelope = status === 'done' ? this.results.open(input) : null;
    if (!envelope) return { figures: null, older: false };
    return { figures: this.results.brief(input), older: envelope.planner !== this.results.planner };
  }

  /** A file of a finished plan, checked. @throws NotFound when it is missing or damaged */
  async file(id: string, name: string): Promise<Buffer> {
    const { input } = await this.row(id);
    return whole(this.results.read(input, name));
  }

  async close(): Promise<void> {
    await this.db
      .updateTable('plans')
      .set({ status: 'cancelled', finished: new Date().toISOString() })
      .where('status', 'in', ['queued', 'running'])
      .execute();
    await this.queue.close();
  }
}
