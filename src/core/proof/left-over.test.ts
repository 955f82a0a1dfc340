import { expect, test } from 'vitest';
import { MASK, type Target } from '../arrange/target';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import { boardGrid, cellPlace, makeField } from '../field/height-field';
import { identify } from '../findings/finding';
import { textOf } from '../findings/texts/text-of';
import { withDrawer } from '../plan/drawer';
import { drawerBit, plainSetup } from '../plan/plan-test-kit';
import { leftOver } from './checks/left-over';
import { compareSurfaces } from './deviation';
import { widestThere } from './reaching';

const CELL = 0.1;

/** A level face 2 mm down with a slot of `wide` by `long` mm that goes 4 mm deeper, as it is to be and as it is cut without the slot. */
function slotted(wide: number, long = 5) {
  const field = makeField(boardGrid(40, 30, CELL), -2);
  const mask = new Uint8Array(field.data.length).fill(MASK.cut);
  for (let k = 0; k < mask.length; k++) {
    const { x, y } = cellPlace(field, k);
    if (Math.abs(x - 20) < wide / 2 && Math.abs(y - 15) < long / 2) field.data[k] = -6;
  }
  const target: Target = { field, mask, outside: new Float32Array(mask.length), ground: -2 };
  return { target, cut: makeField(field, -2) };
}

const view = () =>
  plainSetup({
    name: 's',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball6'),
    board: { x: 40, y: 30, thickness: 12, material: materialNamed('maple') },
  });

const told = (wide: number, long?: number) => {
  const { target, cut } = slotted(wide, long);
  const deviation = compareSurfaces(cut, target.field, target.mask);
  return {
    target,
    deviation,
    found: leftOver.cut!({ view: view(), target, cut, deviation, cutouts: [], cutBy: () => ({}) }),
  };
};

test('a slot that no bit of the job enters is told, though it is a hundredth of the face: where, how much, and which bit would', () => {
  const { deviation, found } = told(1.5);
  expect(deviation.left.share).toBeLessThan(0.01);
  expect(deviation.left.deepest).toBeCloseTo(4, 5);
  // Length by width by depth, less a cell along its walls, where a cell sideways is allowed.
  expect(deviation.left.volume / ((1.5 - 2 * CELL) * (5 - 2 * CELL) * 4)).toBeCloseTo(1, 1);
  expect(found).toHaveLength(1);
  const [f] = found;
  expect(f.place!.x).toBeGreaterThan(19);
  expect(f.place!.x).toBeLessThan(21);
  expect(f.figures).toMatchObject({ why: 'width', own: 6.35 });
  // A ball as wide as the slot lies on its floor.
  expect(Number(f.figures!.most)).toBeGreaterThan(1.3);
  expect(Number(f.figures!.most)).toBeLessThan(1.75);
  expect(textOf(f).message).toContain('cm³ stand over the target, 4 mm at the highest');
});

test('a wider slot takes a wider bit; one that the finest bit enters is left by its path', () => {
  expect(Number(told(3).found[0].figures!.most)).toBeGreaterThan(2.7);
  expect(told(8, 8).found[0].figures).toMatchObject({ why: 'path' });
});

test('what a ball leaves at the foot of a wall is no finding', () => {
  const { target } = slotted(8);
  const cut = { ...target.field, data: target.field.data.slice() };
  for (let k = 0; k < cut.data.length; k++) {
    const { x, y } = cellPlace(cut, k);
    const wall = Math.min(4 - Math.abs(x - 20), 2.5 - Math.abs(y - 15));
    if (cut.data[k] === -6 && wall < 1.2) cut.data[k] += 1.2 - wall;
  }
  const deviation = compareSurfaces(cut, target.field, target.mask);
  expect(leftOver.cut!({ view: view(), target, cut, deviation, cutouts: [], cutBy: () => ({}) })).toEqual([]);
});

test('the drawer says which of its bits would take it away, and the fix brings that bit with a pass', () => {
  const [finding] = identify(told(3.4).found, false);
  expect(finding.fixes).toEqual([]);
  const v = view();
  const [f] = withDrawer([finding], v, DRAWER);
  expect(f.fixes.map((x) => [x.id, x.figures.bit])).toEqual([['add-finish', 'ball 3.175']]);
  applyEdits(v.document, f.fixes[0].edits);
  expect(v.cutters.some((c) => c.id === 'ball3')).toBe(true);
  expect(v.passes.some((p) => p.kind === 'finish' && p.cutter === 'ball3')).toBe(true);
});

test('the widest ball at the bottom of a groove is that of its width, in open ground the widest looked for', () => {
  for (const wide of [1, 2, 5]) {
    const { target } = slotted(wide);
    const k = 150 * 400 + 200;
    expect(Math.abs(widestThere(target.field, k, 4) - wide)).toBeLessThan(0.25 + 0.12 * wide);
  }
  const { target } = slotted(1);
  expect(widestThere(target.field, 150 * 400 + 60, 4)).toBe(16);
});
