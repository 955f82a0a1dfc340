import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { applyEdits } from '../doc/edits';
import { FLIPS } from '../doc/parts';
import type { CutoutPass } from '../passes/cutout/schema';
import { addDowels } from '../passes/dowels';
import { frameBetween, placeThrough } from '../setup/frame';
import { setupView } from '../setup/view';
import { cutHalves } from './halves';
import { otherSideFirst } from './other-first';
import { dishes, drawerBit, errorsOf, planWhole, proposed, wrongIn } from './plan-test-kit';

/** A board of two dishes on dowels, whose piece is cut out of the side that comes second. */
function board(flip: (typeof FLIPS)[number]) {
  const { face, back } = dishes({ x: 130, y: 110, thickness: 12, material: dishes().face.board.material });
  face.cell = 0.2;
  face.board.flip = flip;
  // Away from the board's edges, so that a frame stays around the piece, and over each other.
  face.layers[0].centre = { x: 34, y: 34 };
  back.layers[0].centre = placeThrough(frameBetween(face.board, face.setup, back.setup), face.layers[0].centre);
  const disc = newShape({ id: 'disc', name: 'Disc' }, { kind: 'oval' }, { kind: 'flat' }, face.board);
  for (const v of [face, back]) v.passes.splice(0, v.passes.length, ...v.passes.filter((p) => p.kind !== 'cutout'));
  back.layers.push({ ...disc, size: { x: 44, y: 44 }, centre: { ...back.layers[0].centre }, rise: 1, join: 'carve' });
  const pass = proposed('cutout', back, drawerBit('em3'));
  Object.assign(pass, { outline: { ...pass.outline, of: ['disc'] }, start: 'top' });
  Object.assign(pass.tabs, { count: 3, length: 6, thickness: 3 });
  back.passes.push(pass);
  applyEdits(face.document, addDowels(face, [drawerBit('drill6')])!);
  back.setup.register = 'dowels';
  return { face, back, pass };
}
const cutoutOf = (v: { passes: { kind: string }[] }) => v.passes.find((p) => p.kind === 'cutout') as CutoutPass;

test.each(FLIPS)('turned over %s, the other side first: dowels, register and cut-out go where they belong', (flip) => {
  const { face, back } = board(flip);
  expect(wrongIn(face)).toBe('');
  const holes = face.passes.find((p) => p.kind === 'hole')!;
  const frame = frameBetween(face.board, face.setup, back.setup);
  // Two more beside the axis, which take each other's places when the board is turned over.
  const aside = { x: 8, y: 9 };
  if (holes.kind === 'hole') holes.places.push(aside, placeThrough(frame, aside));
  expect(wrongIn(face)).toBe('');
  applyEdits(face.document, otherSideFirst(face)!);
  const [first, second] = face.document.boards[0].setups;
  expect([first.up, second.up]).toEqual(['back', 'face']);
  expect(second.register).toBe('dowels');
  expect(first.register).not.toBe('dowels');
  const moved = first.passes.find((p) => p.kind === 'hole')!;
  expect(moved.kind === 'hole' && moved.places).toEqual(
    holes.kind === 'hole' && holes.places.map((p) => placeThrough(frame, p)),
  );
  expect(second.passes.some((p) => p.kind === 'hole')).toBe(false);
  expect(cutoutOf(first)).toBeUndefined();
  expect(cutoutOf(second).outline.of).toEqual(['disc']);
  const view = setupView(face.document, second.id);
  expect(wrongIn(view)).toBe('');

  // And back again: the same order, the same holes.
  applyEdits(face.document, otherSideFirst(view)!);
  const again = face.document.boards[0].setups;
  expect(again.map((s) => s.up)).toEqual(['face', 'back']);
  expect(again[0].passes.find((p) => p.kind === 'hole')).toEqual(holes);
  expect(cutoutOf(again[1]).outline.of).toEqual(['disc']);
});

test('a board whose other side is cut first is planned and proven, and its piece hangs on the tabs that were moved', async () => {
  const { face } = board('about-x');
  applyEdits(face.document, otherSideFirst(face)!);
  const plan = await planWhole(face.document);
  expect(errorsOf(plan)).toEqual([]);
  expect(plan.summary.setups.map((s) => s.cutouts.length)).toEqual([0, 1]);
  expect(plan.summary.setups[1].cutouts[0].tabs.map((t) => t.holds)).toEqual([true, true, true]);
});

test('halves of a cut-out keep the plane in which they meet', () => {
  const { face, back, pass } = board('about-y');
  back.passes.splice(back.passes.indexOf(pass), 1);
  face.layers.push({ ...back.layers[1], id: 'mark' });
  face.passes.push({ ...pass, outline: { ...pass.outline, of: ['mark'] } });
  applyEdits(face.document, cutHalves(face, cutoutOf(face))!);
  cutoutOf(face).depth = 5;
  applyEdits(face.document, otherSideFirst(face)!);
  const [first, second] = face.document.boards[0].setups;
  expect([cutoutOf(first).depth, cutoutOf(second).depth]).toEqual([7, null]);
});

test('what has been made for an order keeps it: a skim, a jig; and a board of one setup has none', () => {
  const { face, back } = board('about-y');
  const skim = proposed('skim', face, drawerBit('em6'));
  face.passes.push(skim);
  expect(otherSideFirst(face)).toBeNull();
  face.passes.pop();
  expect(otherSideFirst(face)).not.toBeNull();
  face.document.boards[0].jigFor = back.setup.id;
  expect(otherSideFirst(face)).toBeNull();
  face.document.boards[0].jigFor = null;
  face.board.setups.splice(1);
  expect(otherSideFirst(face)).toBeNull();
});
