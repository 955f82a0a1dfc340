import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { HeightField } from '../field/height-field';
import { SHAPES as shapes, sweptOver } from './dense-test-kit';
import { BITE, ENGAGED } from './engagement';
import { engageStock, removeStock } from './stock-removal';

function slab(n: number): HeightField {
  return { width: n, height: n, cell: 0.2, originX: 0.03, originY: -0.05, data: new Float32Array(n * n) };
}

// Evenly over their range: a double of any size would nearly always lie close to 0.
const evenly = (min: number, max: number) => fc.integer({ min: 0, max: 1e6 }).map((v) => min + (v / 1e6) * (max - min));
const coordinate = evenly(0.5, 5);
const depth = evenly(-4, 1);

test('stock removal is the exact swept cutter for every shape, slope and direction', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...shapes),
      fc.array(fc.tuple(coordinate, coordinate, depth), { minLength: 2, maxLength: 4 }),
      fc.constantFrom('free', 'raster', 'plunge', 'chain'),
      evenly(0.02, 0.6),
      (p, points, kind, step) => {
        // Short moves on one line at any angle, each on a slope of its own, as finishing makes them.
        if (kind === 'chain') {
          const [[x, y], [, angle]] = points;
          const line = Array.from({ length: 9 }, (_, n) => points[n % points.length][2] * (n % 2 ? step : 1));
          points = line.map((z, n) => [x + n * step * Math.cos(angle), y + n * step * Math.sin(angle), z]);
        }
        if (kind === 'raster') points = points.map(([x, , z]) => [x, points[0][1], z]);
        if (kind === 'raster') points.sort((a, b) => a[0] - b[0]);
        if (kind === 'plunge') points = points.map(([, , z]) => [points[0][0], points[0][1], z]);
        const f = slab(30);
        const segs: number[][] = [];
        for (let i = 1; i < points.length; i++) segs.push([...points[i - 1], ...points[i], 0]);
        removeStock(f, p, Float64Array.from(segs.flat()));
        for (let j = 0; j < 30; j += 2) {
          for (let i = 0; i < 30; i++) {
            const x = f.originX + i * f.cell;
            const y = f.originY + j * f.cell;
            const lowest = Math.min(0, ...segs.map((s) => sweptOver(p, s, x, y)?.z ?? Infinity));
            // At the rim the cutter's side is upright: a cell within 1e-4 mm of it may fall either way.
            const rim = segs.some((s) => {
              const L2 = (s[3] - s[0]) ** 2 + (s[4] - s[1]) ** 2;
              const l = L2
                ? Math.max(0, Math.min(1, ((x - s[0]) * (s[3] - s[0]) + (y - s[1]) * (s[4] - s[1])) / L2))
                : 0;
              const ends = [l, 0, 1].map((q) => Math.hypot(x - s[0] - q * (s[3] - s[0]), y - s[1] - q * (s[4] - s[1])));
              return ends.some((r) => Math.abs(r - p.R) < 2e-3);
            });
            if (!rim) expect(Math.abs(f.data[j * 30 + i] - lowest)).toBeLessThan(1e-3);
          }
        }
      },
    ),
    { numRuns: 60, endOnFailure: true },
  );
});

/** The bites of segments. */
const bitesOf = (...at: Parameters<typeof removeStock>) => engageStock(...at, 0).filter((_, k) => k % ENGAGED === BITE);

test('a rapid removes nothing and reports how deep it reaches; a feed reports its bite', () => {
  const f = slab(30);
  const bites = bitesOf(
    f,
    shapes[0],
    Float64Array.from([
      1, 3, -0.7, 5, 3, -0.7, 1, 1, 3, 0.5, 5, 3, 0.5, 1, 1, 3, -1.5, 5, 3, -1.5, 0, 1, 3, -1.5, 5, 3, -1.5, 1,
    ]),
  );
  expect(bites[0]).toBeCloseTo(0.7, 5);
  expect(bites[1]).toBe(0);
  expect(bites[2]).toBeCloseTo(1.5, 5);
  expect(bites[3]).toBe(0);
});

test('at the edge of the board nothing beyond it counts as wood', () => {
  for (const width of [29, 30, 31, 32]) {
    const f = { width, height: 9, cell: 0.2, originX: 0, originY: 0, data: new Float32Array(width * 9).fill(-2) };
    const x = (width - 1) * 0.2;
    const over = bitesOf(
      f,
      shapes[1],
      Float64Array.from([x - 2, 0.8, -1.9, x, 0.8, -1.9, 1, x, 0.8, -1.9, x, 0.8, 5, 1, x, 0.8, 5, x, 0.8, -1.9, 0]),
    );
    expect([...over]).toEqual([0, 0, 0]);
  }
});

test('cutting twice changes nothing', () => {
  const f = slab(30);
  const s = Float64Array.from([1, 1, -1, 4, 3.3, -2, 0]);
  removeStock(f, shapes[1], s);
  const once = f.data.slice();
  expect(bitesOf(f, shapes[1], s)[0]).toBe(0);
  expect(f.data).toEqual(once);
});
