import { parentPort } from 'node:worker_threads';
import type { Profile } from '../core/cutter/cutter';
import type { Grid } from '../core/field/height-field';
import { offsetLines, offsetRows } from '../core/kernels/host';
import { engageStock, removeStock } from '../core/kernels/stock-removal';

/** A share of a kernel's work: a band of rows, with what surrounds it. */
export type KernelTask =
  | {
      id: number;
      kind: 'offset';
      grid: Grid;
      data: Float32Array;
      profile: Profile;
      inflate: number;
      rows: [number, number];
    }
  | { id: number; kind: 'lines'; grid: Grid; data: Float32Array; profile: Profile; ys: Float64Array }
  | {
      id: number;
      kind: 'cut';
      grid: Grid;
      data: Float32Array;
      profile: Profile;
      segments: Float64Array;
      /** Null where nothing is to be told. */
      limit: number | null;
    };

export type KernelAnswer = { id: number; data: Float32Array; engaged?: Float32Array } | { id: number; error: string };

parentPort!.on('message', (task: KernelTask) => {
  try {
    const field = { ...task.grid, data: task.data };
    let answer: KernelAnswer;
    if (task.kind === 'offset')
      answer = { id: task.id, data: offsetRows(field, task.profile, task.inflate, task.rows) };
    else if (task.kind === 'lines') answer = { id: task.id, data: offsetLines(field, task.profile, task.ys) };
    else if (task.limit !== null) {
      const engaged = engageStock(field, task.profile, task.segments, task.limit);
      answer = { id: task.id, data: field.data, engaged };
    } else {
      removeStock(field, task.profile, task.segments);
      answer = { id: task.id, data: field.data };
    }
    const buffers = [answer.data.buffer as ArrayBuffer];
    if (answer.engaged) buffers.push(answer.engaged.buffer as ArrayBuffer);
    parentPort!.postMessage(answer, buffers);
  } catch (e) {
    parentPort!.postMessage({ id: task.id, error: (e as Error).message } satisfies KernelAnswer);
  }
});
