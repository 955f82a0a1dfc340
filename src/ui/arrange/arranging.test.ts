import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { WorkerGone } from '../workers/hand';
import { Arranging, surfaceKey } from './arranging';
import type { ArrangeInput, CoarseLook, Look } from './looks';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

const input = (x: number, more: Partial<ArrangeInput> = {}): ArrangeInput => ({
  layers: [],
  own: 0,
  seat: { mode: 'raised', skin: 0, drop: 0, press: null },
  board: { x, y: 100, thickness: 20, drum: null },
  passes: [],
  cutters: [],
  selected: [],
  axis: 'x',
  moving: false,
  cell: 0.1,
  ...more,
});

const LOOK: Look = {
  cells: 0,
  seconds: 0,
  grid: { width: 1, height: 1, cell: 1, originX: 0, originY: 0 },
  target: new Float32Array(1),
  mask: new Uint8Array(1),
  clipped: null,
  facts: {
    peak: 0,
    low: 0,
    peakAt: { x: 0, y: 0 },
    lowAt: { x: 0, y: 0 },
    covered: 0,
    clipped: { area: 0, most: 0, x: 0, y: 0 },
  },
};
/** Arrangers that answer when they are told to. */
function slow() {
  const asked: { of: number; how: string; answer(look?: Partial<CoarseLook>): Promise<void> }[] = [];
  const ask = (how: string) => (i: ArrangeInput) =>
    new Promise<CoarseLook>((resolve) => {
      const answer = async (look: Partial<CoarseLook> = {}) => {
        resolve({ ...LOOK, cells: i.board.x, close: null, section: null, thin: {}, problems: {}, ...look });
        await vi.advanceTimersByTimeAsync(0);
      };
      asked.push({ of: i.board.x, how, answer });
    });
  const work = new Arranging({ coarse: ask('coarse'), fine: ask('fine'), full: ask('full') });
  const of = (how: string) => () => asked.filter((a) => a.how === how);
  return { work, coarse: of('coarse'), fine: of('fine'), full: of('full') };
}

test('while one is worked out, what comes meanwhile waits, and only the newest of it is worked out next', async () => {
  const { work, coarse } = slow();
  for (const x of [1, 2, 3]) work.show(input(x, { moving: true }));
  expect(coarse().map((a) => a.of)).toEqual([1]);
  await coarse()[0].answer();
  expect(work.get().coarse?.cells).toBe(1);
  expect(coarse().map((a) => a.of)).toEqual([1, 3]);
  await coarse()[1].answer();
  expect(work.get().coarse?.cells).toBe(3);
});

test('it is sharpened when things rest, once, and the full grid follows when they go on resting', async () => {
  const { work, fine, full } = slow();
  work.show(input(1));
  await vi.advanceTimersByTimeAsync(100);
  work.show(input(2));
  await vi.advanceTimersByTimeAsync(100);
  expect(fine()).toHaveLength(0);
  // Another selection is the same surface: it does not begin the wait anew.
  work.show(input(2, { selected: ['a'] }));
  await vi.advanceTimersByTimeAsync(50);
  expect(fine().map((a) => a.of)).toEqual([2]);
  await fine()[0].answer({ cells: 500 });
  expect(work.get().sharp).toMatchObject({ of: surfaceKey(input(2)), look: { cells: 500 } });
  work.show(input(2, { selected: ['b'] }));
  await vi.advanceTimersByTimeAsync(500);
  expect(full()).toHaveLength(0);
  await vi.advanceTimersByTimeAsync(200);
  expect(full().map((a) => a.of)).toEqual([2]);
  await full()[0].answer({ cells: 9000 });
  expect(work.get().sharp).toMatchObject({ of: surfaceKey(input(2)), look: { cells: 9000 } });
  await vi.advanceTimersByTimeAsync(5000);
  expect([fine().length, full().length]).toEqual([1, 1]);
});

test('whoever goes on does not wait for a full grid, and one that comes late is no step back', async () => {
  const { work, fine, full } = slow();
  work.show(input(1));
  await vi.advanceTimersByTimeAsync(200);
  await fine()[0].answer();
  await vi.advanceTimersByTimeAsync(700);
  expect(full()).toHaveLength(1);
  work.show(input(2));
  await vi.advanceTimersByTimeAsync(200);
  expect(fine().map((a) => a.of)).toEqual([1, 2]);
  await fine()[1].answer();
  await full()[0].answer();
  expect(work.get().sharp?.of).toBe(surfaceKey(input(2)));
});

test('nothing is sharpened while a hand moves, and it is when it lets go where it began', async () => {
  const { work, fine } = slow();
  work.show(input(1));
  await vi.advanceTimersByTimeAsync(50);
  work.show(input(2, { moving: true }));
  await vi.advanceTimersByTimeAsync(500);
  expect(fine()).toHaveLength(0);
  work.show(input(1));
  await vi.advanceTimersByTimeAsync(500);
  expect(fine().map((a) => a.of)).toEqual([1]);
});

test('a worker that is gone is asked again, until there is one', async () => {
  let tries = 0;
  const gone = async (i: ArrangeInput) => {
    if (++tries < 4) throw new WorkerGone('arranges');
    return { ...LOOK, cells: i.board.x, close: null, section: null, thin: {}, problems: {} };
  };
  const work = new Arranging({ coarse: gone, fine: gone, full: gone });
  work.show(input(1));
  await vi.advanceTimersByTimeAsync(1000);
  expect(work.get()).toEqual({ coarse: null, sharp: null });
  await vi.advanceTimersByTimeAsync(20_000);
  expect(work.get().coarse?.cells).toBe(1);
  expect(work.get().sharp?.of).toBe(surfaceKey(input(1)));
  work.stop();
});

test('one that fails leaves the last look, and the next is worked out', async () => {
  let fails = true;
  const work = new Arranging({
    coarse: async (i) => {
      if (fails) throw new Error('no');
      return { ...LOOK, cells: i.board.x, close: null, section: null, thin: {}, problems: {} };
    },
    fine: async () => Promise.reject(new Error('no')),
    full: async () => Promise.reject(new Error('no')),
  });
  work.show(input(1));
  await vi.advanceTimersByTimeAsync(500);
  expect(work.get()).toEqual({ coarse: null, sharp: null });
  fails = false;
  work.show(input(2));
  await vi.advanceTimersByTimeAsync(0);
  expect(work.get().coarse?.cells).toBe(2);
});

test('while it is being sharpened, only the newest of what comes to rest waits for the next', async () => {
  const { work, fine } = slow();
  for (const x of [1, 2, 3]) {
    work.show(input(x));
    await vi.advanceTimersByTimeAsync(200);
  }
  expect(fine().map((a) => a.of)).toEqual([1]);
  await fine()[0].answer();
  expect(fine().map((a) => a.of)).toEqual([1, 3]);
  await fine()[1].answer();
  expect(work.get().sharp?.of).toBe(surfaceKey(input(3)));
});

test('the same input once more is no other, and what goes with a coarse look is told just before it is shown', async () => {
  const told: (number | undefined)[] = [];
  const asked: number[] = [];
  const work: Arranging = new Arranging(
    {
      coarse: async (i) => {
        asked.push(i.board.x);
        return { ...LOOK, cells: i.board.x, close: null, section: null, thin: {}, problems: {} };
      },
      fine: async () => LOOK,
      full: async () => LOOK,
    },
    () => told.push(work.get().coarse?.cells),
  );
  const one = input(1, { moving: true });
  work.show(one);
  work.show(one);
  await vi.advanceTimersByTimeAsync(0);
  work.show(one);
  await vi.advanceTimersByTimeAsync(0);
  expect(asked).toEqual([1]);
  work.show(input(2, { moving: true }));
  await vi.advanceTimersByTimeAsync(0);
  expect(asked).toEqual([1, 2]);
  expect(told).toEqual([undefined, 1]);
  work.stop();
});
