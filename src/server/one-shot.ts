import { Worker } from 'node:worker_threads';
import { workerFile } from './kernel-pool';

/** Orders given to worker threads that live for one order each, a few at a time; what waits goes in its turn. */
export class OneShot<Order, News> {
  private busy = 0;
  private readonly waiting: (() => void)[] = [];

  /** @param most threads at once: what each holds in memory is bounded, and so is the whole */
  constructor(
    private readonly worker: string,
    private readonly most: number,
  ) {}

  /** @param signal ends the thread, as when the person has gone @throws Error when the thread ends before it answers */
  async run(order: Order, signal?: AbortSignal): Promise<News> {
    if (this.busy >= this.most) await new Promise<void>((go) => this.waiting.push(go));
    else this.busy++;
    let worker: Worker | undefined;
    try {
      signal?.throwIfAborted();
      worker = new Worker(workerFile(this.worker), { workerData: order });
      const w = worker;
      return await new Promise<News>((resolve, reject) => {
        w.once('message', resolve);
        w.once('error', reject);
        w.once('exit', () => reject(new Error('the work stopped before it was done; try again')));
        signal?.addEventListener('abort', () => reject(signal.reason), { once: true });
      });
    } finally {
      await worker?.terminate();
      const next = this.waiting.shift();
      // A place that becomes free goes straight to who waits for it.
      if (next) next();
      else this.busy--;
    }
  }
}
