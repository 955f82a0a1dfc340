import { describe, expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { materialNamed, SHOP_MACHINE } from '../doc/defaults';
import type { Layer } from '../doc/layer';
import type { Milling } from '../doc/pass-parts';
import { boardGrid, makeField } from '../field/height-field';
import type { FlatPass } from '../passes/flat/schema';
import { MOTION, readProgram } from '../program/reader';
import { cutBoardPlainly } from '../proof/plain-harm-test-kit';
import { drawerBit, errorsOf, plainSetup, planShapes, proposed } from './plan-test-kit';

const board = { x: 60, y: 50, thickness: 14, material: materialNamed('oak') };
const BOSS = 4.5;
const R = drawerBit('em6').diameter / 2;

/** A recess 4 mm deep with a round boss in it, no size a whole number of cells, cleared as a level field. */
async function recess(width: number, milling: Milling, more: Layer[] = []) {
  const view = plainSetup({
    name: 'Recess',
    order: '',
    machine: SHOP_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball3'),
    board,
  });
  view.seat = { ...view.seat, mode: 'sunk', drop: 0 };
  const at = { x: 30.03, y: 25.02 };
  const shape = (id: string, kind: 'rectangle' | 'circle', size: { x: number; y: number }): Layer => ({
    ...newShape({ id, name: id }, { kind }, { kind: 'flat' }, board),
    size,
    centre: at,
    rise: 4,
  });
  view.layers = [
    { ...shape('recess', 'rectangle', { x: width, y: 26 }), join: 'carve' },
    { ...shape('boss', 'circle', { x: 2 * BOSS, y: 2 * BOSS }), join: 'stack' },
    ...more,
  ];
  const flat = { ...proposed('flat', view, drawerBit('em6')), milling } as FlatPass;
  view.passes = [view.passes[0], flat];
  const plan = await planShapes(view);
  return { view, plan, at };
}

/** The tip's places at the floor, mm on the board. */
function floorOf({ view, plan }: Awaited<ReturnType<typeof recess>>): { x: number; y: number }[] {
  const [{ file, text, cutter }] = plan.summary.programs;
  const { motions } = readProgram(text, file, cutter);
  const out: { x: number; y: number }[] = [];
  const { zero } = plan.summary;
  for (let m = 0; m < motions.length; m += MOTION)
    if (motions[m + 5] + zero.z < -3.999) out.push({ x: motions[m + 3] + zero.x, y: motions[m + 4] + zero.y });
  expect(view.cutters.some((c) => c.number === cutter)).toBe(true);
  return out;
}

describe('walls of a level field that outlines of layers make', () => {
  for (const [width, milling] of [
    [30.13, 'climb'],
    [31.04, 'conventional'],
  ] as const) {
    test(`a recess of ${width} mm, ${milling}: the bit runs exactly its radius from every wall`, async () => {
      const made = await recess(width, milling);
      const floor = floorOf(made);
      const { at, plan, view } = made;
      const far = (of: (p: { x: number; y: number }) => number) => Math.max(...floor.map(of));
      expect(far((p) => p.x)).toBeCloseTo(at.x + width / 2 - R, 2);
      expect(-far((p) => -p.x)).toBeCloseTo(at.x - width / 2 + R, 2);
      expect(far((p) => p.y)).toBeCloseTo(at.y + 13 - R, 2);
      expect(-far((p) => -p.y)).toBeCloseTo(at.y - 13 + R, 2);
      // A circle is flattened within 0.01 mm.
      expect(Math.abs(-far((p) => -Math.hypot(p.x - at.x, p.y - at.y)) - BOSS - R)).toBeLessThan(0.012);
      expect(errorsOf(plan)).toEqual([]);
      const programs = plan.summary.programs.map(({ file, text, cutter }) => ({ file, text, tool: cutter }));
      expect(cutBoardPlainly(view, makeField(boardGrid(board.x, board.y, 0.5)), programs).harms).toEqual([]);
    });
  }

  test('the other way of milling runs round the other way', async () => {
    const turn = async (milling: Milling) => {
      const made = await recess(30.13, milling);
      const floor = floorOf(made);
      const onWall = (p: { x: number; y: number }) => Math.abs(p.x - (made.at.x + 15.065 - R)) < 0.004;
      // Along the right wall: upwards where the wall is on the right of the bit, as in climb.
      let up = 0;
      for (let i = 1; i < floor.length; i++)
        if (onWall(floor[i]) && onWall(floor[i - 1])) up += floor[i].y - floor[i - 1].y;
      return up;
    };
    expect(await turn('climb')).toBeGreaterThan(15);
    expect(await turn('conventional')).toBeLessThan(-15);
  });

  test('beside a wall that is no outline the laps stay as far off as cells are known', async () => {
    // A dome beside the right wall: its foot rises out of the floor, and no lap may run into it.
    const mound: Layer = {
      ...newShape({ id: 'mound', name: 'Mound' }, { kind: 'circle' }, { kind: 'dome' }, board),
      size: { x: 8, y: 8 },
      centre: { x: 43, y: 25 },
      rise: 3,
      join: 'stack',
    };
    const { plan } = await recess(30.13, 'climb', [mound]);
    expect(errorsOf(plan)).toEqual([]);
  });
});
