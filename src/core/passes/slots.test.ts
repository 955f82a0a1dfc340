import { expect, test } from 'vitest';
import { MASK } from '../arrange/target';
import { DRAWER } from '../doc/defaults';
import { boardGrid, cellPlace, makeField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { cutSlots } from './slots';

const bit = DRAWER.find((c) => c.id === 'em3')!;

test('a slot goes where its bit comes: over ground that is cleared deeper than a tab stands too, which stays as deep', async () => {
  const field = makeField(boardGrid(40, 20, 0.25), 0);
  // The right half is cleared 4 mm deep already.
  field.data = field.data.map((_, k) => (cellPlace(field, k).x > 20 ? -4 : 0));
  const mask = new Uint8Array(field.data.length).fill(MASK.keep);
  const target = { field, mask, outside: new Float32Array(mask.length), ground: -4 };
  // Through the board up to a tab, which is as high as 3.4 mm under the top all along the right half.
  const chain = Float64Array.of(5, 10, -12.5, 18, 10, -12.5, 20, 10, -3.4, 35, 10, -3.4);
  const slot = { cutter: bit, chains: [chain], loose: null, through: true };
  const out = await cutSlots(target, [slot], localHost);
  const at = (x: number, y: number) => {
    const k = Math.round((y - field.originY) / field.cell) * field.width + Math.round((x - field.originX) / field.cell);
    return [out.through![k], out.target.field.data[k]];
  };
  expect(at(10, 10)).toEqual([1, -12.5]);
  expect(at(30, 10)).toEqual([1, -4]);
  expect(at(30, 10 + bit.diameter / 2 - 0.3)).toEqual([1, -4]);
  expect(at(30, 10 + bit.diameter / 2 + 0.3)).toEqual([0, -4]);
  expect(target.field.data).toEqual(field.data);
});
