import { expect, test } from 'vitest';
import { traced } from './section-solid';

const place = (n: number) => ({ n, at: (i: number) => 2 * i, py: (z: number) => 10 - z, thickness: 20 });
const along = (heights: number[], back = false) => traced((i) => heights[i], place(heights.length), back);

test('heights are traced from left to right, and back, no deeper than the board', () => {
  expect(along([0, -1, -30])).toBe('0 10L2 11L4 30');
  expect(along([0, -1, -30], true)).toBe('4 30L2 11L0 10');
});

test('a level stretch is drawn by its ends', () => {
  expect(along([0, 0, 0, 0])).toBe('0 10L6 10');
  expect(along([-2, 0, 0, 0, -3])).toBe('0 12L2 10L6 10L8 13');
  expect(along([-2, 0, 0, 0, -3], true)).toBe('8 13L6 10L2 10L0 12');
});

test('what is level is told by tenths of a pixel, and a slow slope is not lost', () => {
  const slope = Array.from({ length: 101 }, (_, i) => -0.01 * i);
  const steps = along(slope)
    .split('L')
    .map((p) => p.split(' ').map(Number));
  for (const [x, y] of steps) expect(Math.abs(y - (10 + 0.005 * x))).toBeLessThanOrEqual(0.051);
  expect(steps.at(-1)).toEqual([200, 11]);
  expect(steps.length).toBeLessThan(25);
});
