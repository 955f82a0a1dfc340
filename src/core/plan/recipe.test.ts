import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { DESKTOP_MACHINE, DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits, withEdits } from '../doc/edits';
import { fitsCollet } from '../doc/machine';
import { WHOLE_PIECE } from '../doc/outline-ref';
import { recipeSchema } from '../doc/recipe';
import { addPass } from '../passes/add-pass';
import { setupView } from '../setup/view';
import { drawerBit, plainSetup } from './plan-test-kit';
import { problems } from './problems';
import { recipeFrom, workBy } from './recipe';
import { addSetup } from './setups';

const BOARD = { x: 120, y: 90, thickness: 15, material: materialNamed('maple') };

/** A job with a recipe's worth of passes: roughed, finished, a patch around one layer, drilled, cut out on tabs set by hand. */
function found(board = BOARD, machine = HOBBY_MACHINE) {
  const view = plainSetup({
    name: 'Found',
    order: 'F-1',
    machine,
    rough: drawerBit('em6'),
    finish: drawerBit('ball3'),
    board,
  });
  const dome = (id: string, name: string) => ({
    ...newShape({ id, name }, { kind: 'oval' }, { kind: 'dome' }, board),
    size: { x: 40, y: 30 },
    rise: 4,
  });
  view.layers = [dome('a', 'Leaf'), dome('b', 'Flower')];
  applyEdits(view.document, addPass(view, 'hole', drawerBit('drill6')));
  applyEdits(view.document, addPass(view, 'cutout', drawerBit('em6')));
  const patch = { ...view.passes.find((p) => p.kind === 'finish')!, id: 'patch' };
  Object.assign(patch, { area: { kind: 'outline', outline: { ...WHOLE_PIECE, of: ['b'] } }, stepover: 0.123 });
  view.passes.splice(2, 0, patch);
  for (const p of view.passes) {
    if (p.kind === 'rough') Object.assign(p, { stepdown: 1.234, stockToLeave: 0.77 });
    if (p.kind === 'hole')
      Object.assign(p, {
        places: [
          { x: 5, y: 5 },
          { x: 110, y: 80 },
        ],
      });
    if (p.kind === 'cutout') Object.assign(p.tabs, { count: 1, at: [{ x: 60, y: 10 }] });
  }
  view.setup.heights.everything = 17;
  return view;
}

test('a recipe taken back to its own job changes nothing but where tabs stand, and says nothing', () => {
  const view = found();
  const recipe = recipeFrom(view, 'r', 'Mine');
  const { edits, said, found: wrong } = workBy(view, recipe, DRAWER);
  expect(said).toEqual([]);
  expect(wrong).toEqual([]);
  const after = setupView(withEdits(view.document, edits));
  const without = (v: typeof view) =>
    v.passes.map(({ id: _, ...p }) => (p.kind === 'cutout' ? { ...p, tabs: { ...p.tabs, at: null } } : p));
  expect(without(after)).toEqual(without(view));
  expect(after.cutters.map((c) => c.id).sort()).toEqual(view.cutters.map((c) => c.id).sort());
  expect(after.setup.heights.everything).toBe(17);
  expect(problems(after.document)).toEqual(problems(view.document));
});

test('a recipe is written and read as JSON, holds no layers, and one of an older job document is brought up to date', () => {
  const recipe = recipeFrom(found(), 'r', 'Mine');
  expect(recipe.job.boards[0].setups[0].layers).toEqual([]);
  expect(recipe.layers).toEqual({ b: 'Flower' });
  expect(recipeSchema.parse(JSON.parse(JSON.stringify(recipe)))).toEqual(recipe);
  // Version 5 knew no reserve.
  const old = JSON.parse(JSON.stringify(recipe));
  old.job.version = 5;
  for (const p of old.job.boards[0].setups[0].passes) delete p.reserve;
  expect(recipeSchema.parse(old)).toEqual(recipe);
  expect(recipeSchema.safeParse({ ...old, job: { version: 999 } }).success).toBe(false);
});

test("in another material what goes by the material is proposed for it, and the rest stays the recipe's own", () => {
  const recipe = recipeFrom(found(), 'r', 'Mine');
  const oak = found({ ...BOARD, material: materialNamed('oak') });
  const { edits, said } = workBy(oak, recipe, DRAWER);
  const after = setupView(withEdits(oak.document, edits));
  const rough = after.passes.find((p) => p.kind === 'rough')!;
  expect(rough.stepdown).not.toBe(1.234);
  expect(rough.stepdown).toBeLessThanOrEqual(materialNamed('oak').stepdown * drawerBit('em6').diameter + 1e-9);
  expect(after.passes.find((p) => p.kind === 'finish' && p.stepover === 0.123)).toBeDefined();
  expect(said.join(' ')).toMatch(/found in maple.*proposed for oak/);
});

test('on a weak machine bits that no collet takes give way to bits that fit, or their pass is left out, and it is said', () => {
  const recipe = recipeFrom(found(), 'r', 'Mine');
  const weak = found(BOARD, DESKTOP_MACHINE);
  const { edits, said } = workBy(weak, recipe, DRAWER);
  const after = setupView(withEdits(weak.document, edits));
  expect(after.passes.length).toBeGreaterThan(0);
  for (const p of after.passes) {
    const bit = after.cutters.find((c) => c.id === p.cutter)!;
    expect(fitsCollet(DESKTOP_MACHINE, bit)).toBe(true);
    expect(bit.rpm).toBeLessThanOrEqual(DESKTOP_MACHINE.maxRpm);
  }
  expect(said.some((s) => s.includes('end mill 6.35') && s.includes('takes its place'))).toBe(true);
  // Nothing else than bits and what is said of them has become wrong.
  const numbers = after.cutters.map((c) => c.number);
  expect(new Set(numbers).size).toBe(numbers.length);
});

test('on a smaller board without its layers, places off it and outlines of layers are left out, and it is said', () => {
  const recipe = recipeFrom(found(), 'r', 'Mine');
  const small = found({ ...BOARD, x: 60, y: 50 });
  small.layers = [{ ...small.layers[0], centre: { x: 30, y: 25 }, size: { x: 20, y: 15 } }];
  small.passes = small.passes.filter((p) => p.kind === 'rough');
  const { edits, said } = workBy(small, recipe, DRAWER);
  const after = setupView(withEdits(small.document, edits));
  const hole = after.passes.find((p) => p.kind === 'hole')!;
  expect(hole.places).toEqual([{ x: 5, y: 5 }]);
  const text = said.join(' | ');
  expect(text).toContain('1 of 2 places lie off this board');
  expect(text).toContain('no layer Flower here');
  expect(text).toContain('the outline of the whole piece');
});

test('a bit that is run otherwise here keeps its feeds and says so; one whose id another bit has comes with an id of its own', () => {
  const recipe = recipeFrom(found(), 'r', 'Mine');
  const other = found();
  other.cutters.find((c) => c.id === 'em6')!.feed = 1234;
  const fed = workBy(other, recipe, DRAWER);
  expect(fed.said).toEqual([
    expect.stringMatching(
      /^end mill 6\.35 keeps the feeds that it has here, 1234 mm\/min and .* the recipe had 1800 mm\/min/,
    ),
  ]);
  // The back is cut by a bit of the same id that is another.
  const two = found();
  const { id, edits } = addSetup(two, 'back');
  applyEdits(two.document, edits);
  applyEdits(two.document, addPass(setupView(two.document, id), 'skim', drawerBit('em6')));
  Object.assign(two.cutters.find((c) => c.id === 'em6')!, { diameter: 8, shankDiameter: 8 });
  const worked = workBy(two, recipe, []);
  const after = setupView(withEdits(two.document, worked.edits), two.setup.id);
  const rough = after.passes.find((p) => p.kind === 'rough')!;
  expect(after.cutters.find((c) => c.id === rough.cutter)!.diameter).toBe(6.35);
  expect(after.cutters.find((c) => c.id === 'em6')!.diameter).toBe(8);
  expect(new Set(after.cutters.map((c) => c.id)).size).toBe(after.cutters.length);
});

test("a recipe's bit that the shop does not have comes with it, and bits of other setups stay", () => {
  const view = found();
  view.cutters[1] = { ...view.cutters[1], id: 'odd', diameter: 2.2, shankDiameter: 3.175, name: 'ball 2.2' };
  for (const p of view.passes) if (p.cutter === 'ball3') p.cutter = 'odd';
  const recipe = recipeFrom(view, 'r', 'Mine');
  const other = found();
  const { edits, said } = workBy(other, recipe, DRAWER);
  const after = setupView(withEdits(other.document, edits));
  expect(after.cutters.find((c) => c.id === 'odd')?.diameter).toBe(2.2);
  expect(said).toEqual(['ball 2.2 is not in the drawer; its copy from the recipe is taken']);
});
