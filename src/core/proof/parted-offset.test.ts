import { expect, test } from 'vitest';
import { boardGrid, type HeightField } from '../field/height-field';
import { standingUnder } from './parted-offset';

const BOARD = { x: 40, y: 30 };
const low = (x: number, y: number) => -4 - Math.sin(x) * Math.cos(y);

/** A window of a board's cells that is cut down to a wave. */
function part(cell: number, i: number, j: number, n: number): HeightField {
  const [originX, originY] = [(i + 0.5) * cell, (j + 0.5) * cell];
  const data = Float32Array.from({ length: n * n }, (_, k) =>
    low(originX + (k % n) * cell, originY + Math.floor(k / n) * cell),
  );
  return { cell, width: n, height: n, originX, originY, data };
}
const parts = [part(0.5, 8, 8, 20), part(1, 25, 12, 10)];

/** The highest of the board within R of a place, on its parts' own cells and the board as it was around them. */
function plainly(x: number, y: number, R: number): number {
  let high = -Infinity;
  for (const p of parts)
    for (let k = 0; k < p.data.length; k++) {
      const [px, py] = [p.originX + (k % p.width) * p.cell, p.originY + Math.floor(k / p.width) * p.cell];
      if (Math.hypot(px - x, py - y) <= R) high = Math.max(high, p.data[k]);
    }
  const g = boardGrid(BOARD.x, BOARD.y, 0.25);
  for (let k = 0; k < g.width * g.height; k++) {
    const [px, py] = [g.originX + (k % g.width) * g.cell, g.originY + Math.floor(k / g.width) * g.cell];
    if (Math.hypot(px - x, py - y) > R) continue;
    const inside = parts.some(
      (p) =>
        Math.abs(px - p.originX + p.cell / 2 - (p.width * p.cell) / 2) < (p.width * p.cell) / 2 &&
        Math.abs(py - p.originY + p.cell / 2 - (p.height * p.cell) / 2) < (p.height * p.cell) / 2,
    );
    if (!inside) high = Math.max(high, 0);
  }
  return high;
}

test('a bit in the middle of a part stands as high as its cells, one at its edge or beside it as high as the board around', () => {
  const R = 2;
  const at = standingUnder({ parts, around: { ...BOARD, height: 0 } }, { cell: 0, kind: 'max', R });
  for (const p of parts) {
    for (let j = 0; j < p.height; j++) {
      for (let i = 0; i < p.width; i++) {
        const [x, y] = [p.originX + i * p.cell, p.originY + j * p.cell];
        const [told, plain] = [at(x, y), plainly(x, y, R)];
        // The board beside a part begins half a cell from its outermost middles.
        const edge = Math.min(i, j, p.width - 1 - i, p.height - 1 - j) * p.cell;
        if (Math.abs(edge + p.cell / 2 - R) > p.cell) expect(told).toBeCloseTo(plain, 5);
        else expect([0, plain].some((v) => Math.abs(v - told) < 1e-5)).toBe(true);
      }
    }
  }
  expect(at(1, 1)).toBe(0);
  expect(at(39, 29)).toBe(0);
});
