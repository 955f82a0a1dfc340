import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { Profile } from '../cutter/cutter';
import { SHAPES } from './dense-test-kit';
import { drumOf, enteredAt } from './drum-test-kit';
import { AREA, BITE, ENGAGED, VOLUME } from './engagement';
import { engageStock, removeStock } from './stock-removal';

const RADIUS = 9;
const TURN = 2 * Math.PI * RADIUS;
const bar = () => drumOf(14, RADIUS, 0.4, () => 0);
const place = fc.tuple(
  fc.integer({ min: 300, max: 1100 }).map((v) => v / 100),
  fc.integer({ min: -5000, max: 9000 }).map((v) => v / 1000),
  fc.integer({ min: -3500, max: 400 }).map((v) => v / 1000),
);

/** Most that a ray lies over and under the plain definition, mm, by shape: flat, ball, bull-nose, tapered ball, V. */
const OVER = [4e-3, 2e-3, 2e-2, 2e-2, 3e-2];
const UNDER = 2e-3;

/** Cuts a bar with one move and compares every ray near it with the plain definition. @returns the most that one lies over and under it, mm */
function compared(p: Profile, s: number[]): { over: number; under: number } {
  const f = bar();
  removeStock(f, p, Float64Array.from(s));
  let [over, under] = [0, 0];
  for (let k = 0; k < f.data.length; k++) {
    const [i, j] = [k % f.width, Math.floor(k / f.width)];
    const at = { x: f.originX + i * f.cell, y: f.originY + j * f.cell };
    // Far from the way nothing is to be looked for.
    if (at.x < Math.min(s[0], s[3]) - p.R - 0.1 || at.x > Math.max(s[0], s[3]) + p.R + 0.1) {
      expect(f.data[k]).toBe(0);
      continue;
    }
    const want = (R: number) => Math.min(0, enteredAt(f, { ...p, R }, s, at, 40).z);
    const off = f.data[k] - want(p.R);
    // What lies at the very rim may fall either way.
    if (Math.abs(off) > 1e-3 && Math.abs(want(p.R + 2e-3) - want(p.R - 2e-3)) > 0.05) continue;
    over = Math.max(over, off);
    under = Math.max(under, -off);
  }
  return { over, under };
}

test('single moves along, around, in and out and all at once leave what the plain definition leaves, for every shape', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SHAPES),
      place,
      place,
      fc.constantFrom('free', 'along', 'around', 'level', 'down'),
      (p, a, b, way) => {
        const s = [...a, ...b, 0];
        if (way === 'along') s[4] = s[1];
        if (way === 'around') s[3] = s[0];
        if (way === 'level') s[5] = s[2];
        // No end mill falls by more than half of its way but straight down.
        const most = p.shape === 0 ? 0.5 * Math.hypot(s[3] - s[0], s[4] - s[1]) : Infinity;
        s[5] = Math.max(s[2] - most, Math.min(s[2] + most, s[5]));
        if (way === 'down') [s[3], s[4], s[5]] = [s[0], s[1], b[2]];
        const { over, under } = compared(p, s);
        expect(under).toBeLessThan(UNDER);
        expect(over).toBeLessThan(OVER[p.shape]);
      },
    ),
    { numRuns: 10 },
  );
});

/** A way of a ball on a wavy surface: along, round in a spiral, or across both. */
function wave(way: 'along' | 'spiral' | 'askew'): Float64Array {
  const n = 240;
  const at = (i: number) => {
    const t = i / n;
    const z = -1.5 - Math.sin(11 * t);
    if (way === 'along') return [2 + 10 * t, 3, z];
    return way === 'spiral' ? [3 + 3 * t, 2.5 * TURN * t, z] : [2 + 10 * t, 40 * t - 12, z];
  };
  return Float64Array.from(Array.from({ length: n }, (_, i) => [...at(i), ...at(i + 1), 0]).flat());
}

test('a chain of short moves leaves what each of them by itself leaves: none of their rays is forgotten', () => {
  for (const way of ['along', 'spiral', 'askew'] as const) {
    const segments = wave(way);
    const [chain, single] = [bar(), bar()];
    removeStock(chain, SHAPES[1], segments);
    for (let s = 0; s < segments.length; s += 7) removeStock(single, SHAPES[1], segments.subarray(s, s + 7));
    for (let k = 0; k < chain.data.length; k++) expect(Math.abs(chain.data[k] - single.data[k])).toBeLessThan(1e-3);
    expect(chain.data.some((v) => v < -1)).toBe(true);
  }
});

test('a way over the seam, and one of several turns, cuts what the same way elsewhere cuts', () => {
  const cut = (from: number) => {
    const f = bar();
    removeStock(f, SHAPES[1], Float64Array.from([4, from, -1, 4, from + 5, -2, 0]));
    return f;
  };
  const [middle, over] = [cut(20 * 0.25), cut(TURN - 2)];
  const sum = (d: Float32Array) => d.reduce((a, v) => a + v, 0);
  expect(sum(over.data)).toBeCloseTo(sum(middle.data), 0);
  expect(over.data.slice(0, over.width).some((v) => v < -1)).toBe(true);
  expect(over.data.slice(-over.width).some((v) => v < -1)).toBe(true);
  // Three whole turns in one move at one place: a groove all around, as deep everywhere.
  const f = bar();
  removeStock(f, SHAPES[1], Float64Array.from([7, 1, -1.25, 7, 1 + 3 * TURN, -1.25, 0]));
  const i = Math.round((7 - f.originX) / f.cell);
  const column = Array.from({ length: f.height }, (_, j) => f.data[j * f.width + i]);
  expect(Math.max(...column) - Math.min(...column)).toBeLessThan(1e-4);
});

test('what a move meets is told as on a board: the volume of a groove, its bite, and nothing twice at the seam', () => {
  const f = bar();
  const told = engageStock(f, SHAPES[1], Float64Array.from([7, TURN - 9, -1, 7, TURN + 9, -1, 0]), 0);
  // Pappus: the area of the groove's section times the way of its middle, here about half a millimetre in.
  const R = SHAPES[1].R;
  const area = R * R * Math.acos((R - 1) / R) - (R - 1) * Math.sqrt(2 * R - 1);
  expect(told[VOLUME]).toBeGreaterThan(0.93 * area * 18 * ((RADIUS - 0.4) / RADIUS));
  expect(told[VOLUME]).toBeLessThan(1.25 * area * 18);
  expect(told[BITE]).toBeCloseTo(1, 1);
  expect(told[AREA]).toBeGreaterThan(0);
  expect(told.length).toBe(ENGAGED);
});

test('a way that goes round deeper and deeper meets one level a turn, over the seam as elsewhere, in both directions', () => {
  for (const way of [1, -1]) {
    const pieces = 8;
    const segments: number[] = [];
    let [y, z] = [0.3 * TURN, 0];
    const go = (by: number, to: number) => {
      segments.push(7, y, z, 7, y + way * by, to, 0);
      [y, z] = [y + way * by, to];
    };
    for (let level = 1; level <= 4; level++) {
      for (let k = 1; k <= 2; k++) go(TURN / pieces, -0.8 * (level - 1) - 0.4 * k);
      for (let k = 0; k < pieces; k++) go(TURN / pieces, z);
    }
    const told = engageStock(bar(), SHAPES[0], Float64Array.from(segments), 0);
    const bites = Array.from({ length: told.length / ENGAGED }, (_, i) => told[i * ENGAGED + BITE]);
    expect(Math.max(...bites)).toBeCloseTo(0.8, 2);
  }
});
