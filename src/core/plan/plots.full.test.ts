import { expect, test } from 'vitest';
import { applyEdits } from '../doc/edits';
import { addPass } from '../passes/add-pass';
import type { LoadContent } from './composing';
import { drawerBit, errorsOf, planWhole, setupPlan, shapesOnly } from './plan-test-kit';
import { domes, LARGE } from './plots-test-kit';

test('a cut-out whose line begins on no plot has its board planned on wider ones, and is not forgotten', async () => {
  const view = domes(LARGE, [
    [300, 300],
    [2000, 900],
  ]);
  applyEdits(view.document, addPass(view, 'cutout', drawerBit('em6')));
  view.passes = view.passes.filter((p) => p.kind === 'cutout');
  // Nothing is carved here that coarse cells could spoil.
  view.cell = 0.6;
  let drawn = 0;
  const load: LoadContent = (l) => {
    // The line of the first dome is drawn 40 mm from where its plot was reckoned.
    if (drawn++ === 0) for (const p of view.passes) if (p.kind === 'cutout') p.outline = { ...p.outline, grow: 40 };
    return shapesOnly(l);
  };
  const plan = await planWhole(view.document, load);
  const { summary } = setupPlan(plan);
  const rings = summary.passes.flatMap((p) => (p.kind === 'cutout' ? (p.facts as { rings: number[][] }).rings : []));
  expect(rings).toHaveLength(2);
  expect(errorsOf(plan)).toEqual([]);
});

test('a relief on a large board is roughed by the program that it gets on a small one, and finished and cut out as well', async () => {
  const planned = async (board: { x: number; y: number }) => {
    const view = domes(board, [[108, 82]]);
    applyEdits(view.document, addPass(view, 'cutout', drawerBit('em6')));
    // A cut-out is proposed with tabs as long as the board allows.
    for (const p of view.passes) if (p.kind === 'cutout') p.tabs.length = 10;
    const plan = await planWhole(view.document);
    expect(errorsOf(plan)).toEqual([]);
    // Comments tell of the board.
    return plan.summary.programs.map((p) => ({ ...p, moves: p.text.replace(/\(.*\)/g, '') }));
  };
  const [small, large] = [await planned({ x: 300, y: 200 }), await planned(LARGE)];
  const [rough, finish, cutout] = [0, 1, 2];
  expect(large[rough].moves).toBe(small[rough].moves);
  // Its rows begin where the plot does, and what they leave beside the cut-out differs by a hair.
  for (const i of [finish, cutout]) expect(large[i].cutLength / small[i].cutLength).toBeCloseTo(1, 1);
});

test('a piece that a program parts from its frame is loose, on whatever plot it lies', async () => {
  const bare = domes(LARGE, [
    [300, 300],
    [2000, 900],
  ]);
  applyEdits(bare.document, addPass(bare, 'cutout', drawerBit('em6')));
  bare.passes = bare.passes.filter((p) => p.kind === 'cutout');
  for (const p of bare.passes) if (p.kind === 'cutout') p.tabs.count = 0;
  // Nothing is carved here that coarse cells could spoil.
  bare.cell = 0.6;
  const { summary } = await planWhole(bare.document);
  const held = summary.programs.at(-1)!.held;
  expect(held.loose).toHaveLength(2);
  expect(held.loose.map((l) => Math.round(l.x / 100)).sort()).toEqual([20, 3]);
});
