import { readdirSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { createJob, saveJob } from '../src/server/jobs';
import { openShop } from '../src/server/shop';
import type { Verdict } from './say';
import { smallJob } from './small';

interface Held {
  heap: number;
  resident: number;
  files: number;
}

/** Waits until nothing is planned any more: threads that run have files of their own open. */
async function idle(): Promise<void> {
  const count = () => readdirSync('/proc/self/task').length;
  for (let still = 0, was = count(); still < 15; await sleep(200)) {
    const now = count();
    still = now === was ? still + 1 : 0;
    was = now;
  }
}

async function held(): Promise<Held> {
  await idle();
  for (let i = 0; i < 3; i++) {
    (globalThis as { gc?: () => void }).gc?.();
    await sleep(50);
  }
  const m = process.memoryUsage();
  const files = readdirSync('/proc/self/fd').length;
  return { heap: (m.heapUsed + m.arrayBuffers) / 1e6, resident: m.rss / 1e6, files };
}

/** Plans of a small board one after the other: memory stays where it was after the first ten, and nothing is left open. */
export async function plans(folder: string, count: number): Promise<Verdict> {
  if (!(globalThis as { gc?: unknown }).gc) return { passed: null, said: 'needs node --expose-gc' };
  const shop = await openShop(folder);
  const made = await createJob(shop.db, smallJob('Again and again'));
  let { revision } = made;
  let first: Held | null = null;
  for (let i = 0; i < count; i++) {
    ({ revision } = await saveJob(shop.db, made.id, revision, smallJob(`Plan ${i}`, 2 + (i % 100) / 100)));
    const { id } = await shop.plans.start(made.id);
    for (;;) {
      const { status, message } = await shop.plans.state(id);
      if (status === 'done') break;
      if (status !== 'queued' && status !== 'running') throw new Error(`plan ${i} ${status}: ${message}`);
      await sleep(20);
    }
    if (i === 9) first = await held();
  }
  const last = await held();
  await shop.plans.close();
  await shop.db.destroy();
  const was = first!;
  return {
    passed: last.heap <= 1.1 * was.heap && last.resident <= 1.25 * was.resident && last.files <= was.files,
    said: `${count} plans and saves; heap and buffers ${was.heap.toFixed(1)} then ${last.heap.toFixed(1)} MB, resident ${was.resident.toFixed(0)} then ${last.resident.toFixed(0)} MB, open files ${was.files} then ${last.files}`,
  };
}
