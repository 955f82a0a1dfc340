import fc from 'fast-check';
import { expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { ORIGINS } from '../doc/setup';
import type { SetupView } from '../setup/view';
import { drawerBit, errorsOf, plainSetup, planShapes } from './plan-test-kit';

/** A small dome in a board, roughed and finished on a coarse grid. */
function dome(thickness: number): SetupView {
  const board = { x: 34, y: 26, thickness, material: materialNamed('maple') };
  const view = plainSetup({
    name: 'Zeros',
    order: '',
    machine: HOBBY_MACHINE,
    rough: drawerBit('em6'),
    finish: drawerBit('ball6'),
    board,
  });
  view.cell = 0.4;
  view.layers = [
    {
      ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, board),
      size: { x: 22, y: 16 },
      centre: { x: 17, y: 13 },
      rise: 3,
    },
  ];
  return view;
}

const errorsWith = async (thickness: number, unit: 'mm' | 'in', zero: SetupView['setup']['zero']) => {
  const view = dome(thickness);
  view.output.unit = unit;
  view.setup.zero = zero;
  return errorsOf(await planShapes(view));
};

test.each([15, 18, 25])(
  'a board of %d mm in inches with its zero on the bed is written and proven',
  async (thickness) => {
    expect(await errorsWith(thickness, 'in', { origin: 'centre', z: 'bed' })).toEqual([]);
  },
);

test('whatever the thickness, unit, origin and zero: the program is written, read back and proven (property)', async () => {
  const zero = fc.record({ origin: fc.constantFrom(...ORIGINS), z: fc.constantFrom('top' as const, 'bed' as const) });
  await fc.assert(
    fc.asyncProperty(
      fc.double({ min: 6, max: 30, noNaN: true }),
      fc.constantFrom('mm' as const, 'in' as const),
      zero,
      async (thickness, unit, z) => {
        expect(await errorsWith(thickness, unit, z)).toEqual([]);
      },
    ),
    { numRuns: 10 },
  );
});
