import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { DRAWER, HOBBY_MACHINE, materialNamed, SHOP_MACHINE } from '../doc/defaults';
import type { FinishPass } from '../passes/finish/schema';
import { stepdownFor } from '../passes/proposals';
import type { RoughPass } from '../passes/rough/schema';
import type { SetupView } from '../setup/view';
import { changed, errorsOf, plainSetup, planShapes, proposed } from './plan-test-kit';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const [em6, em3, ball] = [bit('em6'), bit('em3'), bit('ball3')];

/** A pocket of 60 x 40 with a narrow arm of 5 mm, sunk 6 mm into a board's top. */
function pocket(): SetupView {
  const board = { x: 120, y: 70, thickness: 18, material: materialNamed('maple') };
  const job = plainSetup({ name: 'Pocket', order: '', machine: HOBBY_MACHINE, rough: em6, finish: ball, board });
  const shape = (id: string, x: number, y: number, cx: number) => ({
    ...newShape({ id: id, name: id }, { kind: 'rectangle' }, { kind: 'flat' }, board),
    size: { x, y },
    centre: { x: cx, y: 35 },
    rise: 6,
    join: 'lowest' as const,
    lift: -12,
  });
  job.layers = [shape('room', 60, 40, 40), shape('arm', 40, 5, 85)];
  job.seat = { mode: 'sunk', skin: 0, drop: 0, press: null };
  job.cell = 0.2;
  return job;
}

test('a smaller roughing bit goes only where the larger one left something', async () => {
  const job = pocket();
  const first = job.passes[0] as RoughPass;
  const second: RoughPass = {
    ...first,
    id: 'rest',
    cutter: em3.id,
    stepover: 0.4 * em3.diameter,
    stepdown: stepdownFor(em3, job.board.material),
    stockToLeave: 0.3,
  };
  first.stockToLeave = 0.3;
  job.cutters.push(em3);
  const alone = await planShapes(changed(job, { passes: [second, job.passes[1]] }));
  const both = await planShapes(changed(job, { passes: [first, second, job.passes[1]] }));
  expect(errorsOf(both)).toEqual([]);
  const length = (p: typeof both) => p.summary.passes.find((q) => q.id === 'rest')!.cutLength;
  expect(length(both)).toBeGreaterThan(100);
  expect(length(both)).toBeLessThan(0.45 * length(alone));
  // The arm is open after it: what the ball still meets there is not deep.
  const { rough } = both;
  const k = Math.round((35 - rough!.originY) / 0.2) * rough!.width + Math.round((95 - rough!.originX) / 0.2);
  expect(rough!.data[k]).toBeLessThan(-5);
});

test('a second, smaller bit clears only the corners and arms of a level field that the first did not enter', async () => {
  const job = pocket();
  job.cutters.push(em3);
  const large = { ...proposed('flat', job, em6), id: 'large' };
  const small = { ...large, id: 'small', cutter: em3.id, stepover: 0.4 * em3.diameter, stepdown: 1.2 };
  const [rough, finish] = job.passes;
  const alone = await planShapes(changed(job, { passes: [rough, small, finish] }));
  const both = await planShapes(changed(job, { passes: [rough, large, small, finish] }));
  expect(errorsOf(both)).toEqual([]);
  const length = (p: typeof both) => p.summary.passes.find((q) => q.id === 'small')!.cutLength;
  expect(length(both)).toBeGreaterThan(20);
  expect(length(both)).toBeLessThan(0.5 * length(alone));
  // The floor is level, in the room as in the arm, and never too deep.
  const { cut, target } = both;
  for (const [x, y] of [
    [40, 35],
    [20, 20],
    [95, 35],
    [100, 34],
  ]) {
    const k = Math.round((y - cut.originY) / 0.2) * cut.width + Math.round((x - cut.originX) / 0.2);
    expect(Math.abs(cut.data[k] - target.data[k])).toBeLessThan(0.01);
  }
});

/** Three domes that run into each other on a ground: creases that a ball of 6.35 mm does not get to the bottom of. */
function domes(): SetupView {
  const board = { x: 80, y: 60, thickness: 18, material: materialNamed('maple') };
  const job = plainSetup({ name: 'Domes', order: '', machine: HOBBY_MACHINE, rough: em6, finish: ball, board });
  const dome = (id: string, x: number, y: number) => ({
    ...newShape({ id, name: id }, { kind: 'oval' }, { kind: 'dome' }, board),
    size: { x: 24, y: 20 },
    centre: { x, y },
    rise: 6,
    join: 'highest' as const,
  });
  job.layers = [dome('a', 30, 24), dome('b', 48, 26), dome('c', 38, 38)];
  job.cell = 0.1;
  return job;
}

test('a ball half as wide after a larger one goes only into the creases, and leaves as much there as it does alone', async () => {
  const job = domes();
  const ball6 = bit('ball6');
  job.cutters.push(ball6);
  const [rough, small] = job.passes;
  const large = { ...proposed('finish', job, ball6), id: 'large' };
  const alone = await planShapes(changed(job, { passes: [rough, small] }));
  const both = await planShapes(changed(job, { passes: [rough, large, small] }));
  expect(errorsOf(both)).toEqual([]);
  const seconds = (p: typeof both) => p.summary.passes.find((q) => q.id === small.id)!.seconds;
  expect(seconds(both)).toBeLessThan(0.6 * seconds(alone));
  // What it leaves out stood no higher than its tolerance: as much is left over as without the larger ball.
  expect(both.summary.left.volume).toBeLessThan(1.02 * alone.summary.left.volume);
  expect(both.summary.left.deepest).toBeLessThan(alone.summary.left.deepest + 0.02);
});

/** Rows of low domes that touch: a net of creases. */
function pearls(): SetupView {
  const board = { x: 70, y: 56, thickness: 12, material: materialNamed('maple') };
  const job = plainSetup({ name: 'Pearls', order: '', machine: SHOP_MACHINE, rough: em6, finish: ball, board });
  job.layers = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11].map((n) => ({
    ...newShape({ id: `p${n}`, name: `p${n}` }, { kind: 'oval' }, { kind: 'dome' }, board),
    size: { x: 11, y: 11 },
    centre: { x: 20 + 10 * (n % 4), y: 18 + 10 * Math.floor(n / 4) },
    rise: 2,
    join: 'highest' as const,
  }));
  job.cell = 0.1;
  return job;
}

test('where low wood is left in narrow creases the smaller ball follows them, in less time than rows across them', async () => {
  const job = pearls();
  const ball6 = bit('ball6');
  job.cutters.push(ball6);
  const [rough, small] = job.passes;
  const large = { ...proposed('finish', job, ball6), id: 'large' };
  const along = await planShapes(changed(job, { passes: [rough, large, small] }));
  const rows = await planShapes(changed(job, { passes: [rough, large, { ...small, lines: 'rows' } as FinishPass] }));
  expect(errorsOf(along)).toEqual([]);
  const last = (p: typeof along) => p.summary.passes.at(-1)!;
  const text = along.summary.programs.at(-1)!.text;
  expect(text).toMatch(/line \d+ of \d+/);
  expect(rows.summary.programs.at(-1)!.text).not.toMatch(/line \d+ of \d+/);
  expect(last(along).seconds).toBeLessThan(0.93 * last(rows).seconds);
  expect(along.summary.left.volume).toBeLessThan(1.15 * rows.summary.left.volume);
});
