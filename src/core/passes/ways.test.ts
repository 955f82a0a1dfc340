import fc from 'fast-check';
import { expect, test } from 'vitest';
import { MASK, type Target } from '../arrange/target';
import { type Cutter, profileHeight, profileOf } from '../cutter/cutter';
import { DRAWER, SHOP_MACHINE } from '../doc/defaults';
import { AIR, boardGrid, makeField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { SEGMENT } from '../kernels/segment';
import { removeStock } from '../kernels/stock-removal';
import { enterWood } from '../motion/enter';
import { Path } from '../motion/path';
import { HEIGHTS } from '../plan/plan-test-kit';
import { makeContext } from './context';
import { lowestTip } from './lowest-tip';
import { cutSlots } from './slots';
import { highestOver, standing } from './standing';

const bit = (id: string): Cutter => DRAWER.find((c) => c.id === id)!;
/** Even numbers in 0..1, the same every time. */
function numbers(seed: number) {
  let s = seed >>> 0;
  return () => {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    return s / 2 ** 32;
  };
}

test('the lowest place of a tip is the one at which some cell of the target touches the bit (brute force, property)', () => {
  fc.assert(
    fc.property(fc.integer(), fc.constantFrom('v60', 'ball3', 'em3'), (seed, id) => {
      const next = numbers(seed);
      const f = makeField(boardGrid(20, 14, 0.25));
      for (let k = 0; k < f.data.length; k++) f.data[k] = next() < 0.1 ? -2 * next() : -4 - 3 * next();
      const profile = profileOf(bit(id));
      const lowest = lowestTip(f, bit(id));
      for (let n = 0; n < 20; n++) {
        const [x, y, floor] = [20 * next(), 14 * next(), -7 * next()];
        let low = floor;
        for (let k = 0; k < f.data.length; k++) {
          const r = Math.hypot(f.originX + (k % f.width) * 0.25 - x, f.originY + Math.floor(k / f.width) * 0.25 - y);
          if (r <= profile.R) low = Math.max(low, f.data[k] - profileHeight(profile, r));
        }
        expect(lowest(x, y, floor)).toBeCloseTo(low, 5);
      }
    }),
    { numRuns: 40 },
  );
});

test('a ramp onto a ring ends on it, never steeper than its angle, never below it (property)', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 40 }),
      fc.double({ min: 2, max: 30, noNaN: true }),
      fc.double({ min: 1, max: 20, noNaN: true }),
      fc.double({ min: 0.1, max: 8, noNaN: true }),
      (n, r, angle, deep) => {
        const points = Float64Array.from(
          Array.from({ length: n }, (_, i) => [
            r * Math.cos((2 * Math.PI * i) / n),
            r * Math.sin((2 * Math.PI * i) / n),
            -deep,
          ]).flat(),
        );
        const path = new Path();
        path.rapid(points[0], points[1], 5);
        const end = enterWood(path, bit('em6'), points, { closed: true, top: 0, angle });
        expect(path.z).toBeCloseTo(-deep, 9);
        expect(Math.hypot(path.x - points[3 * end], path.y - points[3 * end + 1])).toBeLessThan(1e-9);
        const d = path.data;
        for (let k = 8; k < d.length; k += 4) {
          const run = Math.hypot(d[k] - d[k - 4], d[k + 1] - d[k - 3]);
          expect(d[k - 2] - d[k + 2]).toBeLessThanOrEqual(run * Math.tan((angle * Math.PI) / 180) + 1e-9);
          expect(d[k + 2]).toBeGreaterThanOrEqual(-deep - 1e-9);
        }
      },
    ),
    { numRuns: 100 },
  );
});

test('standing: where stock is higher than a level, and so far around it, within where the tip may be', () => {
  const grid = boardGrid(20, 20, 0.5);
  const tip = new Uint8Array(grid.width * grid.height).fill(1);
  const clear = makeField(boardGrid(20, 20, 1), -3);
  // One post of 1 mm across in the middle, higher than all around it.
  for (let k = 0; k < clear.data.length; k++) {
    const x = clear.originX + (k % clear.width);
    const y = clear.originY + Math.floor(k / clear.width);
    if (Math.hypot(x - 10, y - 10) < 1) clear.data[k] = -1;
  }
  expect(highestOver(tip, grid, clear)).toBe(-1);
  expect(highestOver(new Uint8Array(tip.length), grid, clear)).toBe(AIR);
  const here = standing(tip, grid, clear, -2, 2);
  for (let k = 0; k < here.length; k++) {
    const d = Math.hypot(
      grid.originX + (k % grid.width) * 0.5 - 10,
      grid.originY + Math.floor(k / grid.width) * 0.5 - 10,
    );
    if (d < 2) expect(here[k]).toBe(1);
    if (d > 4.5) expect(here[k]).toBe(0);
  }
  // Nothing stands higher than -1: nothing is to be done; and outside of the tip's area nothing ever is.
  expect(standing(tip, grid, clear, -0.5, 2)).not.toContain(1);
  expect(standing(new Uint8Array(tip.length), grid, clear, -2, 2)).not.toContain(1);
});

test('slots are cut into the target alone: cells that they pass are to be met, kept board beside them a cell less strictly', async () => {
  const field = makeField(boardGrid(40, 30, 0.5), 0);
  const n = field.data.length;
  const target: Target = { field, mask: new Uint8Array(n).fill(MASK.keep), outside: new Float32Array(n), ground: 0 };
  const chain = Float64Array.of(10, 15, -4, 30, 15, -4);
  const { target: cut, through } = await cutSlots(
    target,
    [{ cutter: bit('em6'), chains: [chain], loose: null, through: false }],
    localHost,
  );
  expect(through!.includes(1)).toBe(false);
  let area = 0;
  for (let k = 0; k < n; k++) {
    expect(field.data[k]).toBe(0);
    const x = field.originX + (k % field.width) * 0.5;
    const y = field.originY + Math.floor(k / field.width) * 0.5;
    const d = Math.hypot(x - Math.min(30, Math.max(10, x)), y - 15);
    if (d < 3.1) expect([cut.field.data[k], cut.mask[k]]).toEqual([-4, MASK.cut]);
    if (d > 4) expect([cut.field.data[k], cut.mask[k]]).toEqual([0, MASK.keep]);
    if (cut.field.data[k] < 0) area += 0.25;
  }
  // Cells of half a millimetre along a slot of 53 mm around.
  expect(Math.abs(area / (20 * 6.35 + Math.PI * 3.175 ** 2) - 1)).toBeLessThan(0.08);
  expect((await cutSlots(target, [], localHost)).through).toBeNull();
  const open = await cutSlots(
    target,
    [{ cutter: bit('em6'), chains: [chain], loose: [-5, -3], through: true }],
    localHost,
  );
  expect(open.through!.reduce((s, v) => s + v, 0) * 0.25).toBeCloseTo(area, 6);
  // What need not be met is waste.
  expect(open.target.mask.includes(MASK.cut)).toBe(true);
  expect(open.target.mask.includes(MASK.waste)).toBe(true);
});

test('a V bit cuts the same whether its whole cone is looked at or only what can meet wood (property)', () => {
  fc.assert(
    fc.property(fc.integer(), fc.double({ min: 20, max: 120, noNaN: true }), (seed, angle) => {
      const next = numbers(seed);
      const cutter = { ...bit('v60'), includedAngle: angle, tipDiameter: 0.4 * next() };
      const profile = profileOf(cutter);
      const segments = new Float64Array(12 * SEGMENT);
      let [x, y, z] = [10, 10, 1];
      for (let i = 0; i < 12; i++) {
        const to = [20 * next(), 20 * next(), 1 - 3 * next()];
        segments.set([x, y, z, ...to, 0], i * SEGMENT);
        [x, y, z] = to;
      }
      const one = makeField(boardGrid(20, 20, 0.25), 0);
      removeStock(one, profile, segments);
      // The same board with a post far away that is so high that the whole cone counts.
      const two = makeField(boardGrid(60, 20, 0.25), 0);
      two.data[two.width * two.height - 1] = 50;
      removeStock(two, profile, segments);
      for (let j = 0; j < one.height; j++) {
        for (let i = 0; i < one.width; i++)
          expect(Math.abs(one.data[j * one.width + i] - two.data[j * two.width + i])).toBeLessThan(1e-4);
      }
    }),
    { numRuns: 30 },
  );
});

test('before the first pass the whole board stands, and nothing has been worked on', () => {
  const field = makeField(boardGrid(30, 20, 0.5), -2);
  const n = field.data.length;
  const target: Target = { field, mask: new Uint8Array(n).fill(MASK.cut), outside: new Float32Array(n), ground: -2 };
  const ctx = makeContext({
    target,
    board: { x: 30, y: 20, thickness: 15 },
    mode: 'raised',
    heights: HEIGHTS,
    rampAngle: 4,
    machine: SHOP_MACHINE,
    host: localHost,
  });
  expect(ctx.worked).toBe(false);
  expect(ctx.cleared.includes(1)).toBe(false);
  const inner = ctx.stock.data.filter((v) => v !== AIR);
  expect(inner.length * ctx.stock.cell ** 2).toBeCloseTo(600, 0);
  expect(Math.max(...inner)).toBe(0);
  expect(Math.min(...inner)).toBe(0);
});
