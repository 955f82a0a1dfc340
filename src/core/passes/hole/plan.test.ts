import fc from 'fast-check';
import { expect, test } from 'vitest';
import { MASK, type Target } from '../../arrange/target';
import { DRAWER, SHOP_MACHINE } from '../../doc/defaults';
import { boardGrid, makeField } from '../../field/height-field';
import { localHost } from '../../kernels/host';
import { HEIGHTS } from '../../plan/plan-test-kit';
import { makeContext } from '../context';
import { holeBottom, holeSlot, planHoles } from './plan';
import type { HolePass } from './schema';

const [drill, mill] = ['drill6', 'em6'].map((id) => DRAWER.find((c) => c.id === id)!);
const hole = (change: Partial<HolePass> = {}): HolePass => ({
  id: 'h',
  kind: 'hole',
  cutter: 'x',
  places: [{ x: 20, y: 15 }],
  diameter: 6,
  depth: 8,
  into: 0.5,
  peck: 3,
  rampAngle: 4,
  dowel: null,
  ...change,
});
/** A plain board of 60 x 40 x 18. */
function context() {
  const field = makeField(boardGrid(60, 40, 0.5), 0);
  const n = field.data.length;
  const target: Target = {
    field,
    mask: new Uint8Array(n).fill(MASK.keep),
    outside: new Float32Array(n),
    ground: 0,
  };
  return makeContext({
    target,
    board: { x: 60, y: 40, thickness: 18 },
    mode: 'raised',
    heights: HEIGHTS,
    rampAngle: 4,
    machine: SHOP_MACHINE,
    host: localHost,
  });
}

test('pecks are even, none deeper than allowed, and the bit comes out to clear the chips before each', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.double({ min: 0.5, max: 17, noNaN: true }),
      fc.double({ min: 0.4, max: 9, noNaN: true }),
      async (depth, peck) => {
        const { path } = await planHoles(context(), hole({ depth, peck }), drill);
        const d = path.data;
        let reached = 0;
        let pecks = 0;
        let highest = Infinity;
        for (let k = 4; k < d.length; k += 4) {
          expect(d[k]).toBe(20);
          expect(d[k + 1]).toBe(15);
          if (d[k + 3] === 0) {
            // No rapid goes below what is open, with room to spare.
            expect(d[k + 2]).toBeGreaterThan(reached);
            highest = Math.max(highest, d[k + 2]);
            continue;
          }
          pecks++;
          // Out of the hole and over its top since the last peck.
          expect(highest).toBeGreaterThanOrEqual(HEIGHTS.approach - 1e-9);
          highest = -Infinity;
          expect(reached - d[k + 2]).toBeLessThanOrEqual(peck + 1e-9);
          reached = d[k + 2];
        }
        expect(reached).toBeCloseTo(-depth, 9);
        const asked = Math.ceil(depth / peck - 1e-6);
        // With the half millimetre that it comes back by a peck is no deeper than the bit may go at once.
        const most = drill.maxPlungeDepth - 0.5;
        expect(pecks).toBe(asked > 1 && depth / asked > most ? Math.ceil(depth / most - 1e-6) : asked);
        expect(path.z).toBe(HEIGHTS.everything);
      },
    ),
    { numRuns: 40 },
  );
});

test('a helix sinks by no more than its slope and its peck a turn, and ends with a whole circle at the bottom', async () => {
  await fc.assert(
    fc.asyncProperty(
      fc.double({ min: 7, max: 30, noNaN: true }),
      fc.double({ min: 1, max: 12, noNaN: true }),
      async (diameter, angle) => {
        const { path } = await planHoles(context(), hole({ diameter, rampAngle: angle, peck: 2 }), mill);
        const d = path.data;
        const slope = Math.tan((angle * Math.PI) / 180);
        let widest = 0;
        let around = 0;
        for (let k = 4; k < d.length; k += 4) {
          const r = Math.hypot(d[k] - 20, d[k + 1] - 15);
          widest = Math.max(widest, r);
          if (d[k + 3] === 0) continue;
          const run = Math.hypot(d[k] - d[k - 4], d[k + 1] - d[k - 3]);
          const fall = d[k - 2] - d[k + 2];
          // Upright only through the air above the board.
          if (run < 1e-9) expect(d[k + 2]).toBeGreaterThanOrEqual(-1e-9);
          else expect(fall).toBeLessThanOrEqual(run * slope * 1.01 + 1e-9);
          if (
            Math.abs(d[k + 2] + 8) < 1e-9 &&
            Math.abs(d[k - 2] + 8) < 1e-9 &&
            Math.abs(r - (diameter - 6.35) / 2) < 1e-9
          )
            around += run;
          // The feed never sinks the bit faster than it may plunge.
          if (fall > 0 && run > 1e-9)
            expect((d[k + 3] * fall) / Math.hypot(run, fall)).toBeLessThanOrEqual(mill.plunge * 1.02 + 1);
        }
        expect(widest).toBeCloseTo((diameter - 6.35) / 2, 6);
        expect(around).toBeGreaterThan(16 * Math.sin(Math.PI / 16) * (diameter - 6.35) * 0.999);
      },
    ),
    { numRuns: 30 },
  );
});

test('holes are made the nearest next, and lie on the ground that is open', async () => {
  const ctx = context();
  const places = [
    { x: 50, y: 30 },
    { x: 5, y: 5 },
    { x: 48, y: 28 },
    { x: 8, y: 5 },
  ];
  const { path } = await planHoles(ctx, hole({ places }), drill);
  const order: number[] = [];
  for (let k = 0; k < path.data.length; k += 4) if (order.at(-1) !== path.data[k]) order.push(path.data[k]);
  expect(order).toEqual([5, 8, 48, 50]);
  // Over ground that lies 5 mm lower the bit comes down to just over it.
  const low = context();
  low.stock.data.fill(-5);
  const { path: second } = await planHoles(low, hole(), drill);
  const first = Array.from({ length: second.moves }, (_, i) => second.data.subarray(4 * i, 4 * i + 4)).find(
    (m) => m[3] > 0,
  )!;
  expect(first[2]).toBeLessThan(-5);
  expect(first[2]).toBeGreaterThanOrEqual(-8);
  expect(second.data[6]).toBeCloseTo(-5 + HEIGHTS.approach, 6);
  // A hole that the ground is already below of is not made.
  low.stock.data.fill(-9);
  expect((await planHoles(low, hole(), drill)).path.cuts).toBe(false);
});

test('through a board it goes into the spoilboard, and what it leaves is a cylinder of its own', () => {
  expect(holeBottom(hole({ depth: null }), 18)).toBe(-18.5);
  expect(holeBottom(hole({ depth: 8 }), 18)).toBe(-8);
  expect(holeSlot(hole({ depth: null }), drill, 18).through).toBe(true);
  expect(holeSlot(hole(), drill, 18)).toMatchObject({ through: false, loose: null });
  const { chains } = holeSlot(hole({ diameter: 20 }), mill, 18);
  // Rings no further apart than 0.45 of the bit, so that no post is left in the middle.
  const radii = chains.map((c) => Math.hypot(c[0] - 20, c[1] - 15));
  radii.forEach((r, i) => {
    expect(r - (radii[i - 1] ?? 0)).toBeLessThanOrEqual(0.45 * 6.35 + 1e-9);
  });
  expect(radii.at(-1)).toBeCloseTo((20 - 6.35) / 2, 9);
});
