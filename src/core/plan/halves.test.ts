import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { applyEdits } from '../doc/edits';
import { FLIPS } from '../doc/parts';
import { addPass } from '../passes/add-pass';
import type { CutoutPass } from '../passes/cutout/schema';
import { MOTION, readProgram } from '../program/reader';
import { setupView } from '../setup/view';
import { cutHalves } from './halves';
import { dishes, drawerBit, errorsOf, planWhole, proposed, wrongIn } from './plan-test-kit';
import { addSetup } from './setups';

const SIZE = { x: 70, y: 60, thickness: 12 };

/** A disc of 30 mm aside from a board's middle, sunk a little, cut out half from each side. */
function halved(flip: (typeof FLIPS)[number] = 'about-y') {
  const { face } = dishes({ ...SIZE, material: dishes().face.board.material });
  face.board.flip = flip;
  face.board.setups.splice(1);
  const disc = newShape({ id: 'disc', name: 'Disc' }, { kind: 'oval' }, { kind: 'flat' }, SIZE);
  face.layers = [{ ...disc, size: { x: 30, y: 30 }, centre: { x: 30, y: 27 }, rise: 2, join: 'carve' }];
  face.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  face.cell = 0.3;
  const pass = proposed('cutout', face, drawerBit('em3'));
  Object.assign(pass, { outline: { ...pass.outline, of: ['disc'] }, start: 'top' });
  Object.assign(pass.tabs, { count: 3, length: 6, thickness: 3 });
  face.passes = [...face.passes, pass];
  const back = addSetup(face, 'back');
  applyEdits(face.document, back.edits);
  applyEdits(face.document, cutHalves(face, pass)!);
  return { face, back: setupView(face.document, back.id) };
}

test.each(FLIPS)(
  'turned over %s a cut-out goes half of the way from either side, and its tabs stand in the second',
  async (flip) => {
    const { face, back } = halved(flip);
    const [first, rest] = [face, back].map((v) => v.passes.find((p): p is CutoutPass => p.kind === 'cutout')!);
    expect([first.depth, rest.depth]).toEqual([6, null]);
    expect(rest.outline.of).toEqual(['disc']);
    expect(wrongIn(face)).toBe('');
    const plan = await planWhole(face.document);
    expect(errorsOf(plan)).toEqual([]);
    expect(plan.summary.setups.map((s) => s.cutouts.length)).toEqual([0, 1]);
    const [cutout] = plan.summary.setups[1].cutouts;
    expect(cutout.joined).toBeNull();
    expect(cutout.tabs.map((t) => [t.holds, Math.abs(t.thickness - 3) < 0.3])).toEqual(Array(3).fill([true, true]));
    const lowest = (setup: string) => {
      const own = plan.summary.programs.filter((p) => p.setup === setup).at(-1)!;
      const { motions } = readProgram(own.text, own.file, own.cutter);
      let low = 0;
      for (let m = 0; m < motions.length; m += MOTION) if (motions[m + 6] !== 1) low = Math.min(low, motions[m + 5]);
      return low;
    };
    // Half of the board from the face; from the back the rest, and as much more as both overlap.
    expect(lowest(face.setup.id)).toBeCloseTo(-6, 2);
    expect(lowest(back.setup.id)).toBeLessThanOrEqual(-6.5 + 0.01);
    expect(lowest(back.setup.id)).toBeGreaterThan(-7);
  },
);

test('no halves without a second side, and not twice; a half as deep as the board is thick is told', () => {
  const { face } = halved();
  const pass = face.passes.find((p): p is CutoutPass => p.kind === 'cutout')!;
  expect(cutHalves(face, pass)).toBeNull();
  pass.depth = 12;
  expect(wrongIn(face)).toContain('to end 12 mm deep in a board of 12 mm');
  pass.depth = null;
  face.board.setups.splice(1);
  expect(cutHalves(face, pass)).toBeNull();
});

test('a slug that hung on tabs which the second side takes away is told with the setup that left them', async () => {
  const { face, back } = halved();
  const whole = face.passes.find((p): p is CutoutPass => p.kind === 'cutout')!;
  whole.depth = null;
  // From the back the ground around the disc is cleared by more than the tabs are thick, which stand there.
  applyEdits(face.document, addPass(back, 'pocket', drawerBit('em3')));
  back.passes = back.passes.filter((p) => p.kind === 'pocket');
  for (const p of back.passes)
    if (p.kind === 'pocket') Object.assign(p, { depth: 3.5, outline: { ...p.outline, of: ['disc'], grow: 8 } });
  const plan = await planWhole(face.document);
  const told = plan.summary.findings.filter((f) => f.rule === 'loose');
  expect(told).toEqual([
    expect.objectContaining({ severity: 'error', figures: expect.objectContaining({ tabs: face.setup.name }) }),
  ]);
  expect(told[0].subject.setup).toBe(back.setup.id);
  // A disc of 30 mm is what falls.
  expect(Math.abs(Number(told[0].figures.area) - Math.PI * 15 ** 2)).toBeLessThan(25);
});
