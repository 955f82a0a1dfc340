import { describe, expect, test } from 'vitest';
import { MASK, type Target } from '../arrange/target';
import { type Cutter, profileOf } from '../cutter/cutter';
import { DRAWER, SHOP_MACHINE } from '../doc/defaults';
import type { Milling } from '../doc/pass-parts';
import { boardGrid, cellPlace, type HeightField, makeField } from '../field/height-field';
import { ENGAGED, LEFT, RIGHT, VOLUME } from '../kernels/engagement';
import { localHost } from '../kernels/host';
import { SEGMENT } from '../kernels/segment';
import { engageStock } from '../kernels/stock-removal';
import { MOVES, type Path } from '../motion/path';
import { HEIGHTS } from '../plan/plan-test-kit';
import { makeContext } from './context';
import { planFinish } from './finish/plan';
import { planFlats } from './flat/plan';
import { planRough } from './rough/plan';

const mill = { ...DRAWER.find((c) => c.id === 'em6')!, maxStepdown: 3 };
const ball = DRAWER.find((c) => c.id === 'ball6')!;
const face = { area: { kind: 'face' as const }, trench: 0, within: null };

/** A recess of 60 x 44 mm, 4 deep, sunk into a board of 80 x 60, with a round boss of 16 mm in it; its ground falls by `fall` mm a mm along y. */
function recess(fall = 0): Target {
  const field = makeField(boardGrid(80, 60, 0.2), 0);
  const mask = new Uint8Array(field.data.length).fill(MASK.keep);
  const outside = new Float32Array(field.data.length).fill(20);
  for (let k = 0; k < field.data.length; k++) {
    const { x, y } = cellPlace(field, k);
    if (x < 10 || x > 70 || y < 8 || y > 52) continue;
    mask[k] = MASK.cut;
    outside[k] = 0;
    if (Math.hypot(x - 40, y - 30) > 8) field.data[k] = -4 - fall * (y - 8);
  }
  return { field, mask, outside, ground: -20 };
}

const contextOf = (target: Target) =>
  makeContext({
    target,
    board: { x: 80, y: 60, thickness: 20 },
    mode: 'sunk',
    heights: HEIGHTS,
    rampAngle: 14,
    machine: SHOP_MACHINE,
    host: localHost,
  });

/** Shares of what a path's cutting moves take from a field with the wood on the right and on the left; slots, with wood on both sides, are neither. */
function sides(path: Path, cutter: Cutter, field: HeightField, from = 0) {
  const { data, kinds } = path;
  const n = path.moves - from;
  const segments = new Float64Array(n * SEGMENT);
  for (let i = 0; i < n; i++) {
    const q = 4 * (from + i);
    const p = Math.max(0, q - 4);
    segments.set(
      [data[p], data[p + 1], data[p + 2], data[q], data[q + 1], data[q + 2], data[q + 3] > 0 ? 0 : 1],
      i * SEGMENT,
    );
  }
  const engaged = engageStock(field, profileOf(cutter), segments, 0.02);
  const R = cutter.diameter / 2;
  const out = { right: 0, left: 0, both: 0 };
  for (let i = 0; i < n; i++) {
    if (MOVES[kinds[from + i]] !== 'cut') continue;
    const [l, r] = [LEFT, RIGHT].map((side) => engaged[i * ENGAGED + side]);
    if (l === 0 && r === 0) continue;
    const side = Math.abs(l - r) < 0.4 * R ? 'both' : r > l ? 'right' : 'left';
    out[side] += engaged[i * ENGAGED + VOLUME];
  }
  return out;
}

const clearing = { stepover: 2, stepdown: 2, stockToLeave: 0.5, rampAngle: 14, angle: 0 };

describe('which side of the bit the wood lies on', () => {
  // A bit that turns clockwise as seen from above cuts with the feed where the wood lies on its right: climb (any machining handbook).
  const WAYS: [Milling, 'right' | 'left', 'right' | 'left'][] = [
    ['climb', 'right', 'left'],
    ['conventional', 'left', 'right'],
  ];

  test.each(WAYS)('roughing by rings, %s', async (milling, on, off) => {
    const target = recess();
    const { path } = await planRough(contextOf(target), { ...clearing, strategy: 'rings', milling }, mill, face);
    const took = sides(path, mill, makeField(target.field, 0));
    expect(took[on]).toBeGreaterThan(12 * took[off]);
    expect(took[on]).toBeGreaterThan(2000);
  });

  test.each(WAYS)('roughing by rows, %s', async (milling, on, off) => {
    const target = recess();
    const pass = { ...clearing, strategy: 'raster' as const, milling };
    const { path } = await planRough(contextOf(target), pass, mill, face);
    const took = sides(path, mill, makeField(target.field, 0));
    expect(took[on]).toBeGreaterThan(12 * took[off]);
  });

  test.each(WAYS)('clearing flats, %s', async (milling, on, off) => {
    const target = recess();
    const own = { id: 'f', kind: 'flat' as const, cutter: mill.id, reserve: false, area: face.area };
    const pass = { ...own, overlap: 1, ...clearing, milling };
    const { path } = await planFlats(contextOf(target), pass, mill, face);
    const took = sides(path, mill, makeField(target.field, 0));
    expect(took[on]).toBeGreaterThan(12 * took[off]);
  });

  test.each(WAYS)('finishing in rows, %s', async (milling, on, off) => {
    const target = recess(0.05);
    const ctx = contextOf(target);
    await planRough(ctx, { ...clearing, strategy: 'rings', milling: 'either' }, mill, face);
    const left = { ...ctx.stands, data: ctx.stands.data.slice() };
    const pass = {
      id: 'f',
      kind: 'finish' as const,
      cutter: ball.id,
      reserve: false,
      area: face.area,
      angle: 0,
      tolerance: 0.02,
      lines: 'rows' as const,
    };
    const { path } = await planFinish(ctx, { ...pass, stepover: 0.8, milling }, ball, face);
    const took = sides(path, ball, left);
    expect(took[on]).toBeGreaterThan(5 * took[off]);
    // Along x: every row runs the same way.
    const way = milling === 'climb' ? -1 : 1;
    let [along, back] = [0, 0];
    for (let i = 1; i < path.moves; i++) {
      if (MOVES[path.kinds[i]] !== 'cut') continue;
      const dx = path.data[4 * i] - path.data[4 * i - 4];
      if (dx * way > 0) along += Math.abs(dx);
      else back += Math.abs(dx);
    }
    expect(back).toBeLessThan(0.05 * along);
  });

  test('as it comes is the shortest: neither way takes less time at the same feeds', async () => {
    const lengths: Record<string, number> = {};
    for (const milling of ['either', 'climb', 'conventional'] as const) {
      const { path } = await planRough(contextOf(recess()), { ...clearing, strategy: 'rings', milling }, mill, face);
      let sum = 0;
      for (let i = 1; i < path.moves; i++)
        sum += Math.hypot(path.data[4 * i] - path.data[4 * i - 4], path.data[4 * i + 1] - path.data[4 * i - 3]);
      lengths[milling] = sum;
    }
    expect(lengths.climb).toBeLessThan(1.05 * lengths.either);
    expect(lengths.conventional).toBeLessThan(1.05 * lengths.either);
  });
});
