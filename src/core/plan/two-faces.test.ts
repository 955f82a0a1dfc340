import { beforeAll, describe, expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { HOBBY_MACHINE } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import { WHOLE_PIECE } from '../doc/outline-ref';
import { FLIPS, type Flip } from '../doc/parts';
import { addPass } from '../passes/add-pass';
import { MOTION, readProgram } from '../program/reader';
import { setupView } from '../setup/view';
import {
  BACK_DISH,
  DISHED,
  dishes,
  drawerBit,
  errorsOf,
  FACE_DISH,
  plainSetup,
  planWhole,
  setupPlan,
  wrongIn,
} from './plan-test-kit';
import { addSetup } from './setups';
import type { Plan } from './summary';

describe('a dish on both faces', () => {
  let plan: Plan;
  beforeAll(async () => {
    const { face } = dishes();
    expect(wrongIn(face)).toBe('');
    plan = await planWhole(face.document);
  });

  test('is proven in one solid: both setups without an error', () => {
    expect(errorsOf(plan)).toEqual([]);
    expect(plan.summary.setups.map((s) => s.id)).toEqual(['face', 'back']);
    expect(plan.solids).toHaveLength(1);
    for (const [i, d] of [FACE_DISH, BACK_DISH].entries())
      expect(setupPlan(plan, i).summary.deepest).toBeCloseTo(d.depth, 1);
  });

  test('its thinnest place is that of the closed form within 0.01 mm', () => {
    // The middles lie over each other: what is left there is the thickness less both depths.
    expect(
      Math.abs(plan.summary.boards[0].thinnest - (DISHED.thickness - FACE_DISH.depth - BACK_DISH.depth)),
    ).toBeLessThan(0.01);
  });

  test('faces meet cell by cell: the same place is seen from both sides, and the web is what both leave', () => {
    const [front, rear] = [setupPlan(plan, 0).target, setupPlan(plan, 1).target];
    const { width, height, cell, originX, originY } = front;
    let exact = Infinity;
    for (let j = 0; j < height; j++) {
      for (let i = 0; i < width; i++) {
        const x = originX + i * cell;
        // Turned over the y axis: x runs from the other edge, row by row the same y.
        const k = Math.round((DISHED.x - x - rear.originX) / cell);
        expect(Math.abs(rear.originX + k * cell - (DISHED.x - x))).toBeLessThan(1e-6);
        expect(rear.originY + j * cell).toBeCloseTo(originY + j * cell, 9);
        exact = Math.min(exact, DISHED.thickness + front.data[j * width + i] + rear.data[j * width + k]);
      }
    }
    expect(Math.abs(plan.summary.boards[0].thinnest - exact)).toBeLessThan(0.01);
  });

  test('a back that is cut turns up mirrored in the solid', () => {
    const { solids } = plan;
    const { grid, bottom } = solids[0];
    let lowest = -Infinity;
    let at = 0;
    for (let k = 0; k < bottom.length; k++) if (bottom[k] > lowest) [lowest, at] = [bottom[k], k];
    expect(lowest + DISHED.thickness).toBeCloseTo(BACK_DISH.depth, 1);
    const x = grid.originX + (at % grid.width) * grid.cell;
    expect(Math.abs(x - (DISHED.x - BACK_DISH.cx))).toBeLessThan(1);
  });

  test('what is too thin is told, and less rise mends it', async () => {
    const { face, back } = dishes();
    face.layers[0].rise = 6;
    back.layers[0].rise = 5.4;
    const thin = await planWhole(face.document);
    const floor = thin.summary.findings.find((f) => f.rule === 'floor')!;
    expect(floor.severity).toBe('warning');
    expect(floor.subject.setup).toBe('back');
  });
});

/** A rigid motion of a place in space: half a turn about an axis through the board's middle. */
function turnedOver(flip: Flip, [x, y, z]: number[]): number[] {
  // Independent of the frames: rotation by 180 degrees.
  const [u, v, w] = [x - DISHED.x / 2, y - DISHED.y / 2, z + DISHED.thickness / 2];
  const [c, s] = [Math.cos(Math.PI), Math.sin(Math.PI)];
  const [a, b, d] = flip === 'about-y' ? [u * c + w * s, v, -u * s + w * c] : [u, v * c - w * s, v * s + w * c];
  return [a + DISHED.x / 2, b + DISHED.y / 2, d - DISHED.thickness / 2];
}

test.each(FLIPS)('letters on the back read right when the board is turned over %s', async (flip) => {
  const face = plainSetup({
    name: 'F',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em3'),
    finish: drawerBit('ball3'),
    board: DISHED,
  });
  face.cell = 0.2;
  face.board.flip = flip;
  const { id, edits } = addSetup(face, 'back');
  applyEdits(face.document, edits);
  const back = setupView(face.document, id);
  back.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  // An F: a stem at the left, two bars to the right of it, as read by who looks at the back.
  const bar = (name: string, x: number, y: number, w: number, h: number) => ({
    ...newShape({ id: name, name: name }, { kind: 'rectangle' }, { kind: 'flat' }, DISHED),
    size: { x: w, y: h },
    centre: { x, y },
    rise: 2,
    join: 'carve' as const,
  });
  back.layers = [bar('stem', 22, 25, 6, 30), bar('top', 34, 37, 18, 6), bar('middle', 32, 26, 14, 6)];
  applyEdits(face.document, addPass(back, 'rough', face.cutters[0]));
  Object.assign(back.passes[0], { stockToLeave: 0 });
  face.passes = [];
  const plan = await planWhole(face.document);
  expect(errorsOf(plan)).toEqual([]);
  // What the program cuts, moved by the rigid motion, is what is missing from the solid below.
  const { grid, bottom } = plan.solids[0];
  const [program] = plan.summary.programs;
  const { motions } = readProgram(program.text, program.file, program.cutter);
  let seen = 0;
  for (let m = 0; m < motions.length; m += MOTION) {
    const [x, y, z] = [motions[m + 3], motions[m + 4], motions[m + 5]];
    if (motions[m + 6] === 1 || z > -0.5) continue;
    const [sx, sy, sz] = turnedOver(flip, [x, y, z]);
    const k = Math.round((sy - grid.originY) / grid.cell) * grid.width + Math.round((sx - grid.originX) / grid.cell);
    expect(bottom[k]).toBeGreaterThanOrEqual(sz - 1e-3);
    seen++;
  }
  expect(seen).toBeGreaterThan(30);
  // Read from below: in the solid's own coordinates a place of the letter stands where the motion takes it.
  const missing = (x: number, y: number) => {
    const [sx, sy] = turnedOver(flip, [x, y, 0]);
    const k = Math.round((sy - grid.originY) / grid.cell) * grid.width + Math.round((sx - grid.originX) / grid.cell);
    return bottom[k] > -11.5;
  };
  expect(missing(22, 15)).toBe(true);
  expect(missing(DISHED.x - 22, 15)).toBe(false);
  expect(missing(40, 37)).toBe(true);
  expect(missing(36, 26)).toBe(true);
  expect(missing(30, 32)).toBe(false);
});

test('an outline of the face is named by a pass of the back, and comes through the frames', async () => {
  const { face, back } = dishes();
  // A plate in the corner of the face, and an area of the back that is just under it.
  face.layers.push({
    ...newShape({ id: 'plate', name: 'Plate' }, { kind: 'rectangle' }, { kind: 'flat' }, DISHED),
    size: { x: 10, y: 8 },
    centre: { x: 10, y: 8 },
    rise: 1,
    join: 'carve',
  });
  back.layers = [
    {
      ...newShape({ id: 'field', name: 'Field' }, { kind: 'rectangle' }, { kind: 'flat' }, DISHED),
      size: { x: 58, y: 48 },
      rise: 3,
      join: 'carve',
    },
  ];
  const outline = { ...WHOLE_PIECE, of: ['plate'], grow: 2 };
  back.passes = [{ ...back.passes[0], area: { kind: 'outline', outline } } as never];
  expect(wrongIn(face)).toBe('');
  const plan = setupPlan(await planWhole(face.document), 1);
  const at = (x: number, y: number) =>
    plan.cut.data[Math.round((y - plan.cut.originY) / 0.2) * plan.cut.width + Math.round((x - plan.cut.originX) / 0.2)];
  // Under the plate, seen from the back at the other side.
  expect(at(DISHED.x - 10, 8)).toBeLessThan(0);
  expect(at(10, 8)).toBe(0);
  // Another board's layer cannot be named.
  face.document.boards.push({ ...structuredClone(face.board), id: 'second', setups: [] });
  back.passes = [{ ...back.passes[0], area: { kind: 'outline', outline: { ...outline, of: ['gone'] } } } as never];
  expect(wrongIn(face)).toContain('"gone", which is not on this board');
});
