import { createHash, randomUUID } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Kysely } from 'kysely';
import type { SurfaceFacts } from '../core/arrange/compose';
import type { HeightField } from '../core/field/height-field';
import { jobSchema } from '../core/plan/job';
import { unpackStage } from '../core/plan/pack';
import type { FlatSaving, PassSummary } from '../core/plan/paths';
import type { PlannedProgram } from '../core/plan/programs';
import { sectionOf } from '../core/plan/view';
import type { CutoutProof } from '../core/proof/connect';
import type { Finding } from '../core/proof/finding';
import type { PlanNews, PlanOrder } from '../workers/plan.worker';
import type { AssetStore } from './assets';
import type { PlanStatus, Schema } from './database';
import { getJob, NotFound } from './jobs';
import { workerFile } from './kernel-pool';

export interface StoredSummary {
  ground: number;
  composite: SurfaceFacts;
  zero: { x: number; y: number; z: number };
  passes: PassSummary[];
  programs: (Omit<PlannedProgram, 'text'> & { bytes: number })[];
  findings: Finding[];
  thinnest: number;
  deepest: number;
  leftShare: number;
  seconds: number;
  flats: FlatSaving | null;
  cutouts: (CutoutProof & { pass: string })[];
  stageSeconds: Record<string, number>;
}

export interface PlanState {
  id: string;
  revision: string;
  status: PlanStatus;
  message: string | null;
  /** What is being done, the share behind it and the seconds left, while it runs. */
  progress: { name: string; share: number; secondsLeft: number | null } | null;
  summary: StoredSummary | null;
}

/** Age from which a half-written result counts as left behind, ms. */
const STALE_PART = 3_600_000;

interface Running {
  worker: Worker;
  job: string;
  started: number;
  progress: NonNullable<PlanState['progress']>;
  listeners: Set<() => void>;
}

/** Plans run in a worker thread with kernels of its own; one at a time, the others wait. Results lie in a folder each. */
export class PlanRunner {
  private readonly running = new Map<string, Running>();
  private readonly queue: string[] = [];
  private readonly waiting = new Map<string, Set<() => void>>();
  private surfaces: { id: string; fields: Record<string, HeightField> } | undefined;

  constructor(
    private readonly db: Kysely<Schema>,
    private readonly assets: AssetStore,
    private readonly folder: string,
    private readonly cache: string,
  ) {
    mkdirSync(folder, { recursive: true });
    // What a crash left half done, unless another process may still be at it.
    for (const name of readdirSync(folder)) {
      const full = path.join(folder, name);
      if (name.endsWith('.part') && Date.now() - statSync(full).mtimeMs > STALE_PART)
        rmSync(full, { recursive: true, force: true });
    }
  }

  private out(input: string): string {
    return path.join(this.folder, input);
  }

  /** Plans the job's newest version; a plan of the very same document is taken as it is. Other plans of the job are stopped. */
  async start(job: string): Promise<PlanState> {
    const view = await getJob(this.db, job);
    const input = createHash('sha256').update(JSON.stringify(view.document)).digest('hex');
    const same = await this.db
      .selectFrom('plans')
      .selectAll()
      .where('job', '=', job)
      .where('input', '=', input)
      .where('status', 'in', ['queued', 'running'])
      .executeTakeFirst();
    if (same) {
      // Undone and done again while it runs: the same document under a newer version.
      await this.db.updateTable('plans').set({ revision: view.revision }).where('id', '=', same.id).execute();
      return this.state(same.id);
    }
    const last = await this.latest(job);
    if (last?.status === 'done' && last.revision === view.revision) return last;
    for (const [id, r] of this.running) if (r.job === job) await this.cancel(id);
    const id = randomUUID();
    const done = existsSync(this.out(input));
    await this.db
      .insertInto('plans')
      .values({
        id,
        job,
        revision: view.revision,
        input,
        status: done ? 'done' : 'queued',
        message: null,
        created: new Date().toISOString(),
        finished: done ? new Date().toISOString() : null,
      })
      .execute();
    if (!done) {
      this.queue.push(id);
      void this.advance();
    }
    return this.state(id);
  }

  private async advance(): Promise<void> {
    if (this.running.size > 0) return;
    const id = this.queue.shift();
    if (!id) return;
    const row = await this.db.selectFrom('plans').selectAll().where('id', '=', id).executeTakeFirst();
    if (row?.status !== 'queued' || this.running.size > 0) return this.advance();
    const document = await this.db
      .selectFrom('revisions')
      .select('document')
      .where('id', '=', row.revision)
      .executeTakeFirstOrThrow();
    const order: PlanOrder = {
      job: jobSchema.parse(JSON.parse(document.document)),
      assets: this.assets.folder,
      cache: this.cache,
      out: this.out(row.input),
    };
    const worker = new Worker(workerFile('plan'), { workerData: order });
    const listeners = this.waiting.get(id) ?? new Set();
    const running: Running = {
      worker,
      job: row.job,
      started: Date.now(),
      progress: { name: 'starting', share: 0, secondsLeft: null },
      listeners,
    };
    this.running.set(id, running);
    await this.db.updateTable('plans').set({ status: 'running' }).where('id', '=', id).execute();
    const tellAll = () => {
      for (const l of listeners) l();
    };
    let settled = false;
    const settle = async (status: PlanStatus, message: string | null) => {
      if (settled) return;
      settled = true;
      await this.db
        .updateTable('plans')
        .set({ status, message, finished: new Date().toISOString() })
        .where('id', '=', id)
        .where('status', '=', 'running')
        .execute();
      this.running.delete(id);
      this.waiting.delete(id);
      tellAll();
      void this.advance();
    };
    worker.on('message', (news: PlanNews) => {
      if (news.kind === 'progress') {
        const gone = (Date.now() - running.started) / 1000;
        const secondsLeft = news.share > 0.05 ? (gone * (1 - news.share)) / news.share : null;
        running.progress = { name: news.name, share: news.share, secondsLeft };
        tellAll();
      } else void settle(news.kind === 'done' ? 'done' : 'failed', news.kind === 'failed' ? news.message : null);
    });
    worker.on('error', (e) => void settle('failed', (e as Error).message));
    worker.on('exit', () => void settle('failed', 'the planning stopped before it was done; run it again'));
    tellAll();
  }

  async cancel(id: string): Promise<void> {
    await this.db
      .updateTable('plans')
      .set({ status: 'cancelled', finished: new Date().toISOString() })
      .where('id', '=', id)
      .where('status', 'in', ['queued', 'running'])
      .execute();
    await this.running.get(id)?.worker.terminate();
  }

  /** Calls back at every change of a plan until the returned function is called. */
  listen(id: string, call: () => void): () => void {
    const set = this.running.get(id)?.listeners ?? this.waiting.get(id) ?? new Set();
    if (!this.running.has(id)) this.waiting.set(id, set);
    set.add(call);
    return () => set.delete(call);
  }

  private async row(id: string) {
    const row = await this.db.selectFrom('plans').selectAll().where('id', '=', id).executeTakeFirst();
    if (!row) throw new NotFound('there is no such plan');
    return row;
  }

  async state(id: string): Promise<PlanState> {
    const row = await this.row(id);
    const summary = row.status === 'done' ? this.readSummary(row.input) : null;
    // A result that was cleared away can be planned again.
    const status = row.status === 'done' && !summary ? 'interrupted' : row.status;
    return {
      id,
      revision: row.revision,
      status,
      message: row.message,
      progress: this.running.get(id)?.progress ?? null,
      summary,
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

  private readSummary(input: string): StoredSummary | null {
    try {
      // Plans of before there were cut-outs have none.
      return { cutouts: [], ...JSON.parse(readFileSync(path.join(this.out(input), 'summary.json'), 'utf8')) };
    } catch {
      return null;
    }
  }

  /** A file of a finished plan. */
  async file(id: string, name: 'view.bin' | 'full.bin' | `program-${number}.nc`): Promise<Buffer> {
    const { input } = await this.row(id);
    try {
      return readFileSync(path.join(this.out(input), name));
    } catch {
      throw new NotFound('this plan has no such result; run it again');
    }
  }

  /** Heights along a line at full resolution. The last plan's surfaces stay in memory (about 72 MB). */
  async section(
    id: string,
    line: { x0: number; y0: number; x1: number; y1: number },
    n: number,
  ): Promise<Record<string, number[]>> {
    if (this.surfaces?.id !== id) {
      const { meta, arrays } = unpackStage(new Uint8Array(await this.file(id, 'full.bin')).buffer);
      const { grid } = meta as { grid: HeightField };
      const fields = Object.fromEntries(
        Object.entries(arrays)
          .filter(([, a]) => a.length > 0)
          .map(([name, data]) => [name, { ...grid, data: data as Float32Array }]),
      );
      this.surfaces = { id, fields };
    }
    const { x0, y0, x1, y1 } = line;
    return Object.fromEntries(
      Object.entries(this.surfaces.fields).map(([name, f]) => [name, Array.from(sectionOf(f, x0, y0, x1, y1, n))]),
    );
  }

  async close(): Promise<void> {
    await Promise.all([...this.running.keys()].map((id) => this.cancel(id)));
  }
}
