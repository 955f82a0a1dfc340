import { expect, test } from 'vitest';
import { drumOf } from '../kernels/drum-test-kit';
import { barOf, plainBar } from './bar';

// Section moduli in closed form: any text on the mechanics of materials, worked out here by hand.

const bar = (depth: (a: number, x: number) => number) =>
  barOf(
    drumOf(20, 10, 0.1, (x, a) => depth(a, x)),
    10,
  );

test('a plain bar: pi r², pi r³ / 4, and its own diameter', () => {
  const { core, weakest } = bar(() => -2)!;
  expect(core.radius).toBeCloseTo(8, 4);
  expect(weakest.area).toBeCloseTo(Math.PI * 64, 0);
  expect(Math.abs(weakest.modulus / ((Math.PI * 512) / 4) - 1)).toBeLessThan(2e-3);
  expect(plainBar(weakest.modulus)).toBeCloseTo(16, 1);
});

test('a square of side s bends first over its corners: s³ / (6 sqrt 2), though its axis is the same for all', () => {
  const half = 6;
  const { core, weakest } = bar((a) => half / Math.max(Math.abs(Math.cos(a)), Math.abs(Math.sin(a))) - 10)!;
  expect(core.radius).toBeCloseTo(6, 2);
  expect(Math.abs(weakest.area / 144 - 1)).toBeLessThan(5e-3);
  expect(Math.abs(weakest.modulus / (12 ** 3 / (6 * Math.SQRT2)) - 1)).toBeLessThan(1e-2);
});

test('the weakest section is found along the bar, and beside the axis about its own middle', () => {
  // A neck around x = 13, and a flat that takes away one side there.
  const { core, weakest } = bar((a, x) => {
    const flat = Math.abs(x - 13) < 2 && Math.cos(a) > 0 ? Math.min(10, 4 / Math.cos(a)) : 10;
    return flat - 10;
  })!;
  expect(Math.abs(weakest.x - 13)).toBeLessThan(2.2);
  expect(core.radius).toBeCloseTo(4, 1);
  // A circle of radius 10 less its segment beyond 4: area by the segment's own formula.
  const angle = 2 * Math.acos(0.4);
  expect(Math.abs(weakest.area / (Math.PI * 100 - 50 * (angle - Math.sin(angle))) - 1)).toBeLessThan(1e-2);
});

test('where nothing is left there is no bar', () => {
  expect(bar((_, x) => (x > 10 ? -10 : 0))).toBeNull();
});
