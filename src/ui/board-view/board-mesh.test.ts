import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { MASK } from '@/core/arrange/target';
import { boardGrid, makeField } from '@/core/field/height-field';
import { type Block, boardMesh, ringsOf, withinTriangles } from './board-mesh';
import { pieceOf } from './piece';

const board = { x: 40, y: 30, thickness: 10 };
const grid = boardGrid(board.x, board.y, 0.25);
const block = (z: (x: number, y: number) => number, more: Partial<Block> = {}): Block => {
  const f = makeField(grid, 0);
  for (let k = 0; k < f.data.length; k++)
    f.data[k] = z(grid.originX + (k % grid.width) * grid.cell, grid.originY + Math.floor(k / grid.width) * grid.cell);
  const mask = new Uint8Array(f.data.length).fill(MASK.cut);
  return { grid, top: f.data, under: null, mask, board, shown: null, ...more };
};

/** Corners of each triangle with how upright it stands: 0 level, 1 upright. */
function triangles({ positions, index }: ReturnType<typeof boardMesh>) {
  return Array.from({ length: index.length / 3 }, (_, t) => {
    const [a, b, c] = [0, 1, 2].map((n) =>
      Array.from(positions.subarray(3 * index[3 * t + n], 3 * index[3 * t + n] + 3)),
    );
    const [u, v] = [b.map((p, k) => p - a[k]), c.map((p, k) => p - a[k])];
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    const area = Math.hypot(...n);
    return { a, b, c, n, area, upright: area > 1e-9 ? Math.hypot(n[0], n[1]) / area : 0 };
  });
}

/** Volume that a closed mesh holds, mm3 (the divergence theorem). */
const volume = (list: ReturnType<typeof triangles>) =>
  list.reduce((s, { a, n }) => s + (a[0] * n[0] + a[1] * n[1] + a[2] * n[2]) / 6, 0);

describe('a board with a round pocket', () => {
  const pocket = block((x, y) => (Math.hypot(x - 20, y - 15) < 8 ? -4 : 0));
  const list = triangles(boardMesh(pocket, 60));

  test('has upright walls: no triangle leans, and the walls lie where the pocket ends within a cell', () => {
    for (const t of list) if (t.area > 1e-6) expect(t.upright < 0.01 || t.upright > 0.99, `${t.upright}`).toBe(true);
    const walls = list.filter(
      (t) => t.upright > 0.99 && Math.max(...[t.a, t.b, t.c].map((p) => Math.hypot(p[0], p[1]))) < 12,
    );
    expect(walls.length).toBeGreaterThan(40);
    for (const t of walls)
      for (const p of [t.a, t.b, t.c]) expect(Math.abs(Math.hypot(p[0], p[1]) - 8)).toBeLessThan(grid.cell);
  });

  test('holds the wood that the board has left', () => {
    expect(volume(list)).toBeCloseTo(40 * 30 * 10 - Math.PI * 64 * 4, -1.5);
  });
});

test('a slope stays a slope, at the heights of its cells', () => {
  const mesh = boardMesh(
    block((x) => -x / 10),
    40,
  );
  for (let k = 0; k < mesh.positions.length; k += 3) {
    const [x, z] = [mesh.positions[k] + 20, mesh.positions[k + 2]];
    if (z > -9.99 && x > 0.5 && x < 39.5) expect(z).toBeCloseTo(-x / 10, 1);
  }
});

test('what is cut through is open, from above and from beneath', () => {
  const through = block((x, y) => (Math.abs(x - 20) < 5 && Math.abs(y - 15) < 5 ? -10.5 : 0));
  const list = triangles(boardMesh(through, 80));
  expect(volume(list)).toBeCloseTo(10 * (40 * 30 - 10 * 10), -2);
  const inside = list.filter((t) => [t.a, t.b, t.c].every((p) => Math.abs(p[0]) < 4 && Math.abs(p[1]) < 4));
  expect(inside).toEqual([]);
});

test('the piece alone is what its slot goes round, tabs and frame left out; without a slot all but the waste', () => {
  const slot = (x: number, y: number) => Math.max(Math.abs(x - 20) - 10, Math.abs(y - 15) - 8);
  const tab = (x: number, y: number) => Math.abs(y - 15) < 2 && x > 20;
  const cut = block((x, y) => (Math.abs(slot(x, y)) < 1 ? (tab(x, y) ? -7 : -10.4) : -1));
  for (let k = 0; k < cut.mask.length; k++) {
    const [x, y] = [grid.originX + (k % grid.width) * grid.cell, grid.originY + Math.floor(k / grid.width) * grid.cell];
    if (Math.abs(slot(x, y)) < 1) cut.mask[k] = MASK.waste;
  }
  const shown = pieceOf({ ...grid, ...cut, thickness: 10 });
  const area = shown.reduce((s, v) => s + v, 0) * grid.cell ** 2;
  expect(area).toBeCloseTo(18 * 14, -1);
  expect(volume(triangles(boardMesh({ ...cut, shown }, 120)))).toBeCloseTo(18 * 14 * 9, -2);
  const plain = block(() => -1);
  expect(pieceOf({ ...grid, ...plain, thickness: 10 }).every((v) => v === 1)).toBe(true);
});

test('no more triangles than are allowed, whatever there is of walls', () => {
  const rough = block((x, y) => ((Math.floor(x) + Math.floor(y)) % 2 === 0 ? 0 : -5));
  const mesh = withinTriangles((n) => boardMesh(rough, n), 160, 20_000);
  expect(mesh.index.length / 3).toBeLessThanOrEqual(20_000);
  expect(mesh.index.length / 3).toBeGreaterThan(2000);
});

test('a parted quad is covered once: its rings have all corners, and every crossing on both sides (property)', () => {
  fc.assert(
    fc.property(fc.tuple(fc.boolean(), fc.boolean(), fc.boolean(), fc.boolean()), (up) => {
      const rings = [true, false].flatMap((side) => ringsOf(up, side));
      const corners = rings.flat().filter((n) => n < 4);
      expect(corners.sort()).toEqual([0, 1, 2, 3]);
      const crossings = rings.flat().filter((n) => n >= 4);
      const parted = [0, 1, 2, 3].filter((n) => up[n] !== up[(n + 1) % 4]).map((n) => 4 + n);
      expect(crossings.sort()).toEqual(parted.flatMap((n) => [n, n]));
    }),
  );
});
