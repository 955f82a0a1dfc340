import { expect, test } from 'vitest';
import { MASK, type Target } from '../arrange/target';
import { boardGrid, cellPlace, makeField } from '../field/height-field';
import { groundOf, joinGrounds } from './ground';

/** A ring of cut ground around a middle of the board, with a gap through it or without. */
function ring(gap: boolean): Target {
  const field = makeField(boardGrid(60, 50, 0.2), 0);
  const mask = new Uint8Array(field.data.length).fill(MASK.keep);
  const outside = new Float32Array(field.data.length);
  for (let k = 0; k < mask.length; k++) {
    const { x, y } = cellPlace(field, k);
    const r = Math.hypot(x - 30, y - 25);
    outside[k] = Math.max(0, Math.abs(r - 16) - 4);
    if (Math.abs(r - 16) > 8 || (gap && Math.abs(y - 25) < 1 && x > 30)) continue;
    mask[k] = MASK.waste;
    field.data[k] = -5;
  }
  return { field, mask, outside, ground: -5 };
}

test('board within cleared ground is an island, with its plan and its middle; what goes on to the edge is none', () => {
  const { islands, deepest } = groundOf(ring(false));
  expect(deepest).toBe(5);
  expect(islands.length).toBe(1);
  expect(islands[0].area).toBeCloseTo(Math.PI * 64, -1);
  expect(Math.hypot(islands[0].x - 30, islands[0].y - 25)).toBeLessThan(1);
  expect(islands[0].far).toBeCloseTo(12, 0);
  expect(groundOf(ring(true)).islands).toEqual([]);
  expect(joinGrounds([groundOf(ring(true)), groundOf(ring(false))]).islands).toEqual(islands);
});
