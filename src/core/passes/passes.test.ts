import { expect, test } from 'vitest';
import { buildTarget, frailToProve, MASK } from '../arrange/target';
import { DRAWER, SHOP_MACHINE } from '../doc/defaults';
import { distanceOutside } from '../field/distance';
import { AIR, boardGrid, cellPlace, type HeightField, makeField, nearestCell } from '../field/height-field';
import { localHost } from '../kernels/host';
import { HEIGHTS } from '../plan/plan-test-kit';
import { makeContext } from './context';
import { planFinish } from './finish/plan';
import type { FinishPass } from './finish/schema';
import { roughLevels } from './rough/levels';
import { planRough } from './rough/plan';
import type { RoughPass } from './rough/schema';

const endmill = DRAWER.find((c) => c.id === 'em6')!;
const ball = DRAWER.find((c) => c.id === 'ball3')!;
const area = { kind: 'relief' as const, trench: null };
const rough: RoughPass = {
  id: 'r',
  kind: 'rough',
  reserve: false,
  cutter: 'em6',
  area,
  strategy: 'rings',
  milling: 'either',
  angle: 0,
  stepover: 2.54,
  stepdown: 2.5,
  stockToLeave: 0.5,
  rampAngle: 4,
};
const finish: FinishPass = {
  id: 'f',
  kind: 'finish',
  reserve: false,
  cutter: 'ball3',
  area,
  angle: 0,
  stepover: 0.4,
  lines: 'rows',
  milling: 'either',
  tolerance: 0.01,
};

const region = (trench: number) => ({ area, trench, within: null });

/** What stands on a grid, as a composite that lies `lift` mm over its datum. */
const standing = (f: HeightField, lift = 0) => ({
  grid: f,
  z: f.data.map((v) => (v === AIR ? 0 : v + lift)),
  cover: Uint8Array.from(f.data, (v) => (v === AIR ? 0 : 1)),
});

/** A round mound 24 mm across and 6 high in the middle of an 80 x 60 board, with its trench. */
function mound(mode: 'raised' | 'sunk' = 'raised') {
  const relief = makeField(boardGrid(80, 60, 0.2), AIR);
  for (let k = 0; k < relief.data.length; k++) {
    const x = relief.originX + (k % relief.width) * 0.2 - 40;
    const y = relief.originY + Math.floor(k / relief.width) * 0.2 - 30;
    const q = Math.hypot(x, y) / 12;
    if (q <= 1) relief.data[k] = 6 * (1 - q * q);
  }
  const target = buildTarget({
    ...standing(relief, mode === 'sunk' ? -6 : 0),
    mode,
    peak: mode === 'sunk' ? 0 : 6,
    low: mode === 'sunk' ? -6 : 0,
    skin: 0,
    drop: 0,
    regions: [region(mode === 'raised' ? 9.525 : 0)],
  });
  return makeContext({
    target,
    board: { x: 80, y: 60, thickness: 20 },
    mode,
    heights: HEIGHTS,
    rampAngle: 4,
    machine: SHOP_MACHINE,
    host: localHost,
  });
}

test('levels pass through large flats, in even steps of at most the stepdown', () => {
  const heights = new Float32Array(1000).fill(-3.7);
  heights.fill(-9, 0, 400);
  const levels = roughLevels(heights, heights, 0, 2.5);
  expect(levels).toHaveLength(5);
  expect(levels.some((z) => Math.abs(z + 3.7) < 0.01)).toBe(true);
  let above = 0;
  for (const z of levels) {
    expect(above - z).toBeLessThanOrEqual(2.5 + 1e-9);
    above = z;
  }
  expect(above).toBeCloseTo(-9, 2);
  expect(roughLevels(new Float32Array(10), new Float32Array(10), 0, 2)).toEqual([]);
});

test.each(['rings', 'raster'] as const)(
  'roughing by %s: sinks only on ramps, moves over at a low height, and stays off the kept board',
  async (strategy) => {
    const ctx = mound();
    const { path, levels } = await planRough(ctx, { ...rough, strategy }, endmill, region(9.525));
    expect(levels.at(-1)).toBeCloseTo(-5.5, 1);
    const d = path.data;
    let highest = -Infinity;
    for (let k = 4; k < d.length; k += 4) {
      const [dx, dy, dz] = [d[k] - d[k - 4], d[k + 1] - d[k - 3], d[k + 2] - d[k - 2]];
      const l = Math.hypot(dx, dy);
      // Straight down only through air: by feed over ground that the level before has opened, within the clearance.
      if (d[k + 3] > 0 && dz < -1e-9 && l > 1e-9) expect(-dz / l).toBeLessThanOrEqual(Math.tan((4.01 * Math.PI) / 180));
      if (d[k + 3] > 0 && dz < -1e-9 && l <= 1e-9) expect(-dz).toBeLessThanOrEqual(6);
      if (d[k + 3] === 0 && k > 8 && k < d.length - 4) highest = Math.max(highest, d[k + 2]);
      const out = Math.hypot(d[k] - 40, d[k + 1] - 30);
      if (d[k + 2] < 0) expect(out).toBeLessThanOrEqual(12 + 9.525 - 3.175);
    }
    expect(highest).toBeLessThanOrEqual(1.001);
  },
);

test('finishing runs on the surface at any angle, within its tolerance', async () => {
  for (const angle of [0, 90, 37]) {
    const ctx = mound();
    const { path } = await planFinish(ctx, { ...finish, angle }, ball, region(3.175));
    const d = path.data;
    let lowest = 0;
    for (let k = 0; k < d.length; k += 4) {
      if (d[k + 3] === 0) continue;
      lowest = Math.min(lowest, d[k + 2]);
      const q = Math.hypot(d[k] - 40, d[k + 1] - 30);
      // Over the middle the ball stands on the mound's top, drawn up a little where it lies at the board's own.
      if (q < 0.3 && angle !== 37) expect(Math.abs(d[k + 2])).toBeLessThan(0.08);
    }
    expect(lowest).toBeGreaterThanOrEqual(-6 - 1e-6);
    expect(lowest).toBeLessThanOrEqual(-5.98);
  }
});

test('a sunk relief keeps the top around it, and its mask says so', () => {
  const { target } = mound('sunk');
  const kept = target.mask.filter((m) => m === MASK.keep).length;
  expect(kept / target.mask.length).toBeCloseTo(1 - (Math.PI * 144) / 4800, 2);
  target.mask.forEach((m, k) => {
    if (m === MASK.keep) expect(target.field.data[k]).toBe(0);
  });
});

test('a strip too thin to stand goes with the trench; a firm one stays', () => {
  const relief = makeField(boardGrid(60, 60, 0.2), AIR);
  for (let k = 0; k < relief.data.length; k++) {
    const x = (k % relief.width) * 0.2;
    const y = Math.floor(k / relief.width) * 0.2;
    if (x > 12 && x < 35 && y > 20 && y < 40) relief.data[k] = 3;
  }
  const { mask } = buildTarget({
    ...standing(relief),
    mode: 'raised',
    peak: 3,
    low: 0,
    skin: 0,
    drop: 0,
    regions: [region(10)],
  });
  const at = (x: number, y: number) => mask[Math.round(y / 0.2) * relief.width + Math.round(x / 0.2)];
  expect(at(0.6, 30)).toBe(MASK.waste);
  expect(at(50, 30)).toBe(MASK.keep);
  expect(at(20, 5)).toBe(MASK.keep);
});

test('what planning has found too thin to stand is no island of kept board to the proof, whatever the cells of each', () => {
  const seated = { mode: 'raised' as const, peak: 3, low: 0, skin: 0, drop: 0, regions: [region(9.525)] };
  const isKept = (m: number) => (m === MASK.keep ? 1 : 0);
  /** A plate on a board of 100 x 76, drawn on cells of a size. */
  const on = (cell: number, [x0, y0, x1, y1]: number[], frail?: number) => {
    const relief = makeField(boardGrid(100, 76, cell), AIR);
    for (let k = 0; k < relief.data.length; k++) {
      const { x, y } = cellPlace(relief, k);
      if (x > x0 && x < x1 && y > y0 && y < y1) relief.data[k] = 3;
    }
    const { field, mask } = buildTarget({ ...standing(relief), ...seated, frail });
    return { field, kept: Uint8Array.from(mask, isKept) };
  };
  /** Cells of kept board further than `near` mm from all board that planning keeps. */
  const islands = (planned: ReturnType<typeof on>, proven: ReturnType<typeof on>, near: number) => {
    const away = distanceOutside(planned.kept, planned.field.width, planned.field.height);
    return proven.kept.filter((kept, k) => {
      const { x, y } = cellPlace(proven.field, k);
      return kept === 1 && away[nearestCell(planned.field, x, y)] * planned.field.cell > near;
    }).length;
  };
  const without: number[] = [];
  for (const cell of [0.3, 0.5, 0.8])
    for (let gap = 13.4; gap < 14; gap += 0.055) {
      const plate = [gap, 10, 90, 76 - gap];
      const planned = on(cell, plate);
      // Strips of about 4 mm; the rim of what stands firm is the same to within two cells.
      const near = 2 * Math.max(0.4, cell);
      expect(islands(planned, on(0.25, plate, frailToProve(cell)), near), `${cell} ${gap}`).toBe(0);
      without.push(islands(planned, on(0.25, plate), near));
    }
  // It is the allowance that makes the difference.
  expect(Math.max(...without)).toBeGreaterThan(0);
});
