import { expect, test } from 'vitest';
import { boardGrid, type Grid } from '../field/height-field';
import { type Drawn, edgeWindows, raisedEdges } from './edges';

type Surface = (x: number, y: number) => number | null;

/** A surface drawn on a grid; null where nothing belongs to the piece. */
function drawn(at: Surface, g: Grid): Drawn {
  const z = new Float32Array(g.width * g.height);
  const cover = new Uint8Array(z.length);
  for (let k = 0; k < z.length; k++) {
    const h = at(g.originX + (k % g.width) * g.cell, g.originY + Math.floor(k / g.width) * g.cell);
    if (h === null) continue;
    z[k] = h;
    cover[k] = 1;
  }
  return { z, cover };
}

const CELL = 0.1;
const grid = boardGrid(20, 16, CELL);
const standing = (at: Surface, raised = true) => ({ ...drawn(at, grid), grid, raised });

/** The surface with its cells raised, and how far they were at most. */
async function raise(at: Surface, raised = true) {
  const s = standing(at, raised);
  const pairs = await raisedEdges(s, async (grids, each) => {
    for (const [n, g] of grids.entries()) each(drawn(at, g), n);
  });
  const z = s.z.slice();
  let most = 0;
  for (let q = 0; q < pairs.length; q += 2) {
    z[pairs[q]] += pairs[q + 1];
    most = Math.max(most, pairs[q + 1]);
  }
  return { z, most, cells: pairs.length / 2, pairs };
}

/** How far a surface stands above the triangles between cells at most, those of the diagonal that stands higher, over places of no grid. */
function above(at: Surface, z: Float32Array): number {
  let worst = 0;
  for (let n = 0; n < 40_000; n++) {
    const x = 1 + ((n * 0.754877666) % 1) * 18;
    const y = 1 + ((n * 0.569840291) % 1) * 14;
    const [u, v] = [(x - grid.originX) / CELL, (y - grid.originY) / CELL];
    const k = Math.floor(v) * grid.width + Math.floor(u);
    const [a, b] = [u - Math.floor(u), v - Math.floor(v)];
    const [sw, se, nw, ne] = [z[k], z[k + 1], z[k + grid.width], z[k + grid.width + 1]];
    const flat =
      sw + ne > se + nw
        ? a > b
          ? sw + (se - sw) * a + (ne - se) * b
          : sw + (nw - sw) * b + (ne - nw) * a
        : a + b < 1
          ? sw + (se - sw) * a + (nw - sw) * b
          : ne + (nw - ne) * (1 - a) + (se - ne) * (1 - b);
    worst = Math.max(worst, (at(x, y) ?? 0) - flat);
  }
  return worst;
}

test('ridges at any angle and phase stand hardly above their cells once these are raised', async () => {
  for (const [degrees, shift] of [
    [0, 0.025],
    [0, 0.05],
    [17, 0.03],
    [45, 0],
    [90, 0.07],
  ]) {
    const a = (degrees * Math.PI) / 180;
    const ridge: Surface = (x, y) => 5 - Math.abs((x - 10 - shift) * Math.sin(a) - (y - 8 - shift) * Math.cos(a));
    const { z, most } = await raise(ridge);
    expect(above(ridge, z), `${degrees} degrees, ${shift} mm`).toBeLessThan(0.0125);
    expect(most).toBeLessThan(CELL / 2 + 0.02);
  }
  // Without it, a ridge halfway between two rows is not seen by half a cell.
  const between: Surface = (_, y) => 5 - Math.abs(y - 8);
  expect(above(between, standing(between).z)).toBeGreaterThan(0.9 * (CELL / 2));
});

test('where nothing stands between cells nothing is raised, and a level field beside an edge keeps its height', async () => {
  const dome: Surface = (x, y) => Math.sqrt(400 - (x - 10) ** 2 - (y - 8) ** 2) - 15;
  expect((await raise(dome)).cells).toBe(0);
  expect(edgeWindows(standing(dome))).toEqual([]);
  // A plateau that ends in a slope between two cells.
  const plateau: Surface = (x) => 5 - Math.max(0, x - 10) * 0.8;
  const { z } = await raise(plateau);
  expect(Math.max(...z)).toBeLessThan(5 + 1e-5);
  expect(above(plateau, z)).toBeLessThan(0.0125);
});

test('a wall is known to half a cell: of the cells beside it those are raised that it reaches halfway to', async () => {
  const wallAt =
    (w: number): Surface =>
    (x) =>
      x < w ? 6 : 1;
  const cells = async (w: number) => (await raise(wallAt(w))).cells / grid.height;
  // Cells lie at 9.95 and 10.05 mm: halfway is 10.
  expect(await cells(9.98)).toBe(0);
  expect(await cells(10.02)).toBe(1);
  // Around a raised piece lies its base plane; around a sunk one kept board, which planning grows by itself.
  const piece: Surface = (x) => (x < 10.02 ? 6 : null);
  expect((await raise(piece)).cells).toBeGreaterThan(0);
  expect((await raise(piece, false)).cells).toBe(0);
});
