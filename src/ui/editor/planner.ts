import type { PlanState } from '@/contract/plans';
import { type Job, setupsOf } from '@/core/doc/job';
import type { Setup } from '@/core/doc/setup';
import { kindOf } from '@/core/passes/registry';
import { problems } from '@/core/plan/problems';
import type { JobServer } from './ports';

/** Wait after the last save before it is planned while layers are being arranged, ms: the machine is free for the layers. */
const ARRANGING = 5000;

/** What the planner works on. */
export interface PlanOf {
  document(): Job | undefined;
  /** Whether the page is still there. */
  open(): boolean;
  arranging(): boolean;
  plan(): PlanState | null;
  put(plan: PlanState | null): void;
  fail(e: unknown): void;
}

/** Whether a setup has nothing to be cut: no layer, and no pass that needs none. */
const isEmpty = (s: Setup): boolean => s.layers.length === 0 && s.passes.every((p) => kindOf(p).needsLayers);

const isUnderWay = (p: PlanState | null) => p?.status === 'queued' || p?.status === 'running';

/** The plan of a job: asked for when a version has settled, and followed while it is worked on. */
export class Planner {
  private timer: ReturnType<typeof setTimeout> | undefined;
  private following: string | null = null;
  private unfollow = () => {};

  constructor(
    private readonly server: JobServer,
    private readonly of: PlanOf,
  ) {}

  /** Takes over a plan that the server has told of. */
  found(plan: PlanState | null): void {
    this.of.put(plan);
    const id = plan && isUnderWay(plan) ? plan.id : null;
    if (id === this.following) return;
    this.unfollow();
    this.unfollow = () => {};
    this.following = id;
    if (id !== null) this.unfollow = this.server.follow(id, (p) => this.told(p));
  }

  /** News of the plan that is followed. */
  private told(p: PlanState): void {
    if (this.of.plan()?.id !== p.id) return;
    this.found(p);
    if (!isUnderWay(p)) this.server.told();
  }

  async start(): Promise<void> {
    this.hold();
    try {
      this.found(await this.server.plan());
    } catch (e) {
      this.of.fail(e);
    }
  }

  /** Plans the version in force, unless something newer comes; nothing is planned of an empty board, or while something stops it. */
  soon(): void {
    this.hold();
    if (!this.of.open()) return;
    const job = this.of.document();
    if (!job || setupsOf(job).every((p) => isEmpty(p.setup)) || problems(job).some((f) => f.stops)) return;
    this.timer = setTimeout(() => void this.start(), this.of.arranging() ? ARRANGING : 0);
  }

  /** What waits is not planned: something newer comes. */
  hold(): void {
    clearTimeout(this.timer);
  }

  async cancel(): Promise<void> {
    this.hold();
    const plan = this.of.plan();
    if (!plan) return;
    try {
      this.found(await this.server.cancelPlan(plan.id));
    } catch (e) {
      this.of.fail(e);
    }
  }

  stop(): void {
    this.hold();
    this.unfollow();
    this.unfollow = () => {};
    this.following = null;
  }
}
