import { randomUUID } from 'node:crypto';
import { Worker } from 'node:worker_threads';
import type { Job } from '../core/doc/job';
import type { PlanNews, PlanOrder } from '../workers/plan.worker';
import { workerFile } from './kernel-pool';

export interface PlanProgress {
  name: string;
  share: number;
  secondsLeft: number | null;
}

/** Something to be planned: a job's document, or a variant of one that somebody may look at. */
export interface Task {
  key: string;
  document: Job;
  /** Hash of the document: where its result goes. */
  input: string;
  /** A variant waits until nothing else is to be planned, and gives way when something is. */
  variant: boolean;
  /** Told once, when it ends. */
  ended(outcome: { status: 'done' | 'failed'; message: string | null }): void | Promise<void>;
  /** Told before it begins; a task that is no longer wanted says so. */
  begins?(): Promise<boolean>;
}

interface Running {
  task: Task;
  worker: Worker;
  started: number;
  progress: PlanProgress;
}

interface Places {
  assets: string;
  cache: string;
  planner: string;
  out(input: string): string;
}

/** Plans run in a worker thread with kernels of its own, one at a time; the others wait, variants behind all plans. */
export class PlanQueue {
  private running: Running | null = null;
  /** One that is being asked whether it is still wanted. */
  private starting: Task | null = null;
  private waiting: Task[] = [];

  constructor(
    private readonly places: Places,
    /** Told at every change of a task. */
    private readonly changed: (key: string) => void,
  ) {}

  add(task: Task): void {
    if (this.has(task.key)) return;
    this.waiting.push(task);
    // A variant gives way to what somebody waits for, and is planned again later.
    if (!task.variant && this.running?.task.variant) {
      const { task: given, worker } = this.running;
      this.running = null;
      this.waiting.push(given);
      void worker.terminate();
    }
    void this.advance();
  }

  /** Whether a task runs or waits. */
  has(key: string): boolean {
    return this.running?.task.key === key || this.starting?.key === key || this.waiting.some((t) => t.key === key);
  }

  progressOf(key: string): PlanProgress | null {
    return this.running?.task.key === key ? this.running.progress : null;
  }

  /** Drops a task, ending its thread; nobody is told of its end. */
  async drop(key: string): Promise<void> {
    this.waiting = this.waiting.filter((t) => t.key !== key);
    if (this.starting?.key === key) this.starting = null;
    if (this.running?.task.key !== key) return;
    const { worker } = this.running;
    this.running = null;
    await worker.terminate();
    this.changed(key);
    void this.advance();
  }

  private async advance(): Promise<void> {
    if (this.running || this.starting) return;
    const next = this.waiting.findIndex((t) => !t.variant);
    const [task] = this.waiting.splice(Math.max(0, next), 1);
    if (!task) return;
    this.starting = task;
    const wanted = task.begins ? await task.begins().catch(() => false) : true;
    const still = this.starting === task;
    this.starting = null;
    if (wanted && still) this.run(task);
    else void this.advance();
  }

  private run(task: Task): void {
    const { assets, cache, planner, out } = this.places;
    const order: PlanOrder = {
      job: task.document,
      assets,
      cache,
      planner,
      out: out(task.input),
      aside: `${out(task.input)}.${randomUUID()}.part`,
    };
    const worker = new Worker(workerFile('plan'), { workerData: order });
    const running: Running = {
      task,
      worker,
      started: Date.now(),
      progress: { name: 'starting', share: 0, secondsLeft: null },
    };
    this.running = running;
    this.changed(task.key);
    const settle = async (status: 'done' | 'failed', message: string | null) => {
      // One that was dropped or gave way has ended already.
      if (this.running !== running) return;
      this.running = null;
      try {
        await task.ended({ status, message });
      } finally {
        this.changed(task.key);
        void this.advance();
      }
    };
    worker.on('message', (news: PlanNews) => {
      if (news.kind === 'progress') {
        const gone = (Date.now() - running.started) / 1000;
        const secondsLeft = news.share > 0.05 ? (gone * (1 - news.share)) / news.share : null;
        running.progress = { name: news.name, share: news.share, secondsLeft };
        this.changed(task.key);
      } else void settle(news.kind, news.kind === 'failed' ? news.message : null);
    });
    worker.on('error', (e) => void settle('failed', (e as Error).message));
    worker.on('exit', () => void settle('failed', 'the planning stopped before it was done; run it again'));
  }

  async close(): Promise<void> {
    this.waiting = [];
    const running = this.running;
    this.running = null;
    await running?.worker.terminate();
  }
}
