import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { MASK } from '../arrange/target';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import type { Layer } from '../doc/layer';
import type { PassOf } from '../doc/pass';

import type { HeightField } from '../field/height-field';
import { addPass } from '../passes/add-pass';
import type { SetupView } from '../setup/view';
import type { LoadContent } from './composing';
import { drawerBit, errorsOf, plainSetup, planShapes, shapesOnly } from './plan-test-kit';

// What is left of a small board is judged against plain geometry: distances to a rectangle, worked out here and nowhere else.
const BOARD = { x: 70, y: 56, thickness: 12, material: materialNamed('maple') };
/** A plate with upright sides in the middle of the board. */
const PLATE = { x: 26, y: 18, cx: 35, cy: 28, rise: 4 };
const TRENCH = 9;
/** Radius of the finishing ball with a cell, mm. */
const BALL = 1.5875 + 0.3;

function plate(change: (v: SetupView, rough: PassOf<'rough'>) => void = () => {}): SetupView {
  const view = plainSetup({
    name: 'Plate',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em3'),
    finish: drawerBit('ball3'),
    board: BOARD,
  });
  view.cell = 0.25;
  const layer: Layer = {
    ...newShape({ id: 'plate', name: 'Plate' }, { kind: 'rectangle' }, { kind: 'flat' }, BOARD),
    size: { x: PLATE.x, y: PLATE.y },
    centre: { x: PLATE.cx, y: PLATE.cy },
    rise: PLATE.rise,
  };
  view.layers = [layer];
  for (const p of view.passes) if ('area' in p) p.area = { kind: 'relief', trench: TRENCH };
  change(view, view.passes[0] as PassOf<'rough'>);
  return view;
}

/** Distance of a place from the plate, mm; negative inside. */
function away(x: number, y: number): number {
  const dx = Math.abs(x - PLATE.cx) - PLATE.x / 2;
  const dy = Math.abs(y - PLATE.cy) - PLATE.y / 2;
  return dx <= 0 && dy <= 0 ? Math.max(dx, dy) : Math.hypot(Math.max(dx, 0), Math.max(dy, 0));
}

function everywhere(f: HeightField, look: (z: number, x: number, y: number, k: number) => void): void {
  for (const [k, z] of f.data.entries())
    look(z, f.originX + (k % f.width) * f.cell, f.originY + Math.floor(k / f.width) * f.cell, k);
}

test.each(['rings', 'raster'] as const)(
  'a plate roughed in %s: the trench is as wide as it was asked for, clear, and nothing beyond it is touched',
  async (strategy) => {
    const view = plate((_, rough) => Object.assign(rough, { strategy }));
    const plan = await planShapes(view);
    expect(errorsOf(plan)).toEqual([]);
    let [beyond, left, nearest, farthest] = [0, -Infinity, Infinity, 0];
    everywhere(plan.cut, (z, x, y) => {
      const d = away(x, y);
      if (d > TRENCH + 0.3) beyond = Math.min(beyond, z);
      // A ball leaves its own rounding along walls; from its radius on the ground is clear.
      if (d > BALL && d < TRENCH - BALL) left = Math.max(left, z + PLATE.rise);
      if (z < -0.01 && d > 0) farthest = Math.max(farthest, d);
      if (z > -0.01 && d > 0.5) nearest = Math.min(nearest, d);
    });
    expect(beyond).toBe(0);
    expect(left).toBeLessThan(0.06);
    expect(farthest).toBeLessThanOrEqual(TRENCH + 0.3);
    expect(nearest).toBeGreaterThan(TRENCH - 0.6);
  },
);

test.each(['rings', 'raster'] as const)(
  'roughing in %s leaves its stock at walls and on the ground, and no ribs between its ways',
  async (strategy) => {
    const stock = 1;
    const view = plate((_, rough) => Object.assign(rough, { strategy, stockToLeave: stock, stepover: 1.5 }));
    const plan = await planShapes(view);
    const rough = plan.rough!;
    let [least, rib, side] = [Infinity, -Infinity, Infinity];
    everywhere(rough, (z, x, y) => {
      const d = away(x, y);
      if (d > TRENCH) expect(z).toBe(0);
      if (d > 0 && d <= TRENCH) least = Math.min(least, z + PLATE.rise);
      // Beside the plate and the trench's wall the stock stands; between them nothing may stand higher than the stock on the ground.
      if (d > stock + 0.4 && d < TRENCH - stock - 0.9) rib = Math.max(rib, z + PLATE.rise);
      if (z < -0.5 && d > 0) side = Math.min(side, d);
      if (z < -0.5 && d < TRENCH) side = Math.min(side, TRENCH - d);
    });
    expect(least).toBeGreaterThanOrEqual(stock - 0.02);
    expect(rib).toBeLessThan(stock + 0.03);
    expect(side).toBeGreaterThanOrEqual(stock - 0.3);
  },
);

test('rows clear a whole face: no rib is left between two of them', async () => {
  const view = plate((v, rough) => {
    Object.assign(rough, { strategy: 'raster', stockToLeave: 1, stepover: 1.5, area: { kind: 'face' } });
    v.passes.splice(1);
  });
  const plan = await planShapes(view);
  let rib = -Infinity;
  everywhere(plan.cut, (z, x, y) => {
    if (away(x, y) > 2) rib = Math.max(rib, z + PLATE.rise);
  });
  expect(rib).toBeLessThan(1.03);
  // Nor one that a later level has to take away, deeper than the bit may.
  expect(plan.summary.findings.map((f) => f.rule)).not.toContain('bite');
});

test('a raised piece keeps its skin over it, and a sunk one leaves all around it as it was', async () => {
  const skinned = await planShapes(plate((v) => (v.seat = { mode: 'raised', skin: 1.2, drop: 0, press: null })));
  let top = -Infinity;
  everywhere(skinned.cut, (z, x, y) => {
    if (away(x, y) < -1) top = Math.max(top, z);
  });
  expect(Math.abs(top + 1.2)).toBeLessThan(0.02);
  const sunk = await planShapes(
    plate((v) => {
      v.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
      v.layers[0].join = 'carve';
      for (const p of v.passes) if ('area' in p) p.area = { kind: 'face' };
    }),
  );
  expect(errorsOf(sunk)).toEqual([]);
  let [outside, deepest] = [0, 0];
  everywhere(sunk.cut, (z, x, y, k) => {
    const d = away(x, y);
    if (d > 0.3) outside = Math.min(outside, z);
    if (d < -2) {
      deepest = Math.min(deepest, z);
      // What is carved belongs to the piece: it is worked on, not left as waste.
      expect(sunk.mask[k]).toBe(MASK.cut);
    }
  });
  expect(outside).toBe(0);
  // Thinning leaves up to its tolerance, and what is written is rounded upwards.
  expect(Math.abs(deepest + PLATE.rise)).toBeLessThan(0.01);
});

test('letters that a font lacks are a note, and a warning where they are cut out of the board', async () => {
  const load: LoadContent = async (l) => {
    const made = await shapesOnly(l);
    return { ...made, facts: { ...made.facts, missing: ['\u017f'] } };
  };
  const told = async (v: SetupView) =>
    (await planShapes(v, load)).summary.findings.find((f) => f.rule === 'missing-letters')?.severity;
  expect(await told(plate())).toBe('note');
  const cut = plate((v) => {
    applyEdits(v.document, addPass(v, 'cutout', drawerBit('em3')));
  });
  expect(await told(cut)).toBe('warning');
});
