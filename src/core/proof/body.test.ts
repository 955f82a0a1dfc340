import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Cutter, profileOf } from '../cutter/cutter';
import { DRAWER } from '../doc/defaults';
import type { HeightField } from '../field/height-field';
import { cutPlainly } from '../kernels/dense-test-kit';
import { localHost } from '../kernels/host';
import { SEGMENT } from '../kernels/segment';
import { bodyMet, stockFor } from './body';

/** A short bit of 3 mm with a shank of 3 mm and a small holder. */
const bit: Cutter = { ...DRAWER[0], diameter: 3, shankDiameter: 3, holderDiameter: 7, fluteLength: 3, stickOut: 4 };
const board = (top = 0): HeightField => ({
  width: 80,
  height: 60,
  cell: 0.25,
  originX: 0.125,
  originY: 0.125,
  data: new Float32Array(80 * 60).fill(top),
});
const met = (f: HeightField, moves: number[][], cutter = bit) =>
  bodyMet(f, { cutter, segments: Float64Array.from(moves.flat()) }, localHost);

/** The deepest that the holder stands in wood: moves in steps of 0.25 mm, what stands looked at cell by cell at the end of each. */
function holderPlainly(f: HeightField, moves: number[][], cutter: Cutter): number {
  const stock = { ...f, data: f.data.slice() };
  const R = cutter.holderDiameter / 2;
  let deepest = 0;
  for (const [x0, y0, z0, x1, y1, z1, rapid] of moves) {
    const n = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0, z1 - z0) / 0.25));
    for (let i = 0; i < n; i++) {
      const at = (t: number) => [x0 + (x1 - x0) * t, y0 + (y1 - y0) * t, z0 + (z1 - z0) * t];
      const [x, y, z] = at((i + 1) / n);
      for (let k = 0; k < stock.data.length; k++) {
        const [cx, cy] = [f.originX + (k % f.width) * f.cell, f.originY + Math.floor(k / f.width) * f.cell];
        if (Math.hypot(cx - x, cy - y) <= R) deepest = Math.max(deepest, stock.data[k] - z - cutter.stickOut);
      }
      if (!rapid) cutPlainly(stock, profileOf(cutter), [...at(i / n), x, y, z, 0]);
    }
  }
  return deepest;
}

test('the holder meets a wall at the move where it stood, though the wall is gone in the end', async () => {
  const f = board();
  // Straight down beside the edge, out again, then everything around is cleared to the same depth.
  const down = [10, 7, 2, 10, 7, -6, 0];
  const clear = [...Array(13)].map((_, i) => [3, 1 + i, -6, 17, 1 + i, -6, 0]);
  const found = await met(f, [down, [10, 7, -6, 10, 7, 2, 0], ...clear]);
  expect(found).toHaveLength(1);
  expect(found[0]).toMatchObject({ name: 'holder', move: 0 });
  expect(found[0].deep).toBeCloseTo(2, 5);
  // The board is as it was.
  expect(Math.min(...f.data)).toBe(0);
});

test('where the wood has been taken before there is nothing to meet', async () => {
  const rows = (z: number) => [...Array(11)].map((_, i) => [2, 2 + i, z, 18, 2 + i, z, 0]);
  expect(await met(board(), [...rows(-3), [18, 12, 2, 10, 7, 2, 1], [10, 7, 2, 10, 7, -6, 0]])).toEqual([]);
});

test('a rapid beside the board drives the holder into its edge', async () => {
  const found = await met(board(), [
    [-2.5, 7, 5, -2.5, 7, -5, 1],
    [-2.5, 7, -5, -2.5, 7, 5, 1],
  ]);
  expect(found).toMatchObject([{ name: 'holder', move: 0 }]);
  expect(found[0].deep).toBeCloseTo(1, 5);
});

test('very many doubtful moves are looked at on coarser cells that are wholly material, few on the stock itself', () => {
  const f = board();
  for (let k = 0; k < f.data.length; k++) f.data[k] = -((k * 7) % 5);
  const part = { name: 'holder', radius: 6, height: 10 } as const;
  const few = stockFor(f, part, 100);
  expect(few.data).toEqual(f.data);
  expect(few.data).not.toBe(f.data);
  const many = stockFor(f, part, 1e7);
  expect(many.cell).toBe(0.5);
  for (let k = 0; k < many.data.length; k++) {
    const [i, j] = [2 * (k % many.width), 2 * Math.floor(k / many.width)];
    const four = [0, 1, f.width, f.width + 1].map((o) => f.data[j * f.width + i + o]);
    expect(many.data[k]).toBe(Math.min(...four));
  }
});

test('a shank no wider than the bit is none, a wider one is', async () => {
  const slot = [
    [4, 7, -3.5, 16, 7, -3.5, 0],
    [16, 7, -3.5, 4, 7, -3.5, 0],
  ];
  const long = { ...bit, stickOut: 30 };
  expect(await met(board(), slot, long)).toEqual([]);
  const found = await met(board(), slot, { ...long, shankDiameter: 4 });
  expect(found).toMatchObject([{ name: 'shank' }]);
  expect(found[0].deep).toBeCloseTo(0.5, 5);
});

test('down a long slope in one move: what the bit itself has taken on the way is not met', async () => {
  // Half the steepness at which the holder meets the flank that the bit leaves behind it: 4 mm over the tip, 2 mm beyond its side.
  const moves = [[4, 7, 0, 16, 7, -9, 0]];
  const plain = holderPlainly(board(), moves, bit);
  const [found] = await met(board(), moves);
  expect(plain).toBeGreaterThan(4);
  expect(Math.abs(found.deep - plain)).toBeLessThan(0.8);
});

test('the deepest place is that of the plain definition, for moves of any kind (property)', async () => {
  const x = fc.integer({ min: 2, max: 18 });
  const y = fc.integer({ min: 2, max: 13 });
  const z = fc.integer({ min: -14, max: 4 }).map((v) => v / 2);
  await fc.assert(
    fc.asyncProperty(fc.array(fc.tuple(x, y, z, fc.boolean()), { minLength: 2, maxLength: 7 }), async (points) => {
      const moves = points.slice(1).map(([bx, by, bz, drop], i) => {
        const [ax, ay, az] = points[i];
        return [ax, ay, az, bx, by, bz, drop ? 1 : 0];
      });
      const plain = holderPlainly(board(), moves, bit);
      const found = (await met(board(), moves)).find((m) => m.name === 'holder');
      // Pieces of 2 mm against steps of 0.25 mm: of a steep move the difference of what the bit has taken meanwhile.
      const steep = Math.max(
        ...moves.map((s) => Math.abs(s[5] - s[2]) / Math.max(0.5, Math.hypot(s[3] - s[0], s[4] - s[1]))),
      );
      const off = 0.15 + Math.min(2, 2 * steep);
      expect(found?.deep ?? 0).toBeGreaterThan(plain - 0.15);
      expect(found?.deep ?? 0).toBeLessThan(plain + off);
      if (found) expect(moves[found.move]).toHaveLength(SEGMENT);
    }),
    { numRuns: 4, endOnFailure: true },
  );
});
