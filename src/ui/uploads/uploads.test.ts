import { expect, test } from 'vitest';
import { Uploads, type Way } from './uploads';

const file = (name: string, size = 1) => ({ name, size }) as File;
const settle = () => new Promise((r) => setTimeout(r));

/** Ways that end when they are told to. */
function byHand() {
  const ways: {
    name: string;
    end(href: string | null): void;
    fail(why: string): void;
    progress(s: number): void;
    cancelled: boolean;
  }[] = [];
  const begin = (f: File, progress: (share: number) => void): Way => {
    let [end, fail]: [(href: string | null) => void, (e: Error) => void] = [() => {}, () => {}];
    const done = new Promise<string | null>((resolve, reject) => {
      [end, fail] = [resolve, reject];
    });
    const way = { name: f.name, end, fail: (why: string) => fail(new Error(why)), progress, cancelled: false };
    ways.push(way);
    return {
      done,
      cancel: () => {
        way.cancelled = true;
        fail(new Error('cancelled'));
      },
    };
  };
  return { ways, begin };
}

test('files go one after the other, each with its share; one that is refused says why and the next goes on', async () => {
  const { ways, begin } = byHand();
  const all = new Uploads(begin);
  all.take([file('a.stl'), file('b.txt'), file('c.png')]);
  expect(all.get().files.map((f) => [f.name, f.share])).toEqual([
    ['a.stl', 0],
    ['b.txt', null],
    ['c.png', null],
  ]);
  ways[0].progress(0.4);
  expect(all.get().files[0].share).toBe(0.4);
  ways[0].end('/jobs/1');
  await settle();
  ways[1].fail('b.txt: is no relief');
  await settle();
  ways[2].end(null);
  await settle();
  expect(all.get().files.map((f) => [f.name, f.error, f.href])).toEqual([
    ['a.stl', null, '/jobs/1'],
    ['b.txt', 'b.txt: is no relief', null],
  ]);
});

test('one that is left is stopped and no more is said of it; one that waits never begins; one too large is not sent', async () => {
  const { ways, begin } = byHand();
  const all = new Uploads(begin);
  all.take([file('a.stl'), file('b.stl'), file('big.stl', 3 * 1024 ** 3)]);
  const [a, b] = all.get().files;
  all.leave(b.id);
  all.leave(a.id);
  expect(ways[0].cancelled).toBe(true);
  await settle();
  expect(ways).toHaveLength(1);
  expect(all.get().files.map((f) => f.error)).toEqual([expect.stringMatching(/more than 2 GB/)]);
  // What was said is cleared away by the next files.
  all.take([file('d.stl')]);
  expect(all.get().files.map((f) => f.name)).toEqual(['d.stl']);
});
