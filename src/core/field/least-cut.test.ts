import { expect, test } from 'vitest';
import { type HeightField, makeField } from './height-field';
import { leastCut } from './least-cut';

const CELL = 0.2;
/** A strip of 40 x 20 mm, 6 mm thick: a piece at its west end, what holds at its east end, and wood as `thick` says between them. */
function strip(thick: (x: number, y: number) => number): { wood: HeightField; of: Int32Array } {
  const grid = { width: 200, height: 100, cell: CELL, originX: CELL / 2, originY: CELL / 2 };
  const wood = makeField(grid, 6);
  const of = new Int32Array(wood.data.length).fill(-1);
  for (let k = 0; k < of.length; k++) {
    const x = (k % 200) * CELL + CELL / 2;
    const y = Math.floor(k / 200) * CELL + CELL / 2;
    if (x < 14) of[k] = 0;
    else if (x > 26) of[k] = 1;
    else wood.data[k] = thick(x, y);
  }
  return { wood, of };
}
const cut = (thick: (x: number, y: number) => number) => {
  const { wood, of } = strip(thick);
  return leastCut(wood, of, 0, new Set([1]), 0.09) as number;
};

test('a waist of a strip is cut at its narrowest: thickness times width', () => {
  // 0.8 mm thick, 3 mm wide between two hyperbolas.
  const section = cut((x, y) => (Math.abs(y - 10) < 1.5 + 0.05 * (x - 20) ** 2 ? 0.8 : 0));
  expect(section / (0.8 * 3)).toBeGreaterThan(0.93);
  expect(section / (0.8 * 3)).toBeLessThan(1.1);
});

test('an oblique rib counts across itself, whatever its angle to the cells', () => {
  for (const degrees of [0, 22.5, 45]) {
    const a = (degrees * Math.PI) / 180;
    const section = cut((x, y) => (Math.abs((y - 10) * Math.cos(a) - (x - 20) * Math.sin(a)) < 2 ? 1.2 : 0));
    expect(section / (1.2 * 4), `${degrees} degrees`).toBeGreaterThan(0.92);
    expect(section / (1.2 * 4), `${degrees} degrees`).toBeLessThan(1.1);
  }
});

test('two ribs count together, the thinnest place of each', () => {
  const section = cut((x, y) => {
    if (Math.abs(y - 5) < 1) return Math.abs(x - 17) < 1 ? 0.5 : 3;
    return Math.abs(y - 15) < 2 ? (Math.abs(x - 23) < 1 ? 0.25 : 2) : 0;
  });
  expect(section / (0.5 * 2 + 0.25 * 4)).toBeGreaterThan(0.9);
  expect(section / (0.5 * 2 + 0.25 * 4)).toBeLessThan(1.1);
});

test('what only corners join is not joined, and too much between two pieces is not worked out', () => {
  expect(cut((x, y) => (Math.floor(x / CELL) + Math.floor(y / CELL)) % 2)).toBe(0);
  const wide = makeField({ width: 700, height: 400, cell: CELL, originX: 0, originY: 0 }, 0.5);
  const of = new Int32Array(wide.data.length).fill(-1);
  of[0] = 0;
  of[of.length - 1] = 1;
  expect(leastCut(wide, of, 0, new Set([1]), 0.09)).toBeNull();
});
