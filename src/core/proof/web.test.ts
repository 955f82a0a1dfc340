import fc from 'fast-check';
import { expect, test } from 'vitest';
import { boardGrid, cellPlace, type Grid } from '../field/height-field';
import type { Solid } from './solid';
import { websOf } from './web';

/** A solid from its heights as functions of place. */
function solid(grid: Grid, top: (x: number, y: number) => number, bottom: (x: number, y: number) => number): Solid {
  const n = grid.width * grid.height;
  const of = (f: typeof top) =>
    Float32Array.from({ length: n }, (_, k) => {
      const { x, y } = cellPlace(grid, k);
      return f(x, y);
    });
  return { grid, top: of(top), bottom: of(bottom) };
}
const none = () => false;

/** Height of a spherical dish of radius R whose lowest point lies `deep` below the surface, at the distance r from its middle. */
const dish = (R: number, deep: number, r: number) =>
  Math.min(0, R - deep - Math.sqrt(Math.max(0, R * R - Math.min(r, R) ** 2)));

test('two spherical dishes over each other leave the thickness less both depths, in closed form', () => {
  const T = 12;
  const s = solid(
    boardGrid(60, 60, 0.25),
    (x, y) => dish(30, 4, Math.hypot(x - 30, y - 30)),
    (x, y) => -T - dish(40, 5, Math.hypot(x - 33, y - 30)),
  );
  const found = websOf(s, 1, none, []);
  // The least of T + d1 + d2 along the line through both middles, by a fine search.
  let exact = Infinity;
  for (let x = 20; x < 40; x += 0.001)
    exact = Math.min(exact, T + dish(30, 4, Math.abs(x - 30)) + dish(40, 5, Math.abs(x - 33)));
  expect(Math.abs(found.web - exact)).toBeLessThan(0.01);
  expect(found.thin).toEqual([]);
});

test('a wedge-shaped board is thinnest at its low edge, and thin up to where it is as thick as it is to be', () => {
  const grid = boardGrid(40, 10, 0.5);
  const s = solid(
    grid,
    (x) => -2 + x * 0.1,
    () => -3,
  );
  const { web, thin } = websOf(s, 2, none, []);
  expect(web).toBeCloseTo(1 + 0.25 * 0.1, 6);
  expect(thin).toHaveLength(1);
  expect(cellPlace(grid, thin[0].cell).x).toBeCloseTo(0.25, 9);
});

test('two grooves that cross open the board in a lens whose area is that of the closed form', () => {
  // Grooves of half-round section, R across, that go in by `deep` from either side at right angles: open where their depths add up to the thickness.
  const [R, T] = [10, 11];
  const depth = (d: number) => -Math.sqrt(Math.max(0, R * R - d * d)) + (R - 7);
  const s = solid(
    boardGrid(40, 40, 0.05),
    (_, y) => Math.min(0, depth(y - 20)),
    (x) => -T - Math.min(0, depth(x - 20)),
  );
  const [opening] = websOf(s, 1.6, none, []).thin;
  // sqrt(R2 - u2) + sqrt(R2 - v2) >= T + 2 (R - 7): for each u the width in v is known; Simpson's rule over u.
  const c = T + 2 * (R - 7);
  const width = (u: number) => {
    const h = c - Math.sqrt(R * R - u * u);
    return h > R ? 0 : 2 * Math.sqrt(R * R - h * h);
  };
  const u0 = Math.sqrt(R * R - (c - R) ** 2);
  const n = 20_000;
  let area = 0;
  for (let i = 0; i <= n; i++) area += (i === 0 || i === n ? 1 : i % 2 ? 4 : 2) * width(-u0 + (2 * u0 * i) / n);
  area *= (2 * u0) / n / 3;
  expect(Math.abs(opening.open - area) / area).toBeLessThan(0.01);
});

test('an opening that is wanted counts with the thin rim around it; another does not', () => {
  const grid = boardGrid(60, 30, 0.5);
  const hole = (cx: number) => (x: number, y: number) => 2 * dish(9, 9, Math.hypot(x - cx, y - 15));
  const s = solid(
    grid,
    (x, y) => Math.min(hole(15)(x, y), hole(45)(x, y)),
    () => -12,
  );
  const all = websOf(s, 2, none, []);
  expect(all.thin.map((t) => t.wanted)).toEqual([false, false]);
  expect(all.web).toBeLessThanOrEqual(0);
  const one = websOf(s, 2, none, [{ x: 15, y: 15 }]);
  expect(one.thin.filter((t) => t.wanted)).toHaveLength(1);
  expect(cellPlace(grid, one.cell).x).toBeGreaterThan(30);
  const both = websOf(s, 2, none, [
    { x: 15, y: 15 },
    { x: 45, y: 15 },
  ]);
  expect(both.web).toBeGreaterThanOrEqual(2);
});

test('pieces hang together as by the plain definition: who is reached from a thin cell over thin cells', () => {
  const grid = boardGrid(7, 6, 1);
  const n = grid.width * grid.height;
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 3 }), { minLength: n, maxLength: n }), (wood) => {
      const s: Solid = { grid, top: Float32Array.from(wood), bottom: new Float32Array(n) };
      const { thin, web } = websOf(s, 1.5, none, []);
      // Plain: labels spread until nothing changes.
      const label = wood.map((w, k) => (w < 1.5 ? k : -1));
      for (let changed = true; changed; ) {
        changed = false;
        for (let k = 0; k < n; k++) {
          if (label[k] < 0) continue;
          const [i, j] = [k % 7, Math.floor(k / 7)];
          for (const q of [i > 0 ? k - 1 : k, i < 6 ? k + 1 : k, j > 0 ? k - 7 : k, j < 5 ? k + 7 : k])
            if (label[q] >= 0 && label[q] < label[k]) [label[k], changed] = [label[q], true];
        }
      }
      expect(thin.length).toBe(new Set(label.filter((l) => l >= 0)).size);
      expect(thin.reduce((a, t) => a + t.open, 0)).toBe(wood.filter((w) => w <= 0).length);
      expect(web).toBe(Math.min(...wood));
    }),
  );
});
