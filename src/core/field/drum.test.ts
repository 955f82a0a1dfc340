import fc from 'fast-check';
import { expect, test } from 'vitest';
import { distanceInside, distanceOutside } from './distance';
import { inTurn, narrowed, reachRound, rowInTurn, unrolled } from './drum';
import {
  cellAt,
  cellPlace,
  drumGrid,
  goesRound,
  makeField,
  nearestCell,
  padField,
  poolField,
  sampleField,
} from './height-field';

test('cells go round whole: no narrower than by what a turn needs, and coarser ones meet at the seam too', () => {
  fc.assert(
    fc.property(fc.integer({ min: 40, max: 4000 }), fc.integer({ min: 5, max: 80 }), (r, c) => {
      const [radius, cell] = [r / 100, c / 100];
      const g = drumGrid(30, radius, cell);
      expect(goesRound(g)).toBe(true);
      expect(g.height * g.cell).toBeCloseTo(unrolled(radius), 6);
      expect(g.cell).toBeLessThanOrEqual(cell + 1e-9);
      const coarse = poolField(makeField(g), 3, 'max');
      expect(coarse.drum?.rows).toBe(coarse.height);
      expect(coarse.height * coarse.cell).toBeCloseTo(unrolled(radius), 6);
    }),
  );
});

test('a place is the same in every turn: its cell, and what is read between cells over the seam', () => {
  const g = drumGrid(6, 4, 0.5);
  const f = makeField(g);
  for (let k = 0; k < f.data.length; k++) f.data[k] = Math.sin(cellPlace(g, k).y / 4) + 0.1 * cellPlace(g, k).x;
  const turn = unrolled(4);
  for (const [x, y] of [
    [1, 0.01],
    [2.2, turn - 0.01],
    [5, 3.3],
  ])
    for (const t of [-2, -1, 1, 5]) {
      expect(cellAt(g, x, y + t * turn)).toBe(cellAt(g, x, y));
      expect(nearestCell(g, x, y + t * turn)).toBe(nearestCell(g, x, y));
      expect(sampleField(f, x, y + t * turn)).toBeCloseTo(sampleField(f, x, y), 6);
      // The surface goes on over the seam as it does elsewhere.
      expect(Math.abs(sampleField(f, x, y) - Math.sin(y / 4) - 0.1 * x)).toBeLessThan(0.01);
    }
  expect(cellAt(g, -1, 1)).toBe(-1);
  expect(inTurn({ radius: 4 }, -0.5)).toBeCloseTo(turn - 0.5, 9);
  expect(rowInTurn({ rows: 48 }, -1)).toBe(47);
});

test('rows beyond the seam are those on its other side, columns beyond the ends are what is asked for', () => {
  const f = makeField(drumGrid(4, 2, 0.5));
  for (let k = 0; k < f.data.length; k++) f.data[k] = k;
  const p = padField(f, 2, -9);
  expect(p.data[2 * p.width + 2]).toBe(f.data[0]);
  expect(p.data[1 * p.width + 2]).toBe(f.data[(f.height - 1) * f.width]);
  expect(p.data[(f.height + 2) * p.width + 3]).toBe(f.data[1]);
  expect(p.data[5 * p.width]).toBe(-9);
  const columns = padField(f, 3, -9, 0);
  expect([columns.width, columns.height]).toEqual([f.width + 6, f.height]);
});

test('distances are measured over the seam: to the nearest of all turns', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 9 }),
      fc.integer({ min: 4, max: 14 }),
      fc.infiniteStream(fc.boolean()),
      (w, h, bits) => {
        const inside = Uint8Array.from({ length: w * h }, () => (bits.next().value ? 1 : 0));
        const got = distanceInside(inside, w, h, true);
        for (let k = 0; k < inside.length; k++) {
          let least = inside[k] ? Infinity : 0;
          for (let q = 0; q < inside.length; q++) {
            if (inside[q]) continue;
            const dy = Math.abs(Math.floor(k / w) - Math.floor(q / w));
            least = Math.min(least, Math.hypot((k % w) - (q % w), Math.min(dy, h - dy)));
          }
          expect(got[k]).toBeCloseTo(least, 4);
        }
        expect(distanceOutside(inside.map((v) => 1 - v) as Uint8Array, w, h, true)).toEqual(got);
      },
    ),
    { numRuns: 60 },
  );
});

test('deeper the sheet is narrower, and a bit reaches further round', () => {
  expect(narrowed({ radius: 10 }, 0)).toBe(1);
  expect(narrowed({ radius: 10 }, -5)).toBe(0.5);
  // 3 mm beside its axis at the blank's circle: 10 atan(0.3); half as deep it is 10 atan(0.6).
  expect(reachRound({ radius: 10 }, 3, 0)).toBeCloseTo(2.915, 3);
  expect(reachRound({ radius: 10 }, 3, -5)).toBeCloseTo(5.404, 3);
});
