import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import type { Job } from '../doc/job';
import { cellAt } from '../field/height-field';
import { addPass } from '../passes/add-pass';
import { registerError } from '../passes/register-error';
import { type SetupView, setupView } from '../setup/view';
import { backFrom } from './backs';
import { addJig, addNest } from './jig';
import { drawerBit, errorsOf, plainSetup, planWhole, setupPlan, wrongIn } from './plan-test-kit';
import { addSetup } from './setups';

const BOARD = { x: 100, y: 60, thickness: 8, material: materialNamed('maple') };

/** Two discs of 24 mm in a board, with a shallow field each, cut out of the face; its back is their mirror. */
function discs(): { face: SetupView; back: SetupView } {
  const bits = { rough: drawerBit('em3'), finish: drawerBit('ball3') };
  const face = plainSetup({ name: 'Discs', order: '', machine: HOBBY_MACHINE, ...bits, board: BOARD });
  face.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  const disc = (id: string, across: number) => ({
    ...newShape({ id, name: id }, { kind: 'circle' }, { kind: 'flat' }, BOARD),
    size: { x: across, y: across },
    centre: { x: 46, y: 28 },
    copies: { kind: 'rows', columns: 2, rows: 1, dx: 44, dy: 0 } as const,
  });
  face.layers = [
    { ...disc('disc', 24), hidden: true },
    { ...disc('field', 20), rise: 1, join: 'carve' },
  ];
  face.cell = 0.2;
  const back = backFrom(face, 'mirror')!;
  applyEdits(face.document, back.edits);
  applyEdits(face.document, addPass(face, 'cutout', drawerBit('em3')));
  for (const p of face.passes)
    if (p.kind === 'cutout') {
      p.outline = { ...p.outline, of: ['disc'] };
      p.start = 'top';
      Object.assign(p.tabs, { count: 6, length: 4, thickness: 2 });
    }
  return { face, back: setupView(face.document, back.id) };
}

test('a jig is a board of its own: a pocket around each piece as it lies turned over, a hole in its middle, a notch and a mark', async () => {
  const { face, back } = discs();
  const jig = addJig(back)!;
  applyEdits(face.document, jig.edits);
  expect(wrongIn(face)).toBe('');
  expect(addJig(back)).toBeNull();
  // A second clamping of the backs gets one of its own: nothing in it is called as something in the first.
  const twice = structuredClone(face.document);
  const again = addSetup(setupView(twice, back.setup.id), 'back');
  applyEdits(twice, again.edits);
  applyEdits(twice, addJig(setupView(twice, again.id))!.edits);
  expect(wrongIn({ document: twice })).not.toContain('twice');
  const { document } = face;
  expect(document.boards.map((b) => [b.name, b.thickness, b.jigFor])).toEqual([
    ['Jig for Board', 4, back.setup.id],
    ['Board', 8, null],
  ]);
  // It is no job's first view: that is what is carved.
  expect(setupView(document).board.jigFor).toBeNull();
  const plan = await planWhole(document);
  expect(errorsOf(plan)).toEqual([]);
  const { cut } = setupPlan(plan, 0);
  const open = (x: number, y: number) => cut.data[cellAt(cut, x, y)] <= -4;
  // Turned over left to right the discs lie at 100 - 24 and 100 - 68, 28.
  for (const x of [76, 32]) {
    expect(open(x, 28)).toBe(true);
    // Across a place where neither notch nor tab is: board, slot, plug. The pocket is 12.1 mm in radius, the plug 3.175 less.
    expect(open(x, 40.4)).toBe(false);
    expect(open(x, 39.8)).toBe(true);
    expect(open(x, 37.2)).toBe(true);
    expect(open(x, 36.6)).toBe(false);
    // The notch beyond the pocket, where there is room for it, and the mark on the far side.
    expect(open(x === 76 ? 61 : 47, 28)).toBe(true);
    expect(open(x, 28 + 17)).toBe(true);
    expect(open(x, 28 - 17)).toBe(false);
  }
  const error = registerError(back)!;
  expect(error.shift).toBeCloseTo(0.1, 9);
  expect(error.turn).toBeCloseTo((Math.atan(0.5 / 12) * 180) / Math.PI, 6);
});

test('a jig that there is not is told, and made by its button; without a setup that cuts pieces there is none', () => {
  const { face, back } = discs();
  back.setup.register = 'jig';
  expect(registerError(back)).toBeNull();
  expect(addJig(face)).toBeNull();
  expect(addNest(face)).toBeNull();
});

/** What a nest and the face that lies on it leave between them, at places of the nest, mm: the same everywhere where they fit. */
async function between(document: Job, at: [number, number][]): Promise<number[]> {
  const plan = await planWhole(document);
  expect(errorsOf(plan)).toEqual([]);
  const [nest, face] = [setupPlan(plan, 0).cut, setupPlan(plan, 1).cut];
  // Turned over left to right: what lies on the nest at x is the face at 100 - x, its heights upside down.
  return at.map(([x, y]) => -nest.data[cellAt(nest, x, y)] - face.data[cellAt(face, BOARD.x - x, y)]);
}

test.each(['raised', 'sunk'] as const)(
  'a nest under a face that is %s stands where that has been cut, all over as far from it',
  async (mode) => {
    const bits = { rough: drawerBit('em3'), finish: drawerBit('ball3') };
    const board = { ...BOARD, thickness: 16 };
    const face = plainSetup({ name: 'Dome', order: '', machine: HOBBY_MACHINE, ...bits, board });
    face.seat = { mode, skin: 0, drop: 0, press: null };
    face.layers = [
      {
        ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, board),
        size: { x: 44, y: 36 },
        centre: { x: 46, y: 28 },
        rise: 4,
        join: mode === 'raised' ? 'stack' : 'carve',
      },
    ];
    face.cell = 0.25;
    for (const p of face.passes) if (p.kind === 'finish') p.stepover = 0.3;
    const back = backFrom(face, 'mirror')!;
    applyEdits(face.document, back.edits);
    const nest = addNest(setupView(face.document, back.id))!;
    applyEdits(face.document, nest.edits);
    expect(wrongIn(face)).toBe('');
    // Nearly level ground: at the middle, half way out, and beyond for the board that lies on its own face.
    const gaps = await between(face.document, [
      [54, 28],
      [59, 28],
      [54, 33],
      [49, 25],
    ]);
    for (const g of gaps) expect(Math.abs(g - gaps[0])).toBeLessThan(0.06);
  },
);
