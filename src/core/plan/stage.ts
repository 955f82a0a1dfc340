import type { KernelHost } from '../kernels/host';
import type { Threads } from './threads';

/** What a stage leaves: plain data and typed arrays, so that it can be stored and sent. */
export interface StageResult<M = unknown> {
  meta: M;
  arrays: Record<string, Float32Array | Float64Array | Uint8Array>;
}

/** Runs a stage, or takes its stored result. */
export type RunStage = <M>(
  name: string,
  input: unknown,
  run: () => Promise<StageResult<M>>,
) => Promise<{ key: string; result: StageResult<M> }>;

/** What a plan is run with. */
export interface PlanEnvironment {
  host: KernelHost;
  /** Where what is drawn window by window is drawn. */
  threads: Threads;
  /**
   * `input` is all that the result depends on besides the planner itself, as plain data. Returns the result and the key it is stored under,
   * which stands for it in the inputs of later stages.
   */
  stage: RunStage;
  /** Told as the work goes on: what is being done, and the share of the whole that is behind it. */
  progress(name: string, share: number): void;
}
