import { parentPort } from 'node:worker_threads';
import type { Profile } from '../core/cutter/cutter';
import type { Grid } from '../core/field/height-field';
import { offsetLines, offsetRows } from '../core/kernels/host';
import { engageStock, removeStock } from '../core/kernels/stock-removal';
import { type Works, workerOf } from '../core/plan/threads';

/** A share of a kernel's work: a band of rows, with what surrounds it. */
export type Band =
  | {
      kind: 'offset';
      grid: Grid;
      data: Float32Array;
      profile: Profile;
      inflate: number;
      rows: [number, number];
    }
  | { kind: 'lines'; grid: Grid; data: Float32Array; profile: Profile; ys: Float64Array }
  | {
      kind: 'cut';
      grid: Grid;
      data: Float32Array;
      profile: Profile;
      segments: Float64Array;
      /** Null where nothing is to be told. */
      limit: number | null;
    };

type Name = keyof Works;
/** What the pieces that follow have in common; null ends it, so that it is let go of. */
type Common = { kind: 'common'; work: { [K in Name]: { name: K; common: Works[K]['common'] } }[Name] | null };
/** Pieces of the work that was begun last. */
type Pieces = { kind: 'pieces'; pieces: Works[Name]['piece'][] };

export type KernelTask = { id: number } & (Band | Common | Pieces);

/** What a task gives: the rows of a band, or what every piece has come to. */
export interface KernelDone {
  data?: Float32Array;
  engaged?: Float32Array;
  done?: Works[Name]['done'][];
}
export type KernelAnswer = ({ id: number } & KernelDone) | { id: number; error: string };

let work: ReturnType<typeof workerOf> | null = null;

function onBand(task: Band): KernelDone {
  const field = { ...task.grid, data: task.data };
  if (task.kind === 'offset') return { data: offsetRows(field, task.profile, task.inflate, task.rows) };
  if (task.kind === 'lines') return { data: offsetLines(field, task.profile, task.ys) };
  if (task.limit !== null)
    return { engaged: engageStock(field, task.profile, task.segments, task.limit), data: field.data };
  removeStock(field, task.profile, task.segments);
  return { data: field.data };
}

async function answerOf(task: KernelTask): Promise<KernelDone> {
  if (task.kind === 'common') {
    work = task.work && workerOf(task.work.name, task.work.common);
    return {};
  }
  if (task.kind !== 'pieces') return onBand(task);
  const done: Works[Name]['done'][] = [];
  for (const piece of task.pieces) done.push(await work!(piece as never));
  return { done };
}

/** The memory of all arrays of an answer, which goes over with it. */
function buffersOf({ data, engaged, done }: KernelDone): ArrayBuffer[] {
  const arrays = [data, engaged, ...(done ?? []).flatMap((d) => Object.values(d))];
  return arrays.flatMap((a) => (ArrayBuffer.isView(a) ? [a.buffer as ArrayBuffer] : []));
}

parentPort!.on('message', async (task: KernelTask) => {
  try {
    const answer = await answerOf(task);
    parentPort!.postMessage({ id: task.id, ...answer } satisfies KernelAnswer, buffersOf(answer));
  } catch (e) {
    parentPort!.postMessage({ id: task.id, error: (e as Error).message } satisfies KernelAnswer);
  }
});
