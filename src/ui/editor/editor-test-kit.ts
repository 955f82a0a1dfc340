import { AskError } from '@/contract/ask';
import type { PlanState } from '@/contract/plans';
import { DRAWER, HOBBY_MACHINE } from '@/core/doc/defaults';
import type { Job } from '@/core/doc/job';
import { plainJob } from '@/core/plan/propose';
import type { Browser, JobServer, Stored } from './ports';

/** A board with nothing on it. */
export const emptyBoard = (): Job =>
  plainJob({
    name: 'Board',
    order: '',
    machine: HOBBY_MACHINE,
    rough: DRAWER[0],
    finish: DRAWER[1],
    board: { x: 300, y: 200, thickness: 19 },
  });

/** A server in memory that keeps the same promises as the real one, and can be made to fail. For tests. */
export class FakeServer implements JobServer {
  versions: { id: string; base: string | null; document: Job }[];
  head = 'v0';
  kept: string | null = null;
  plans: PlanState | null = null;
  /** Thrown by the next asks, when set. */
  failing: Error | null = null;
  asks: string[] = [];
  followed: string | null = null;
  private news: ((p: PlanState) => void) | null = null;

  constructor(document = emptyBoard()) {
    this.versions = [{ id: 'v0', base: null, document }];
  }

  offline(): void {
    this.failing = new AskError('the server does not answer', 0);
  }

  get document(): Job {
    return this.of(this.head).document;
  }

  private of(id: string) {
    const v = this.versions.find((e) => e.id === id);
    if (!v) throw new AskError('there is no such version of the job', 404);
    return v;
  }

  private async ask(what: string): Promise<void> {
    this.asks.push(what);
    if (this.failing) throw this.failing;
  }

  async load(): Promise<Stored> {
    await this.ask('load');
    const chain = [this.of(this.head)];
    while (chain[0].base !== null) chain.unshift(this.of(chain[0].base));
    return {
      revision: this.head,
      kept: this.kept,
      plan: this.plans,
      chain: chain.map(({ id, document }) => ({ id, document })),
      at: chain.length - 1,
    };
  }

  async save(base: string, document: Job): Promise<string> {
    await this.ask('save');
    const id = `v${this.versions.length}`;
    this.versions.push({ id, base, document: structuredClone(document) });
    if (base !== this.head) {
      this.kept = id;
      throw new AskError('another page has saved', 409, { head: this.head, kept: id });
    }
    this.head = id;
    return id;
  }

  async moveHead(from: string, to: string): Promise<void> {
    await this.ask('move');
    if (from !== this.head) throw new AskError('another page has saved', 409, { head: this.head, kept: to });
    this.head = to;
  }

  async revision(id: string): Promise<Job> {
    await this.ask('revision');
    return this.of(id).document;
  }

  async settleKept(): Promise<void> {
    await this.ask('settle');
    this.kept = null;
  }

  named: [revision: string, name: string][] = [];

  async nameVersion(revision: string, name: string): Promise<void> {
    await this.ask('name');
    this.of(revision);
    this.named.push([revision, name]);
  }

  async plan(): Promise<PlanState> {
    await this.ask('plan');
    return this.tell('queued', `p${this.asks.length}`);
  }

  async cancelPlan(): Promise<PlanState> {
    await this.ask('cancel');
    return this.tell('cancelled');
  }

  follow(plan: string, onState: (p: PlanState) => void): () => void {
    this.followed = plan;
    this.news = onState;
    return () => {
      this.followed = null;
      this.news = null;
    };
  }

  /** Another state of the plan; whoever follows it is told. */
  tell(status: PlanState['status'], id = this.plans?.id ?? 'p'): PlanState {
    this.plans = {
      id,
      revision: this.head,
      status,
      message: null,
      progress: null,
      summary: null,
      older: false,
      again: null,
    };
    this.news?.(this.plans);
    return this.plans;
  }

  told(): void {
    this.asks.push('told');
  }
}

/** A browser in memory: its address, the steps that Back goes over, and what a reload keeps. For tests. */
export class FakeBrowser implements Browser {
  steps: string[];
  readonly kept = new Map<string, string>();
  private on: Parameters<Browser['watch']>[1] | null = null;
  /** What other tabs were told. */
  told: string[] = [];

  constructor(search = '') {
    this.steps = [search];
  }

  search = (): string => this.steps.at(-1) ?? '';

  show(search: string, step: boolean): void {
    if (!step) this.steps.pop();
    this.steps.push(search);
  }

  back(): void {
    this.steps.pop();
    this.on?.place();
  }

  online(): void {
    this.on?.online();
  }

  /** Another tab has changed what this one shows. */
  elsewhere(): void {
    this.on?.elsewhere();
  }

  tell(thing: string): void {
    this.told.push(thing);
  }

  watch(_: string, on: Parameters<Browser['watch']>[1]): () => void {
    this.on = on;
    return () => {
      this.on = null;
    };
  }

  memory = {
    get: (name: string) => this.kept.get(name) ?? null,
    put: (name: string, text: string | null) => {
      if (text === null) this.kept.delete(name);
      else this.kept.set(name, text);
    },
  };
}
