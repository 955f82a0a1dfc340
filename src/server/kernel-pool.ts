import { availableParallelism } from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { rowInTurn } from '../core/field/drum';
import { goesRound, gridOf, type HeightField } from '../core/field/height-field';
import { rowsRound } from '../core/kernels/drum-offset';
import { ENGAGED, joinEngaged } from '../core/kernels/engagement';
import type { KernelHost } from '../core/kernels/host';
import { SEGMENT } from '../core/kernels/segment';
import { engageStock, removeStock } from '../core/kernels/stock-removal';
import type { Threads, Works } from '../core/plan/threads';
import type { KernelAnswer, KernelDone, KernelTask } from '../workers/kernel.worker';
import { inSharedMemory } from './shared-memory';

/** Cells up to which a thread cuts by itself. */
const FEW = 1 << 18;
/** Most cells that go over to a thread at once: what is on the way is at most so many a thread, whatever the field's size. */
const BAND_CELLS = 6e6;

/** Most pieces of work in a share. */
const MOST_PIECES = 16;

/** Shares of pieces that a thread has at a time. */
const AHEAD = 4;

/** Rows of a field that a cutter of radius R reaches on its way, the upper end left out; round a drum all of them. */
function rowsUnder(f: HeightField, R: number, segments: Float64Array): [number, number] {
  if (f.drum) return [0, f.height];
  let [low, high] = [Infinity, -Infinity];
  for (let s = 1; s < segments.length; s += SEGMENT) {
    low = Math.min(low, segments[s], segments[s + 3]);
    high = Math.max(high, segments[s], segments[s + 3]);
  }
  const from = Math.max(0, Math.floor((low - R - f.originY) / f.cell));
  return [from, Math.max(from, Math.min(f.height, Math.ceil((high + R - f.originY) / f.cell) + 1))];
}

type TaskBody = KernelTask extends infer T ? (T extends KernelTask ? Omit<T, 'id'> : never) : never;

/** Where the built workers lie, below the folder that the program is started in. */
export function workerFile(name: string): string {
  return path.resolve(/* turbopackIgnore: true */ process.cwd(), 'dist', 'workers', `${name}.worker.mjs`);
}

/** Kernels spread over worker threads in bands of rows. Must be closed, or the process does not end. */
export class KernelPool implements KernelHost, Threads {
  private readonly workers: Worker[];
  private readonly waiting = new Map<number, { resolve(d: KernelDone): void; reject(e: Error): void }>();
  private next = 1;

  constructor(size = availableParallelism()) {
    this.workers = Array.from({ length: size }, () => {
      const w = new Worker(workerFile('kernel'));
      w.on('message', (a: KernelAnswer) => {
        const one = this.waiting.get(a.id);
        this.waiting.delete(a.id);
        if ('error' in a) one?.reject(new Error(a.error));
        else one?.resolve(a);
      });
      w.on('error', (e) => {
        for (const one of this.waiting.values()) one.reject(e as Error);
        this.waiting.clear();
      });
      return w;
    });
  }

  private run(worker: number, task: TaskBody, transfer: ArrayBufferLike[] = []): Promise<KernelDone> {
    const id = this.next++;
    return new Promise((resolve, reject) => {
      this.waiting.set(id, { resolve, reject });
      this.workers[worker].postMessage({ ...task, id }, transfer as ArrayBuffer[]);
    });
  }

  /** Even bands of `n` rows of `width` cells, at least one a worker; none is empty. */
  private bands(n: number, width: number): [number, number][] {
    const parts = Math.min(Math.max(this.workers.length, Math.ceil((n * width) / BAND_CELLS)), Math.max(1, n));
    return Array.from({ length: parts }, (_, i) => [Math.floor((n * i) / parts), Math.floor((n * (i + 1)) / parts)]);
  }

  /**
   * Works on shares, every worker taking the next one when it is done with one of its own.
   * @param ahead how many each has at a time, so that it need not wait while this thread is busy
   */
  private async spread<S>(
    shares: S[],
    work: (share: S, worker: number, n: number) => Promise<void>,
    ahead = 1,
  ): Promise<void> {
    const left = shares.entries();
    const takers = Array.from({ length: ahead }, () => this.workers.keys()).flatMap((w) => [...w]);
    await Promise.all(
      takers.map(async (worker) => {
        for (const [n, share] of left) await work(share, worker, n);
      }),
    );
  }

  /** Rows y0..y1 of a field as one of their own; they may lie beyond the seam of one that goes round a drum. */
  private slice(f: HeightField, y0: number, y1: number) {
    const grid = { ...gridOf(f), height: y1 - y0, originY: f.originY + y0 * f.cell };
    if (y0 >= 0 && y1 <= f.height) return { grid, data: f.data.slice(y0 * f.width, y1 * f.width) };
    const data = new Float32Array((y1 - y0) * f.width);
    for (let y = y0; y < y1; y++) {
      const j = rowInTurn({ rows: f.height }, y);
      data.set(f.data.subarray(j * f.width, (j + 1) * f.width), (y - y0) * f.width);
    }
    return { grid, data };
  }

  async offset(...[f, profile, inflate]: Parameters<KernelHost['offset']>): Promise<Float32Array> {
    const R = profile.R + inflate;
    const round = goesRound(f);
    const out = new Float32Array(f.width * f.height);
    await this.spread(this.bands(f.height, f.width), async ([y0, y1], worker) => {
      const halo = 1 + (f.drum ? rowsRound(f, f.drum, R, [y0, y1]) : Math.ceil(R / f.cell));
      const a = round ? y0 - halo : Math.max(0, y0 - halo);
      const { grid, data } = this.slice(f, a, round ? y1 + halo : Math.min(f.height, y1 + halo));
      const rows: [number, number] = [y0 - a, y1 - a];
      const done = await this.run(worker, { kind: 'offset', grid, data, profile, inflate, rows }, [data.buffer]);
      out.set(done.data!, y0 * f.width);
    });
    return out;
  }

  async lines(...[f, profile, ys]: Parameters<KernelHost['lines']>): Promise<Float32Array> {
    const halo = Math.ceil(profile.R / f.cell) + 2;
    const out = new Float32Array(f.width * ys.length);
    const row = (y: number) => Math.floor((y - f.originY) / f.cell);
    // Lines may lie far apart: what goes over to a thread is the field under them.
    const rows = ys.length > 0 ? row(ys[ys.length - 1]) - row(ys[0]) : 0;
    const width = Math.ceil((f.width * Math.max(ys.length, rows)) / Math.max(1, ys.length));
    await this.spread(this.bands(ys.length, width), async ([l0, l1], worker) => {
      if (l1 <= l0) return;
      const a = Math.min(f.height, Math.max(0, row(ys[l0]) - halo));
      const b = Math.max(a, Math.min(f.height, row(ys[l1 - 1]) + halo + 1));
      const { grid, data } = this.slice(f, a, b);
      const part = ys.slice(l0, l1);
      const done = await this.run(worker, { kind: 'lines', grid, data, profile, ys: part }, [data.buffer, part.buffer]);
      out.set(done.data!, l0 * f.width);
    });
    return out;
  }

  /** Cuts the rows that segments reach in bands, one a worker; few cells are not worth the way to another thread. */
  private async cut(
    limit: number | null,
    ...[f, profile, segments]: Parameters<KernelHost['remove']>
  ): Promise<Float32Array> {
    const [from, to] = rowsUnder(f, profile.R, segments);
    if ((to - from) * f.width <= FEW) {
      if (limit !== null) return engageStock(f, profile, segments, limit);
      removeStock(f, profile, segments);
      return new Float32Array(0);
    }
    const engaged = new Float32Array(limit === null ? 0 : (segments.length / SEGMENT) * ENGAGED);
    const told: (Float32Array | undefined)[] = [];
    await this.spread(this.bands(to - from, f.width), async ([a, b], worker, n) => {
      const { grid, data } = this.slice(f, from + a, from + b);
      const copy = segments.slice();
      const task = { kind: 'cut', grid, data, profile, segments: copy, limit } as const;
      const done = await this.run(worker, task, [data.buffer, copy.buffer]);
      f.data.set(done.data!, (from + a) * f.width);
      told[n] = done.engaged;
    });
    // In their order, whoever was done first: sums of floats depend on it.
    for (const t of told) if (t) joinEngaged(engaged, t);
    return engaged;
  }

  async remove(...at: Parameters<KernelHost['remove']>): Promise<void> {
    await this.cut(null, ...at);
  }

  async engage(...[f, profile, segments, limit]: Parameters<KernelHost['engage']>): Promise<Float32Array> {
    return this.cut(limit, f, profile, segments);
  }

  async work<K extends keyof Works>(
    name: K,
    common: Works[K]['common'],
    pieces: Works[K]['piece'][],
    each: (done: Works[K]['done'], n: number) => void,
  ): Promise<void> {
    if (pieces.length === 0) return;
    const work = { name, common: inSharedMemory(common) } as never;
    const begin = (w: typeof work | null) =>
      Promise.all(this.workers.map((_, worker) => this.run(worker, { kind: 'common', work: w })));
    await begin(work);
    const size = Math.max(1, Math.min(MOST_PIECES, Math.floor(pieces.length / (8 * this.workers.length))));
    const shares = Array.from({ length: Math.ceil(pieces.length / size) }, (_, n) => n * size);
    const share = async (from: number, worker: number) => {
      const { done } = await this.run(worker, { kind: 'pieces', pieces: pieces.slice(from, from + size) });
      done!.forEach((d, n) => {
        each(d, from + n);
      });
    };
    try {
      await this.spread(shares, share, AHEAD);
    } finally {
      await begin(null);
    }
  }

  async close(): Promise<void> {
    await Promise.all(this.workers.map((w) => w.terminate()));
  }
}
