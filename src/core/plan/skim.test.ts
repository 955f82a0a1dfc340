import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { applyEdits } from '../doc/edits';
import { boardGrid } from '../field/height-field';
import { orderProblem } from '../passes/order';
import { boardTops, skimDepths } from '../passes/skim/plan';
import type { SkimPass } from '../passes/skim/schema';
import type { SetupView } from '../setup/view';
import { errorsOf, plainSetup, planShapes, planWhole, proposed, saidOf, setupPlan, wrongIn } from './plan-test-kit';
import { skimOtherSide } from './setups';

const bit = (id: string): Cutter => DRAWER.find((c) => c.id === id)!;

/** A board left 38.1 mm thick that is 38.3 to 39.6 mm thick as it comes. */
function uneven(change: (p: SkimPass, j: SetupView) => void = () => {}): SetupView {
  const board = { x: 90, y: 60, thickness: 38.1, material: materialNamed('maple') };
  const job = plainSetup({
    name: 'Skim',
    order: '',
    machine: HOBBY_MACHINE,
    rough: bit('em6'),
    finish: bit('ball6'),
    board,
  });
  job.layers = [
    {
      ...newShape({ id: 'p', name: 'p' }, { kind: 'rectangle' }, { kind: 'flat' }, board),
      size: { x: 40, y: 30 },
      rise: 3,
    },
  ];
  job.cell = 0.25;
  const pass = proposed('skim', job, bit('em6'));
  pass.points = [
    { x: 5, y: 5, thickness: 38.6 },
    { x: 85, y: 5, thickness: 39.6 },
    { x: 45, y: 55, thickness: 38.3 },
  ];
  change(pass, job);
  job.passes.unshift(pass);
  return job;
}

test('how many skims, and what they leave: from the thickest place in even goes of at most the stepdown', () => {
  const p = {
    ...proposed('skim', uneven(), bit('em6')),
    stepdown: 1,
    points: uneven().passes[0].kind === 'skim' ? (uneven().passes[0] as SkimPass).points : [],
  };
  expect(skimDepths(p, 38.1)).toMatchObject({ skims: 2, thin: null });
  expect(skimDepths(p, 38.1).high).toBeCloseTo(1.5, 9);
  // Common practice, no source: a board of 1.52 in is skimmed to 1.50 in so that joints fit, which is one light skim.
  expect(skimDepths({ stepdown: 1, points: [{ x: 0, y: 0, thickness: 1.52 * 25.4 }] }, 1.5 * 25.4).skims).toBe(1);
  expect(skimDepths(p, 38.5).thin).toEqual({ x: 45, y: 55, thickness: 38.3 });
});

test('an uneven board is as thick as measured where it was measured, and never lower than what the skim leaves', () => {
  const pass = uneven().passes[0] as SkimPass;
  const grid = boardGrid(90, 60, 0.5);
  const at = (data: Float32Array, x: number, y: number) =>
    data[Math.round((y - grid.originY) / 0.5) * grid.width + Math.round((x - grid.originX) / 0.5)];
  const tops = boardTops(pass, 38.1, grid);
  for (const p of pass.points) expect(Math.abs(at(tops, p.x, p.y) - (p.thickness - 38.1))).toBeLessThan(0.02);
  expect(Math.min(...boardTops(pass, 39, grid))).toBe(0);
});

test.each(['face', 'back'] as const)(
  'the proof cuts the uneven board even by its %s, and the rest on top of it',
  async (side) => {
    const job = uneven();
    const own = job.passes[0] as SkimPass;
    if (side === 'back') applyEdits(job.document, skimOtherSide(job, own).edits);
    expect(job.board.setups.map((s) => s.up)).toEqual(side === 'back' ? ['back', 'face'] : ['face']);
    // Turned over its y axis, left is right.
    if (side === 'back')
      expect((job.board.setups[0].passes[0] as SkimPass).points.map((p) => p.x)).toEqual([85, 5, 45]);
    const whole = await planWhole(job.document);
    expect(errorsOf(whole)).toEqual([]);
    const [skim] = whole.summary.programs;
    expect(skim.setup).toBe(side);
    // What it takes off is what stood over the face: between the thinnest and the thickest place, all over.
    expect(skim.volume / (90 * 60)).toBeGreaterThan(0.2);
    expect(skim.volume / (90 * 60)).toBeLessThan(1.5);
    expect(skim.text).toContain('set it from the bed');
    expect(skim.text.includes('board on its face')).toBe(side === 'back');
    // The frame around the relief is left at the top.
    const plan = setupPlan(whole, whole.summary.setups.length - 1);
    expect(Math.max(...plan.cut.data)).toBeLessThanOrEqual(1e-6);
    expect(plan.summary.deepest).toBeCloseTo(3, 1);
  },
);

test('a finished face is not skimmed, nor a board too uneven to pass over, nor one too thin', async () => {
  const said = (change: Parameters<typeof uneven>[0]) => wrongIn(uneven(change));
  expect(said(() => {})).toBe('');
  expect(said((_, j) => (j.board.face = 'painted'))).toContain(
    "the board's face is painted and must not be skimmed off",
  );
  const masked = uneven((_, j) => (j.board.face = 'masked'));
  applyEdits(masked.document, skimOtherSide(masked, masked.passes[0] as SkimPass).edits);
  expect(wrongIn(masked)).toBe('');
  expect(said((_, j) => (j.board.thickness = 34))).toContain('moves pass 4 mm over that at most');
  const plan = await planShapes(uneven((_, j) => (j.board.thickness = 38.5)));
  expect(saidOf(plan)).toContain('only 38.3 mm thick here');
  expect(orderProblem([{ kind: 'rough' }, { kind: 'skim' }])).toBe(
    'skimming after roughing would take off what is cut already',
  );
});
