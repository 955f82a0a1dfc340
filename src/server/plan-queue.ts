import { Worker } from 'node:worker_threads';
import type { PlanProgress } from '../contract/plans';
import type { Job } from '../core/doc/job';
import type { GivenProgram } from '../core/plan/given-programs';
import { type Phase, phasesOf } from '../core/plan/phases';
import type { PlanNews, PlanOrder } from '../workers/plan.worker';
import { asideOf, removeFile } from './files';
import { workerFile } from './kernel-pool';
import type { StageTimes } from './stage-times';
import { TimeLeft } from './time-left';

/** How soon something is planned. */
export const RANKS = ['asked', 'ahead', 'variant'] as const;
export type Rank = (typeof RANKS)[number];

/** Something to be planned: a job's document, or a variant of one that somebody may look at. */
export interface Task {
  key: string;
  /** The job that it belongs to. */
  job: string;
  document: Job;
  /** Programs from files that are judged in the place of those that are planned. */
  given?: GivenProgram[];
  /** Hash of the document: where its result goes. */
  input: string;
  /** Who waits for it: somebody, or nobody yet. What nobody waits for is planned when nothing else is, variants last, and gives way to the rest. */
  rank: Rank;
  /** Told once, when it ends. */
  ended(outcome: { status: 'done' | 'failed'; message: string | null }): void | Promise<void>;
  /** Told before it begins; a task that is no longer wanted says so. */
  begins?(): Promise<boolean>;
}

interface Places {
  assets: string;
  cache: string;
  planner: string;
  out(input: string): string;
}

type Outcome = Parameters<Task['ended']>[0];

/** The task whose turn it is, from the question whether it is still wanted until its end has been told. */
interface Turn {
  task: Task;
  worker: Worker | null;
  clock: TimeLeft;
  phases: Phase[];
  news: { name: string; share: number };
  /** Set from outside: nobody is told of its end (dropped), or it waits again (gave way). */
  left: 'dropped' | 'gave way' | null;
  over: Promise<void>;
}

const CUT_SHORT: Outcome = { status: 'failed', message: 'the planning stopped before it was done; run it again' };

/** How often it is told how long what runs still takes, ms. */
const TICK = 2000;

/** Plans run in a worker thread with kernels of its own, one at a time; the others wait, variants behind all plans. */
export class PlanQueue {
  private turn: Turn | null = null;
  private waiting: Task[] = [];
  private closed = false;

  constructor(
    private readonly places: Places,
    private readonly times: StageTimes,
    /** Told at every change of a task. */
    private readonly changed: (key: string) => void,
  ) {}

  /** Puts a task in line, unless it is there already or the queue has been closed. */
  add(task: Task): void {
    if (this.closed || this.has(task.key)) return;
    this.waiting.push(task);
    this.makeWay(task.rank);
    this.advance();
  }

  /** What is planned ahead of being asked for is asked for now. */
  ask(key: string): void {
    const task = this.turn?.task.key === key ? this.turn.task : this.waiting.find((t) => t.key === key);
    if (!task || task.rank === 'asked') return;
    task.rank = 'asked';
    if (task !== this.turn?.task) this.makeWay('asked');
  }

  /** What somebody waits less for gives way, and is planned again later; its stages that are done are kept. */
  private makeWay(rank: Rank): void {
    if (this.turn && RANKS.indexOf(this.turn.task.rank) > RANKS.indexOf(rank)) this.leave(this.turn, 'gave way');
  }

  /** Whether a task runs or waits. */
  has(key: string): boolean {
    return (this.turn?.task.key === key && this.turn.left !== 'dropped') || this.waiting.some((t) => t.key === key);
  }

  progressOf(key: string): PlanProgress | null {
    const { turn } = this;
    if (turn?.task.key !== key || !turn.worker) return null;
    return { ...turn.news, ...turn.clock.left(performance.now() / 1000) };
  }

  /** What a task that runs or waits is still expected to take by itself, s; null for one that does neither. */
  aboutOf(key: string): number | null {
    const running = this.progressOf(key);
    if (running) return running.secondsLeft;
    const task = this.waiting.find((t) => t.key === key);
    return task ? this.times.expectedOf(phasesOf(task.document)) : null;
  }

  /** Drops the variants of a job: it has changed, and they are of what it was. */
  dropVariants(job: string): void {
    const old = (t: Task) => t.rank === 'variant' && t.job === job;
    this.waiting = this.waiting.filter((t) => !old(t));
    if (this.turn && old(this.turn.task)) this.leave(this.turn, 'dropped');
  }

  /** Drops a task and waits until its thread has ended; nobody is told of its end. */
  async drop(key: string): Promise<void> {
    this.waiting = this.waiting.filter((t) => t.key !== key);
    if (this.turn?.task.key !== key) return;
    this.leave(this.turn, 'dropped');
    await this.turn.over;
  }

  private leave(turn: Turn, how: 'dropped' | 'gave way'): void {
    turn.left = how;
    void turn.worker?.terminate();
  }

  /** Begins the next task when none has the turn. Each turn ends before the next one begins, so that none is lost between two. */
  private advance(): void {
    if (this.turn || this.closed) return;
    const rank = RANKS.find((r) => this.waiting.some((t) => t.rank === r));
    const task = this.waiting.find((t) => t.rank === rank);
    if (!task) return;
    this.waiting = this.waiting.filter((t) => t !== task);
    const phases = phasesOf(task.document);
    const clock = new TimeLeft(phases, (p) => this.times.expected(p));
    const news = { name: 'starting', share: 0 };
    const turn: Turn = { task, worker: null, clock, phases, news, left: null, over: Promise.resolve() };
    this.turn = turn;
    turn.over = this.take(turn)
      .catch((e) => console.error(e))
      .then(() => {
        this.turn = null;
        // It keeps its place before those of its own rank.
        if (turn.left === 'gave way' && !this.closed) this.waiting.unshift(task);
        this.changed(task.key);
        this.advance();
      });
  }

  private async take(turn: Turn): Promise<void> {
    const wanted = turn.task.begins ? await turn.task.begins() : true;
    if (!wanted || turn.left) return;
    const outcome = await this.run(turn);
    if (!turn.left) await turn.task.ended(outcome);
  }

  /** Runs a task's thread to its end, or until it is left. */
  private run(turn: Turn): Promise<Outcome> {
    const { assets, cache, planner, out } = this.places;
    const { document, given, input, key } = turn.task;
    const order: PlanOrder = {
      job: document,
      given: given ?? null,
      assets,
      cache,
      planner,
      out: out(input),
      aside: asideOf(out(input)),
    };
    return new Promise((resolve) => {
      const worker = new Worker(workerFile('plan'), { workerData: order });
      turn.worker = worker;
      let outcome = CUT_SHORT;
      // What is left becomes less, and a phase longer than usual, without any news of it.
      const tick = setInterval(() => this.changed(key), TICK);
      worker.on('message', (news: PlanNews) => {
        if (news.kind === 'progress') {
          turn.clock.news(news.name, performance.now() / 1000);
          turn.news = { name: news.name, share: news.share };
          this.changed(key);
        } else {
          turn.clock.close(performance.now() / 1000);
          if (news.kind === 'done' && !given) this.times.learn(turn.phases, turn.clock.took);
          outcome = { status: news.kind, message: news.kind === 'failed' ? news.message : null };
          void worker.terminate();
        }
      });
      worker.on('error', (e) => {
        outcome = { status: 'failed', message: (e as Error).message };
      });
      // The thread's memory is free before the next one begins, and so is the room of what it left half done.
      worker.on('exit', () => {
        clearInterval(tick);
        removeFile(order.aside);
        resolve(outcome);
      });
      this.changed(key);
    });
  }

  /** Drops all tasks, and waits until the last thread has ended. */
  async close(): Promise<void> {
    this.closed = true;
    this.waiting = [];
    if (!this.turn) return;
    this.leave(this.turn, 'dropped');
    await this.turn.over;
  }
}
