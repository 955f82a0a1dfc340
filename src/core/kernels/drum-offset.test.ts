import fc from 'fast-check';
import { expect, test } from 'vitest';
import { profileHeight } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import { cutterOffset, flatOffset } from './cutter-offset';
import { SHAPES } from './dense-test-kit';
import { drumOffset } from './drum-offset';
import { drumOf, heldAt } from './drum-test-kit';

/** Even pseudo-random numbers in 0..1, the same for the same seed. */
function numbers(seed: number) {
  let s = (seed >>> 0) + 1;
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return s / 4294967296;
  };
}

/** Rough ground round a drum: noise, with walls where the noise is cut off. */
function ground(
  seed: number,
  x: number,
  radius: number,
  deep: number,
): HeightField & { drum: { radius: number; rows: number } } {
  const next = numbers(seed);
  return drumOf(x, radius, 0.3, () => (next() < 0.3 ? -deep * next() : next() < 0.5 ? 0 : -deep));
}

test('the offset round a drum is the plain definition, for every shape, walls and deep grooves', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SHAPES),
      fc.integer(),
      fc.integer({ min: 30, max: 120 }),
      fc.integer({ min: 0, max: 60 }),
      fc.constantFrom(0, 0.17),
      (p, seed, r, share, wider) => {
        const f = ground(seed, 5, r / 10, (r / 10) * (share / 100));
        const got = drumOffset(f, f.drum, p, wider);
        const next = numbers(seed + 1);
        for (let n = 0; n < 12; n++) {
          const k = Math.floor(next() * got.length);
          const [i, j] = [k % f.width, Math.floor(k / f.width)];
          const at = { x: f.originX + i * f.cell, a: (f.originY + j * f.cell) / f.drum.radius };
          expect(Math.abs(got[k] - heldAt(f, p, wider, at))).toBeLessThan(2e-5);
        }
      },
    ),
    { numRuns: 40 },
  );
});

test('what comes of the rows that are asked for is what comes of all of them', () => {
  const f = ground(7, 8, 6, 1);
  const all = drumOffset(f, f.drum, SHAPES[1], 0);
  const some = drumOffset(f, f.drum, SHAPES[1], 0, [5, 11]);
  expect(some).toEqual(all.subarray(5 * f.width, 11 * f.width));
});

test('the seam is like any other place: a drum turned by some rows has its offset turned by as many', () => {
  const f = ground(3, 6, 5, 1.5);
  const by = 7 * f.width;
  const turned = { ...f, data: Float32Array.from(f.data, (_, k) => f.data[(k + by) % f.data.length]) };
  for (const p of SHAPES) {
    const [a, b] = [drumOffset(f, f.drum, p, 0), drumOffset(turned, f.drum, p, 0)];
    for (let k = 0; k < a.length; k++) expect(b[k]).toBeCloseTo(a[(k + by) % a.length], 5);
  }
});

test('a drum of very large radius is a board', () => {
  const radius = 20_000;
  const next = numbers(5);
  const data = Float32Array.from({ length: 40 * 60 }, () => -3 * next());
  const board = { width: 40, height: 60, cell: 0.2, originX: 0.1, originY: 0.1, data };
  const drum = { radius, rows: Math.round((2 * Math.PI * radius) / 0.2) };
  for (const p of SHAPES) {
    const around = drumOffset({ ...board, drum }, drum, p, 0);
    const flat = p.shape === 0 ? flatOffset(board, p.R) : cutterOffset(board, p.R, (r) => profileHeight(p, r));
    // Beyond the ends of the rows there is air on both; radii of 20 m are kept to 2 micrometres.
    for (let k = 0; k < flat.length; k++) expect(Math.abs(around[k] - flat[k])).toBeLessThan(4e-3);
  }
});

test('closed forms: a flat end on a round bar, and a ball; whole rays collide, not only their ends', () => {
  const bar = drumOf(12, 10, 0.1, () => 0);
  const middle = (f: Float32Array) => f[Math.floor(bar.height / 2) * bar.width + Math.floor(bar.width / 2)];
  // The tip of either rests on the bar under its axis.
  expect(middle(drumOffset(bar, bar.drum, SHAPES[0], 0))).toBeCloseTo(0, 5);
  expect(middle(drumOffset(bar, bar.drum, SHAPES[1], 0))).toBeCloseTo(0, 5);
  // One tall ray a degree and a half beside a flat end of radius 1.2 that reaches out to 10, the rest at 6: its end lies 0.26 mm beside the axis.
  const a = bar.drum.rows / 2;
  const one = drumOf(12, 10, 0.1, () => -4);
  one.data.fill(0, (a + 3) * one.width, (a + 4) * one.width);
  const da = (2 * Math.PI * 3) / one.drum.rows;
  expect(drumOffset(one, one.drum, SHAPES[0], 0)[a * one.width + 60]).toBeCloseTo(10 * Math.cos(da) - 10, 4);
  // Further round its end lies past the bit's side: what holds the tip is the place of the ray at the side, w / tan a.
  const far = drumOf(12, 10, 0.1, () => -4);
  far.data.fill(0, (a + 14) * far.width, (a + 15) * far.width);
  const db = (2 * Math.PI * 14) / far.drum.rows;
  expect(10 * Math.sin(db)).toBeGreaterThan(1.2);
  expect(drumOffset(far, far.drum, SHAPES[0], 0)[a * far.width + 60]).toBeCloseTo(1.2 / Math.tan(db) - 10, 3);
});
