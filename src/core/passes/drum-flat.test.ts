import fc from 'fast-check';
import { expect, test } from 'vitest';
import { buildTarget } from '../arrange/target';
import { profileOf } from '../cutter/cutter';
import { DRAWER, SHOP_MACHINE } from '../doc/defaults';
import { AIR, boardGrid, type Grid, type HeightField, makeField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { removeStock } from '../kernels/stock-removal';
import { partsOf } from '../motion/ease';
import type { Path } from '../motion/path';
import { HEIGHTS } from '../plan/plan-test-kit';
import { makeContext } from './context';
import { planFinish } from './finish/plan';
import { planRough } from './rough/plan';

/** Of a size at which rows along and around come to lie on the same cells on both. */
const BOARD = { x: 40.2, y: 30.4, thickness: 20 };
const CELL = 0.2;
/** A part of a drum so large that it lies flat within a micrometre over a bit's width, mm. */
const RADIUS = 5000;
const region = { area: { kind: 'relief' as const, trench: null }, trench: 0, within: null };
const [endmill, ball] = ['em3', 'ball3'].map((id) => DRAWER.find((c) => c.id === id)!);

/** A hollow with waves on its ground in the middle of a board, or of a part of a drum. */
function hollowOn(grid: Grid, deep: number, waves: number) {
  const relief = makeField(grid, AIR);
  for (let k = 0; k < relief.data.length; k++) {
    const x = relief.originX + (k % grid.width) * CELL - 20;
    const y = relief.originY + Math.floor(k / grid.width) * CELL - 15.2;
    const q = Math.hypot(x / 12, y / 9);
    if (q <= 1) relief.data[k] = -deep * (1 - q * q) * (1 + 0.2 * Math.sin(x * waves) * Math.cos(y * waves));
  }
  const target = buildTarget({
    grid,
    z: relief.data.map((v) => (v === AIR ? 0 : v)),
    cover: Uint8Array.from(relief.data, (v) => (v === AIR ? 0 : 1)),
    mode: 'sunk',
    peak: 0,
    low: -1.2 * deep,
    skin: 0,
    drop: 0,
    regions: [region],
  });
  const machine = SHOP_MACHINE;
  return makeContext({ target, board: BOARD, mode: 'sunk', heights: HEIGHTS, rampAngle: 4, machine, host: localHost });
}

/** What a path leaves of a flat board. */
function left(path: Path, bit: typeof ball): HeightField {
  const f = makeField(boardGrid(BOARD.x, BOARD.y, CELL));
  removeStock(f, profileOf(bit), partsOf(path, 0, Infinity).segments);
  return f;
}

const most = (a: HeightField, b: HeightField) => a.data.reduce((m, v, k) => Math.max(m, Math.abs(v - b.data[k])), 0);

/** Share of the cells that differ by a hundredth of a millimetre or more. */
const off = (a: HeightField, b: HeightField) =>
  a.data.filter((v, k) => Math.abs(v - b.data[k]) >= 0.01).length / a.data.length;

test('on a drum of very large radius passes cut what they cut on a board, within 0.01 mm', async () => {
  const flat = boardGrid(BOARD.x, BOARD.y, CELL);
  const round = { ...flat, drum: { radius: RADIUS, rows: Math.round((2 * Math.PI * RADIUS) / CELL) } };
  await fc.assert(
    fc.asyncProperty(
      fc.integer({ min: 5, max: 40 }),
      fc.integer({ min: 2, max: 12 }),
      fc.constantFrom(0, 90),
      async (deep, waves, angle) => {
        const both = [flat, round].map((g) => hollowOn(g, deep / 10, waves / 10));
        const clearing = {
          strategy: 'rings',
          angle: 0,
          stepover: 1.2,
          stepdown: 1,
          stockToLeave: 0.3,
          rampAngle: 4,
          milling: 'either',
        } as const;
        const roughed = [];
        for (const ctx of both) roughed.push((await planRough(ctx, clearing, endmill, region)).path);
        // Radii of five metres are known to half a micrometre: a cell at a level's very border may fall either way, and a level's ring with it.
        expect(off(left(roughed[0], endmill), left(roughed[1], endmill))).toBeLessThan(0.002);
        const pass = {
          id: 'f',
          kind: 'finish',
          reserve: false,
          cutter: 'ball3',
          area: region.area,
          angle,
          stepover: 0.4,
          lines: 'rows',
          milling: 'either',
          tolerance: 0.005,
        } as const;
        const finished = [];
        for (const ctx of both) finished.push((await planFinish(ctx, pass, ball, region)).path);
        expect(finished[0].moves).toBeGreaterThan(100);
        expect(most(left(finished[0], ball), left(finished[1], ball))).toBeLessThan(0.01);
      },
    ),
    { numRuns: 8 },
  );
});
