import { parentPort } from 'node:worker_threads';
import type { Profile } from '../core/cutter/cutter';
import type { Grid } from '../core/field/height-field';
import { offsetLines, offsetRows } from '../core/kernels/host';
import { removeStock } from '../core/kernels/stock-removal';

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
  | { id: number; kind: 'remove'; grid: Grid; data: Float32Array; profile: Profile; segments: Float64Array };

export type KernelAnswer = { id: number; data: Float32Array; bites?: Float32Array } | { id: number; error: string };

parentPort!.on('message', (task: KernelTask) => {
  try {
    const field = { ...task.grid, data: task.data };
    let answer: KernelAnswer;
    if (task.kind === 'offset')
      answer = { id: task.id, data: offsetRows(field, task.profile, task.inflate, task.rows) };
    else if (task.kind === 'lines') answer = { id: task.id, data: offsetLines(field, task.profile, task.ys) };
    else {
      const bites = removeStock(field, task.profile, task.segments);
      answer = { id: task.id, data: field.data, bites };
    }
    const buffers = [answer.data.buffer as ArrayBuffer];
    if (answer.bites) buffers.push(answer.bites.buffer as ArrayBuffer);
    parentPort!.postMessage(answer, buffers);
  } catch (e) {
    parentPort!.postMessage({ id: task.id, error: (e as Error).message } satisfies KernelAnswer);
  }
});
