import { expect, test } from 'vitest';
import { Hand, WorkerGone } from './hand';

/** A worker that answers nothing, and can be made to break down. */
class Silent extends EventTarget {
  terminated = false;
  terminate() {
    this.terminated = true;
  }
  postMessage() {}
}

test('a worker that is gone is an error, and another is started for the next question', async () => {
  const started: Silent[] = [];
  const hand = new Hand<{ name(): string }>('says names', () => {
    const w = new Silent();
    started.push(w);
    return w as unknown as Worker;
  });
  const first = hand.ask((h) => h.name());
  started[0].dispatchEvent(new Event('error'));
  await expect(first).rejects.toThrow(new WorkerGone('says names').message);
  expect(started[0].terminated).toBe(true);

  const twice = hand.askTwice((h) => h.name());
  started[1].dispatchEvent(new Event('error'));
  await new Promise((r) => setTimeout(r));
  expect(started).toHaveLength(3);
  started[2].dispatchEvent(new Event('error'));
  await expect(twice).rejects.toBeInstanceOf(WorkerGone);
  expect(started).toHaveLength(3);
});

test('what a worker refuses is no reason to start another', async () => {
  let started = 0;
  const hand = new Hand<{ name(): string }>('says names', () => {
    started++;
    return new Silent() as unknown as Worker;
  });
  await expect(hand.askTwice(() => Promise.reject(new Error('no such name')))).rejects.toThrow('no such name');
  expect(started).toBe(1);
});
