import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import type { Cutter } from '../cutter/cutter';
import { reshape } from '../cutter/reshape';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { drawerBit, plainSetup, planShapes } from './plan-test-kit';

const BOARD = { x: 44, y: 36, thickness: 14, material: materialNamed('maple') };

/** A dome whose foot is steep, finished with a bit of another shape at the cell that is proposed for it. */
function finishedWith(shape: Cutter['shape'], change: Partial<Cutter>) {
  const bit = drawerBit('ball3');
  reshape(bit, shape);
  Object.assign(bit, change, { name: shape });
  const view = plainSetup({
    name: 'Tips',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em6'),
    finish: bit,
    board: BOARD,
  });
  view.layers = [
    {
      ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, BOARD),
      size: { x: 22, y: 16 },
      centre: { x: 22, y: 18 },
      rise: 5,
    },
  ];
  return view;
}

test.each([
  ['bullnose', { diameter: 6.35, shankDiameter: 6.35, cornerRadius: 1 }],
  ['bullnose', { diameter: 6.35, shankDiameter: 6.35, cornerRadius: 2.5 }],
  ['tapered-ball', { diameter: 6, shankDiameter: 6, tipDiameter: 2, taperAngle: 5 }],
] as const)('%s: at the cell that is proposed nothing is cut too deep', async (shape, change) => {
  const view = finishedWith(shape, change);
  const { summary } = await planShapes(view);
  expect(summary.findings.filter((f) => ['gouge', 'keep-cut', 'waste-deep', 'grid'].includes(f.rule))).toEqual([]);
});
