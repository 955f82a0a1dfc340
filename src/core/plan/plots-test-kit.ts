import { newShape } from '../arrange/new-layer';
import { materialNamed, SHOP_MACHINE } from '../doc/defaults';
import type { SetupView } from '../setup/view';
import { drawerBit, plainSetup } from './plan-test-kit';

/** A board with more cells than are planned as a whole. */
export const LARGE = { x: 2400, y: 1200 };
/** Coarse cells, so that it is soon done: a large board still has more than are planned as a whole. */
export const CELL = 0.3;

/** Domes on a board, at these middles. */
export function domes(board: { x: number; y: number }, at: [number, number][], size = { x: 46, y: 34 }): SetupView {
  const view = plainSetup({
    name: 'Domes',
    order: '',
    machine: { ...SHOP_MACHINE, x: 3000, y: 2000 },
    rough: drawerBit('em6'),
    finish: drawerBit('ball3'),
    board: { ...board, thickness: 18, material: materialNamed('maple') },
  });
  view.cell = CELL;
  view.setup.place = { x: 0, y: 0 };
  view.layers = at.map(([x, y], i) => ({
    ...newShape({ id: `dome${i}`, name: `Dome ${i}` }, { kind: 'oval' }, { kind: 'dome' }, view.board),
    size,
    centre: { x, y },
    rise: 5,
  }));
  for (const p of view.passes) if (p.kind === 'finish') Object.assign(p, { stepover: 1.2, tolerance: 0.05 });
  return view;
}
