import { expect, test } from 'vitest';
import { unrolled } from '../field/drum';
import { sampleField } from '../field/height-field';
import { drumOf } from './drum-test-kit';
import { removeStock } from './stock-removal';

// What bits leave round a drum, held against closed forms of the cylinder and the circle (any geometry handbook), worked out here by hand.

const RADIUS = 25;
const BALL = { shape: 1, R: 1.5875, p0: 0, p1: 0, p2: 0 } as const;
const FLAT = { shape: 0, R: 3.175, p0: 0, p1: 0, p2: 0 } as const;
const bar = (cell: number) => drumOf(16, RADIUS, cell, () => 0);

test('the sheet of a drum is pi times its diameter wide; half way round 65 mm is 102.1 mm, 1.5708 times as far as across', () => {
  expect(unrolled(25)).toBeCloseTo(157.0796, 4);
  expect(unrolled(32.5) / 2).toBeCloseTo(102.1, 1);
  expect(unrolled(32.5) / 2 / 65).toBeCloseTo(1.5708, 4);
});

/** Cuts along the drum at two angles and says how high the wood stands halfway between them, over the depth, mm. */
function ridgeAlong(step: number, depth: number): number {
  const f = bar(0.02 * (RADIUS / 25));
  // The ridge's edge lies on a row of cells.
  const middle = f.originY + 2000 * f.cell;
  const rows = [-step / 2, step / 2].map((a) => middle + a * RADIUS);
  for (const y of rows) removeStock(f, BALL, Float64Array.from([4, y, -depth, 12, y, -depth, 0]));
  return sampleField(f, 8, middle) + depth;
}

test('a ball along a drum leaves ridges of e cos(da / 2) - sqrt(R² - e² sin²(da / 2)) - rho, e = rho + R; the sheet’s own formula is too low', () => {
  for (const [step, depth] of [
    [0.02, 1],
    [0.05, 1],
    [0.05, 8],
  ]) {
    const rho = RADIUS - depth;
    const e = rho + BALL.R;
    const want = e * Math.cos(step / 2) - Math.sqrt(BALL.R ** 2 - (e * Math.sin(step / 2)) ** 2) - rho;
    expect(Math.abs(ridgeAlong(step, depth) - want)).toBeLessThan(3e-3 * want + 1e-4);
    // As on a board, with the step on the surface that is left.
    const flat = BALL.R - Math.sqrt(BALL.R ** 2 - ((rho * step) / 2) ** 2);
    expect(flat).toBeLessThan(want);
  }
});

test('a ball around a drum leaves the ridges of a board, R - sqrt(R² - (s / 2)²)', () => {
  const f = bar(0.05);
  const s = 0.6;
  for (const x of [8 - s / 2, 8 + s / 2])
    removeStock(f, BALL, Float64Array.from([x, 0, -1, x, unrolled(RADIUS), -1, 0]));
  const want = BALL.R - Math.sqrt(BALL.R ** 2 - (s / 2) ** 2);
  for (const y of [0.1, 40, 100, 157]) expect(sampleField(f, 8, y) + 1).toBeCloseTo(want, 2);
});

test('a flat end mill along a drum leaves a facet: sqrt(r² + (w / 2)²) - r over its middle, at half its width', () => {
  const f = bar(0.05);
  const depth = 2;
  const r = RADIUS - depth;
  removeStock(f, FLAT, Float64Array.from([4, 40, -depth, 12, 40, -depth, 0]));
  for (const half of [0.5, 1.5, 3]) {
    // A place of the facet lies atan(half / r) round from its middle.
    const y = 40 + RADIUS * Math.atan2(half, r);
    expect(sampleField(f, 8, y) + depth).toBeCloseTo(Math.sqrt(r * r + half * half) - r, 3);
  }
  // Beyond its own radius the bar stands.
  expect(sampleField(f, 8, 40 + RADIUS * Math.atan2(3.4, r))).toBe(0);
});
