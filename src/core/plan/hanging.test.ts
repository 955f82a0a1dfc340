import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import { cellAt } from '../field/height-field';
import { addPass } from '../passes/add-pass';
import type { HangPass } from '../passes/hang/schema';
import { type SetupView, setupView } from '../setup/view';
import {
  drawerBit,
  errorsOf,
  others,
  plainSetup,
  planShapes,
  planWhole,
  proposed,
  setupPlan,
  wrongIn,
} from './plan-test-kit';
import { addSetup } from './setups';

const slotBit = drawerBit('slot9');
const [R, neck, head] = [slotBit.diameter / 2, slotBit.neckDiameter, slotBit.fluteLength];

/** A board of 60 x 90 x 18 with nothing on it but a hanging slot. */
function hanging(change: (p: HangPass, v: SetupView) => void = () => {}): SetupView {
  const board = { x: 60, y: 90, thickness: 18, material: materialNamed('maple') };
  const view = plainSetup({ name: 'H', order: '', machine: HOBBY_MACHINE, rough: slotBit, finish: slotBit, board });
  view.layers = [];
  view.passes = [];
  view.cell = 0.1;
  const pass = proposed('hang', view, slotBit);
  change(pass, view);
  view.passes = [pass];
  return view;
}

test('a slot is planned and proven: a hole for the screw, a slit for its shank, and what is hollow under it', async () => {
  const view = hanging();
  const [pass] = view.passes as HangPass[];
  expect(pass).toMatchObject({ places: [{ x: 30, y: 22.5 }], length: 45, towards: 90, depth: 9.525 });
  const plan = await planShapes(view);
  expect(errorsOf(plan)).toEqual([]);
  expect(others(plan.summary.findings).filter((f) => f.severity === 'warning')).toEqual([]);
  const { cut } = plan;
  const wide = (y: number) => {
    const j = Math.round((y - cut.originY) / cut.cell);
    return cut.data.subarray(j * cut.width, (j + 1) * cut.width).filter((z) => z < -9.4).length * cut.cell;
  };
  expect(wide(22.5)).toBeCloseTo(2 * R, 0);
  expect(wide(50)).toBeCloseTo(neck, 0);
  expect(wide(75)).toBe(0);
  // Its head goes along once each way: one undercut, from the hole to where the piece hangs.
  expect(plan.summary.undercuts).toEqual([expect.objectContaining({ x0: 30, y0: 67.5, x1: 30, y1: 22.5, radius: R })]);
  const [under] = plan.summary.undercuts;
  expect([under.floor, under.ceiling]).toEqual([-9.525, -9.525 + head].map((z) => expect.closeTo(z, 3)));
  // What stands under the slot, and not what stands beside it, is the board's thinnest; the lip is thicker.
  expect(plan.summary.thinnest).toBeCloseTo(9.525 - head, 2);
});

test('what it takes away is a cylinder and two slots, in closed form', async () => {
  const plan = await planWhole(hanging().document);
  const [program] = plan.summary.programs;
  const [pass] = hanging().passes as HangPass[];
  const { length: L, depth } = pass;
  // The hole; the neck's slot over the head, the head's slot under it, each a band and half a disc, less what the hole has taken of them.
  const bandOver = (r: number) => {
    const half = (Math.PI * r * r) / 2;
    // Of a band of half-width r that begins at the hole's middle the hole takes: its half disc and the band up to the hole's rim.
    const inHole = r >= R ? (Math.PI * R * R) / 2 : r * Math.sqrt(R * R - r * r) + R * R * Math.asin(r / R);
    return 2 * r * L + half - inHole;
  };
  const volume = Math.PI * R * R * depth + (depth - head) * bandOver(neck / 2) + head * bandOver(R);
  expect(Math.abs(program.volume - volume) / volume).toBeLessThan(0.01);
});

test('a slot whose lip is thin, or that is deeper than its bit, is told with what does', () => {
  expect(wrongIn(hanging())).toBe('');
  expect(wrongIn(hanging((p) => (p.depth = 4)))).toContain('only 0.5 mm of wood stand over the head');
  expect(wrongIn(hanging((p) => (p.depth = 3)))).toContain('no lower than the board');
  expect(wrongIn(hanging((p) => (p.depth = 15)))).toContain('goes in 14.5 mm up to its shank');
  expect(wrongIn(hanging((p) => (p.cutter = 'em6')))).not.toBe('');
});

/** The same board with a pocket of 30 x 30 over where the slot is, from its other side. */
async function pocketed(depth: number) {
  const view = hanging((_, v) => (v.setup.up = 'back'));
  const made = addSetup(view, 'face');
  applyEdits(view.document, made.edits);
  const face = setupView(view.document, made.id);
  const square = newShape({ id: 'sq', name: 'Square' }, { kind: 'rectangle' }, { kind: 'flat' }, view.board);
  face.layers = [{ ...square, size: { x: 30, y: 30 }, centre: { x: 30, y: 45 }, rise: 0.5, join: 'carve' }];
  face.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  applyEdits(view.document, addPass(face, 'pocket', drawerBit('em6')));
  for (const p of face.passes)
    if (p.kind === 'pocket') Object.assign(p, { depth, outline: { ...p.outline, of: ['sq'] } });
  return planWhole(view.document);
}

test('a recess of the other side that comes near the slot, or into it, is told by the wood between them', async () => {
  const thin = await pocketed(7.5);
  expect(thin.summary.boards[0].thinnest).toBeCloseTo(18 - 9.525 - 7.5, 2);
  expect(thin.summary.findings.filter((f) => f.rule === 'floor')).toEqual([
    expect.objectContaining({ severity: 'warning' }),
  ]);
  // Into the hollow, but not through the board as it is seen from above: open all the same.
  const into = await pocketed(10);
  expect(into.summary.findings.filter((f) => f.rule === 'floor').map((f) => f.severity)).toContain('error');
  // Beside the slit the pocket's floor has fallen in: the surface goes on to the other side of the hollow, beyond it it is the pocket's own.
  const { cut } = setupPlan(into, 1);
  const at = (x: number, y: number) => cut.data[cellAt(cut, x, y)];
  expect(at(60 - 33.5, 45)).toBeCloseTo(-(18 - 9.525 + head), 3);
  expect(at(60 - 40, 45)).toBeCloseTo(-10, 3);
});
