import { expect, test } from 'vitest';
import { SHOP_MACHINE } from '../../doc/defaults';
import { DISHED, drawerBit, plainSetup, planShapes, proposed } from '../../plan/plan-test-kit';
import { resolveTrenches } from '../trenches';
import { cutoutRoom } from './room';

const mill = drawerBit('em6');

/** A board 20 mm thick with a cut-out by a bit that stands out so far. */
function job(stickOut: number, fluteLength = stickOut - 2, shankDiameter = mill.shankDiameter) {
  const board = { ...DISHED, thickness: 20 };
  const view = plainSetup({
    name: 'Room',
    order: '',
    machine: SHOP_MACHINE,
    rough: mill,
    finish: drawerBit('ball3'),
    board,
  });
  view.cutters.push({ ...mill, id: 'out', number: 9, stickOut, fluteLength, shankDiameter, holderDiameter: 30 });
  view.passes.push({ ...proposed('cutout', view, mill), cutter: 'out', into: 0.5, last: 0.2 });
  return view;
}

test('a trench has room for the holder of a cut-out that comes below the board, and is as wide as roughing needs it where none does', () => {
  // By hand: the axis 6.35 / 2 + 0.2 beside the outline, the holder's radius of 15, and 1 mm.
  const needed = 6.35 / 2 + 0.2 + 15 + 1;
  expect(cutoutRoom(job(18))).toMatchObject({ part: 'holder', bit: mill.name });
  expect(cutoutRoom(job(18))!.width).toBeCloseTo(needed, 9);
  expect(resolveTrenches(job(18))[0]).toBeCloseTo(needed, 9);
  // 20.5 mm below the top: a bit that stands out further keeps its holder over the board.
  expect(cutoutRoom(job(20.6, 21))).toBeNull();
  expect(resolveTrenches(job(20.6, 21))[0]).toBeCloseTo(1.5 * 6.35, 9);
  // A shank wider than the flutes counts where these are too short, one as wide does not.
  expect(cutoutRoom(job(30, 12, 10))!).toMatchObject({ part: 'shank' });
  expect(cutoutRoom(job(30, 12, 10))!.width).toBeCloseTo(6.35 / 2 + 0.2 + 5 + 1, 9);
  expect(cutoutRoom(job(30, 12))).toBeNull();
});

test('a trench that was widened for a holder is told, and one drawn too narrow with what it needs', async () => {
  const view = job(19);
  view.cell = 0.5;
  const told = async () => (await planShapes(view)).summary.findings.filter((f) => f.rule === 'trench-cutout');
  expect((await told()).map((f) => [f.severity, f.figures.narrow])).toEqual([['note', false]]);
  Object.assign(view.passes[0], { area: { kind: 'relief', trench: 12 } });
  expect((await told()).map((f) => [f.severity, f.figures.narrow, f.fixes.length])).toEqual([['warning', true, 1]]);
});
