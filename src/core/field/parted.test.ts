import { expect, test } from 'vitest';
import { boardGrid, type Grid, type HeightField, poolField } from './height-field';
import { gridOver, pooledOver, spreadOver } from './parted';

const BOARD = { x: 30, y: 20 };

/** A window of the cells of a board, filled by a function of the place. */
function part(cell: number, [i, j, width, height]: number[], at: (x: number, y: number) => number): HeightField {
  const originX = (i + 0.5) * cell;
  const originY = (j + 0.5) * cell;
  const data = Float32Array.from({ length: width * height }, (_, k) =>
    at(originX + (k % width) * cell, originY + Math.floor(k / width) * cell),
  );
  return { cell, width, height, originX, originY, data };
}

const wave = (x: number, y: number) => -2 - Math.sin(x * 1.3) - Math.cos(y * 1.7);
const parts = [part(0.25, [8, 8, 40, 24], wave), part(0.4, [40, 20, 20, 25], wave)];

/** Value of a parted field at a place by its plain meaning. */
function plainAt(x: number, y: number): number[] {
  return parts.flatMap((p) => {
    const [u, v] = [(x - p.originX) / p.cell, (y - p.originY) / p.cell];
    return u < -0.5 || v < -0.5 || u >= p.width - 0.5 || v >= p.height - 0.5
      ? []
      : [p.data[Math.round(v) * p.width + Math.round(u)]];
  });
}

test.each(['max', 'min'] as const)(
  'parts on coarser cells: each holds the %s of the cells whose middles lie in it',
  (kind) => {
    const f = pooledOver({ parts, around: { ...BOARD, height: 0 } }, 1, kind);
    expect(f).toMatchObject(boardGrid(BOARD.x, BOARD.y, 1));
    const best = kind === 'max' ? Math.max : Math.min;
    for (let k = 0; k < f.data.length; k++) {
      const [x, y] = [f.originX + (k % f.width) * f.cell, f.originY + Math.floor(k / f.width) * f.cell];
      const own = parts.flatMap((p) => {
        const out: number[] = [];
        for (let q = 0; q < p.data.length; q++) {
          const [px, py] = [p.originX + (q % p.width) * p.cell, p.originY + Math.floor(q / p.width) * p.cell];
          if (
            Math.round((px - f.originX) / f.cell) === k % f.width &&
            Math.round((py - f.originY) / f.cell) === Math.floor(k / f.width)
          )
            out.push(p.data[q]);
        }
        return out;
      });
      // A cell that reaches out of a part holds what lies around it too.
      const out = own.length === 0 || plainAt(x, y).length === 0 ? [0] : [];
      expect(f.data[k]).toBe(Math.fround(best(...own, ...out)));
    }
  },
);

test('one part alone is pooled as a field is, and is itself where its own cells are asked for', () => {
  const [one] = parts;
  expect(pooledOver({ parts: [one], around: null }, 0, 'min')).toBe(one);
  expect(pooledOver({ parts: [one], around: null }, 1, 'max')).toEqual(poolField(one, 4, 'max'));
});

test('parts on one grid for pictures: every cell that of the nearest, and the board as it was around them', () => {
  const on: Grid = gridOver(BOARD, 0.25);
  const seen = spreadOver(
    on,
    parts.map((p) => ({ grid: p, data: p.data })),
    7,
  );
  for (let k = 0; k < seen.length; k++) {
    const [x, y] = [on.originX + (k % on.width) * on.cell, on.originY + Math.floor(k / on.width) * on.cell];
    const plain = plainAt(x, y);
    if (plain.length === 0) expect(seen[k]).toBe(7);
    else expect(plain).toContain(seen[k]);
  }
  expect(gridOver({ x: 3000, y: 2000 }, 0.1)).toMatchObject({ width: 6000, height: 4000 });
});
