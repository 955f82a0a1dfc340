import { expect, test } from 'vitest';
import { flatAcross } from '../arrange/kinds/turned/forms';
import { newTurned } from '../arrange/kinds/turned/fresh';
import type { TurnedForm } from '../arrange/kinds/turned/schema';
import type { Cutter } from '../cutter/cutter';
import { heldOver } from '../doc/drum';
import { sampleField } from '../field/height-field';
import { blankTops, cornerOver } from '../passes/turn/blank';
import type { TurnPass } from '../passes/turn/schema';
import { barOf } from '../proof/bar';
import type { SetupView } from '../setup/view';
import { AROUND, DRUM, drumJob, hollow } from './drum-test-kit';
import { drawerBit, errorsOf, planShapes, proposed, type SetupPlan, wrongIn } from './plan-test-kit';

const R = DRUM.diameter / 2;

/** Puts a pass as it is proposed for a bit into a drum's only setup, changed. */
function put<K extends 'hole' | 'part' | 'turn'>(v: SetupView, kind: K, bit: Cutter, more: object) {
  if (!v.cutters.some((c) => c.id === bit.id)) v.document.cutters.push(bit);
  const pass = { ...proposed(kind, v, bit), ...more };
  v.passes.push(pass as never);
}

/** A drum with nothing but the passes that are put into it. */
const only = (layers: Parameters<typeof drumJob>[0], change: (v: SetupView) => void) =>
  drumJob(layers, (v) => {
    v.passes = [];
    change(v);
  });

const form = (id: string, f: TurnedForm, more: object = {}) => ({
  ...newTurned(id, id, f, {
    x: DRUM.x,
    y: AROUND,
    thickness: R,
    drum: heldOver(DRUM.chuck, DRUM.tailStock),
  }),
  ...more,
});

const heightAt = ({ cut }: Pick<SetupPlan, 'cut'>, x: number, degrees: number) =>
  sampleField(cut, x, (R * degrees * Math.PI) / 180);

test('square stock is turned round: its corners are gone, the drum is true, and what holds it stays square', async () => {
  const bit = drawerBit('em6');
  const plan = await planShapes(
    only([], (v) => {
      v.setup.heights.everything = 12;
      put(v, 'turn', bit, { blank: { kind: 'square', side: 21 }, runOut: { chuck: 0.4, tailStock: 0.2 } });
    }),
  );
  expect(errorsOf(plan)).toEqual([]);
  // The corner of 21 mm square stock lies 21 / sqrt 2 = 14.849 mm from its axis, and 0.2 mm more for its run-out.
  const pass = { blank: { kind: 'square', side: 21 }, runOut: { chuck: 0.4, tailStock: 0.2 } } as TurnPass;
  expect(cornerOver(pass, { thickness: R })).toBeCloseTo(14.849 + 0.2 - 10, 3);
  const tops = blankTops(pass, { x: DRUM.x, thickness: R }, plan.cut);
  expect(Math.max(...tops)).toBeGreaterThan(4.9);
  const { chuck, tailStock, x } = DRUM;
  for (const degrees of [0, 45, 100, 225, 359]) {
    for (const at of [chuck + 1, 20, x - tailStock - 1])
      expect(Math.abs(heightAt(plan, at, degrees))).toBeLessThan(1e-3);
  }
  expect(heightAt(plan, 2, 45)).toBeGreaterThan(4.7);
  expect(heightAt(plan, 2, 0)).toBeLessThan(0.9);
});

test('a blank that is too thin, or whose corners stand higher than moves pass, stops planning with what mends it', () => {
  const view = only([], (v) => put(v, 'turn', drawerBit('em6'), { blank: { kind: 'square', side: 19 } }));
  expect(wrongIn(view)).toMatch(/does not come out of this blank: 0\.75 mm/);
  (view.passes[0] as TurnPass).blank = { kind: 'square', side: 34 };
  expect(wrongIn(view)).toMatch(/stands 14\.29 mm over the drum/);
  expect(wrongIn(only([], (v) => put(v, 'turn', drawerBit('em6'), { blank: { kind: 'round', diameter: 21 } })))).toBe(
    '',
  );
});

test('a cut-off leaves its rest all round, told as no thin place, and the work before it is whole', async () => {
  const bit = drawerBit('em3');
  const plan = await planShapes(only([], (v) => put(v, 'part', bit, { along: [12, 34], left: 6, width: 5 })));
  expect(plan.summary.findings.map((f) => [f.rule, f.severity, f.figures])).toEqual([]);
  for (const x of [10, 12, 14, 32, 34, 36])
    for (const degrees of [0, 90, 200]) expect(heightAt(plan, x, degrees)).toBeCloseTo(3 - R, 2);
  for (const x of [8.9, 15.2, 25, 30.9]) expect(heightAt(plan, x, 70)).toBeCloseTo(0, 3);
  const bar = barOf(plan.cut, R);
  expect(bar?.core.radius).toBeCloseTo(3, 2);
  // The groove at the tail stock comes first: the chuck carries the work to the last.
  const first =
    plan.summary.programs[0].text.match(/^G1 .*X([\d.]+)/m) ?? plan.summary.programs[0].text.match(/X([\d.]+)/);
  expect(Number(first?.[1])).toBeGreaterThan(25);
});

test('a cut-off that reaches into the chuck, or is narrower than its bit, stops planning with what mends it', async () => {
  const view = only([], (v) => put(v, 'part', drawerBit('em3'), { along: [7], width: 2 }));
  expect(wrongIn(view)).toMatch(/the groove is 2 mm wide.*where the drum is held/);
  Object.assign(view.passes[0], { width: 4, along: [8.1] });
  expect(errorsOf(await planShapes(view))).toEqual([]);
});

test('holes go towards the axis at the angles that they are set at, on a flat that has been cut for them', async () => {
  const rise = 2;
  const flat = form('flat', { kind: 'flat' }, { size: { x: 12, y: flatAcross(R, rise) }, centre: { x: 22, y: 0 } });
  Object.assign(flat, { rise, lift: -rise });
  const view = drumJob([flat], (v) => {
    put(v, 'hole', drawerBit('drill6'), {
      places: [
        { x: 22, y: 0 },
        { x: 22, y: AROUND / 4 },
      ],
      depth: 5,
      diameter: 6,
    });
  });
  view.board.web = 2;
  const plan = await planShapes(view);
  expect(errorsOf(plan)).toEqual([]);
  // A point of 118 degrees: flat nowhere, deepest in the middle.
  expect(heightAt(plan, 22, 0)).toBeLessThan(-4.7);
  expect(heightAt(plan, 22, 90)).toBeLessThan(-4.7);
  expect(heightAt(plan, 22, 180)).toBeCloseTo(0, 2);
  // The flat is a plane: rho cos a the same beside the hole.
  for (const degrees of [-30, -25, 25, 30]) {
    const rho = R + heightAt(plan, 22, degrees);
    expect(rho * Math.cos((degrees * Math.PI) / 180)).toBeCloseTo(R - rise, 1);
  }
});

test('a hole to the axis, one that is milled by turning, and dowels stop planning', () => {
  const at = (more: object, bit = 'drill6') =>
    wrongIn(only([], (v) => put(v, 'hole', drawerBit(bit), { places: [{ x: 22, y: 3 }], depth: 4, ...more })));
  expect(at({ depth: null })).toMatch(/axis/);
  expect(at({ depth: 9.5 })).toMatch(/axis/);
  expect(at({ diameter: 12 }, 'em6')).toMatch(/narrower at its bottom/);
  expect(at({ dowel: 6 })).toMatch(/dowels/);
  expect(at({})).toBe('');
});

test('flutes and beads are roughed and finished from their programs', async () => {
  const view = drumJob([
    form('beads', { kind: 'beads', count: 2 }, { size: { x: 12, y: AROUND }, centre: { x: 14, y: AROUND / 2 } }),
    form(
      'flutes',
      { kind: 'flutes', count: 8, twist: 20, section: { kind: 'ball', radius: 2 } },
      { size: { x: 14, y: AROUND }, centre: { x: 29, y: 0 }, rise: 1 },
    ),
  ]);
  const plan = await planShapes(view);
  expect(errorsOf(plan)).toEqual([]);
  // Between the beads the ball does not reach down; into the flutes, which are wider than it, it does.
  expect(plan.summary.deepest).toBeGreaterThan(0.99);
});

test('a collar and what is glued on stay as they are, and layers that reach into them are told', async () => {
  const view = drumJob([form('tenon', { kind: 'cylinder' }, { size: { x: 34, y: AROUND }, centre: { x: 23, y: 0 } })]);
  Object.assign(view.board.drum!, { extended: { chuck: 9, tailStock: 0 }, collar: { x: 20, width: 4 } });
  const tenon = view.layers[0];
  Object.assign(tenon, { rise: 1.5, lift: -1.5 });
  const plan = await planShapes(view);
  expect(errorsOf(plan)).toEqual([]);
  const [held] = plan.summary.findings.filter((f) => f.rule === 'layer-held');
  expect(held.figures).toMatchObject({ what: 'collar', over: 4 });
  for (const x of [7, 8.8, 18.2, 20, 21.8]) expect(heightAt(plan, x, 30)).toBeCloseTo(0, 4);
  for (const x of [14, 30]) expect(heightAt(plan, x, 30)).toBeCloseTo(-1.5, 1);
  // The collar is where a program says that it is touched off.
  expect(plan.summary.programs[0].text).toMatch(/\(collar at 20 mm from the left end stays/);
  view.board.drum!.collar = { x: 4, width: 4 };
  expect(wrongIn(view)).toMatch(/collar at 4 mm does not lie between what holds the drum/);
});

test('a closer look at edges cuts rays too, and sees turned forms: it tells no gouge where none is', async () => {
  const contour = form(
    'contour',
    { kind: 'contour', points: [0, 0.5, 1].map((along) => ({ along, down: along === 0.5 ? 1 : 0.4 })), curved: true },
    { size: { x: 30, y: AROUND }, centre: { x: 22, y: 0 } },
  );
  const view = drumJob([contour, hollow('thumb', 22, 20, { rise: 0.8 })], (v) => {
    v.passes = v.passes.filter((p) => p.kind === 'finish');
  });
  const plan = await planShapes(view);
  expect(plan.summary.eye.closer).toBeGreaterThan(0);
  expect(plan.summary.findings.filter((f) => f.rule === 'gouge')).toEqual([]);
});
