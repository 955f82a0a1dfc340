import { describe, expect, test } from 'vitest';
import { newShape } from '../arrange/new-layer';
import { DRAWER, materialNamed, SHOP_MACHINE } from '../doc/defaults';
import { boardGrid, makeField } from '../field/height-field';
import { cutBoardPlainly } from '../proof/plain-harm-test-kit';
import { plainSetup, planShapes } from './plan-test-kit';

const board = { x: 50, y: 46, thickness: 20, material: materialNamed('maple') };
const bit = (id: string) => structuredClone(DRAWER.find((c) => c.id === id)!);

/** Two blocks of 10 mm, 4 mm apart along an axis: an end mill of 6.35 mm does not get between them, a ball of 3.175 mm does. */
function blocks(along: 'x' | 'y') {
  const view = plainSetup({
    name: 'Slot',
    order: '',
    machine: SHOP_MACHINE,
    rough: bit('em6'),
    finish: bit('ball3'),
    board,
  });
  const block = (id: string, aside: number) => ({
    ...newShape({ id, name: 'Block' }, { kind: 'rectangle' }, { kind: 'flat' }, board),
    size: along === 'x' ? { x: 20, y: 8 } : { x: 8, y: 20 },
    centre: along === 'x' ? { x: 25, y: 23 + aside } : { x: 25 + aside, y: 23 },
    rise: 10,
  });
  view.layers = [block('a', -6), block('b', 6)];
  view.document.cell = 0.15;
  return view;
}

describe('a slot that only the finishing ball enters', () => {
  for (const along of ['x', 'y'] as const) {
    test(`along ${along} it is gone down in levels: no plunge and no bite over a limit, by the plain definition`, async () => {
      const view = blocks(along);
      const { summary } = await planShapes(view);
      expect(summary.findings.filter((f) => f.severity === 'error')).toEqual([]);
      const programs = summary.programs.map(({ file, text, cutter }) => ({ file, text, tool: cutter }));
      const { stock, harms } = cutBoardPlainly(view, makeField(boardGrid(board.x, board.y, 0.5)), programs);
      expect(harms).toEqual([]);
      // Between the blocks the floor is reached, along the middle as far as they stand.
      for (const at of [-8, 0, 8]) {
        const [x, y] = along === 'x' ? [25 + at, 23] : [25, 23 + at];
        const k = Math.floor(y / 0.5) * stock.width + Math.floor(x / 0.5);
        expect(stock.data[k]).toBeCloseTo(-10, 1);
      }
    });
  }
});
