import { expect, test } from 'vitest';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../doc/defaults';
import { plainSetup } from '../plan/plan-test-kit';
import { cellOf, MAX_CELLS } from './cell';

const sized = (x: number, y: number) =>
  plainSetup({
    name: 's',
    order: '',
    machine: HOBBY_MACHINE,
    rough: structuredClone(DRAWER.find((c) => c.id === 'em6')!),
    finish: structuredClone(DRAWER.find((c) => c.id === 'ball3')!),
    board: { x, y, thickness: 20, material: materialNamed('maple') },
  });

test('a board of 1200 x 600 mm is planned at the cell that its ball asks for, one twice as large both ways is not', () => {
  const large = cellOf(sized(1200, 600));
  expect(large.cell).toBe(large.wanted);
  const larger = cellOf(sized(2400, 1200));
  expect(larger.cell).toBeGreaterThan(larger.wanted);
  expect((2400 * 1200) / larger.cell ** 2).toBeLessThanOrEqual(MAX_CELLS * 1.000001);
});
