import { expect, test } from 'vitest';
import { MASK, type Wanted } from '../arrange/target';
import { profileOf } from '../cutter/cutter';
import { DRAWER } from '../doc/defaults';
import { boardGrid, cellPlace, type Grid, gridBetween, type HeightField, makeField } from '../field/height-field';
import { localHost } from '../kernels/host';
import { SEGMENT } from '../kernels/segment';
import { removeStock } from '../kernels/stock-removal';
import { type Look, type LookCloser, lookAt, lookCloser, windowsToLookAt } from './closer';
import { compareSurfaces } from './deviation';
import type { Run } from './simulate';

const ball = DRAWER.find((c) => c.id === 'ball3')!;
const grid = gridBetween(boardGrid(24, 16, 0.1));

/** Ridges of 45 degrees along x, 4 mm apart, their tops at y = 2, 6, 10, 14 and 1 mm under the board's. */
const ridges = (y: number, aside = 0) => -1 - Math.abs(((((y - aside) % 4) + 4) % 4) - 2);
const draw = (g: Grid, aside: number): HeightField => {
  const f = makeField(g);
  for (let k = 0; k < f.data.length; k++) f.data[k] = ridges(g.originY + Math.floor(k / g.width) * g.cell, aside);
  return f;
};

/** Rows of a ball along x, 0.2 mm apart, that rides on ridges whose tops are cut off by `off` mm. */
function rows(off: number, aside: number): Pick<Run, 'cutter' | 'segments'> {
  const R = ball.diameter / 2;
  const out: number[] = [];
  for (let y = 2; y < 14; y += 0.2) {
    // The highest that ridges, level at their tops, hold a ball's tip.
    let tip = Number.NEGATIVE_INFINITY;
    for (let d = -R; d <= R; d += 0.002) {
      const h = Math.min(ridges(y + d, aside), -1 - off);
      tip = Math.max(tip, h - (R - Math.sqrt(Math.max(0, R * R - d * d))));
    }
    out.push(2, y, tip, 22, y, tip, 0);
  }
  expect(out.length % SEGMENT).toBe(0);
  return { cutter: ball, segments: Float64Array.from(out) };
}

/** The target, how a run leaves it as the proof's own cells show it, and what a closer look says. */
async function looked(off: number, aside: number) {
  const field = draw(grid, aside);
  const mask = new Uint8Array(field.data.length).fill(MASK.waste);
  for (let k = 0; k < mask.length; k++) {
    const [i, j] = [k % grid.width, Math.floor(k / grid.width)];
    if (i > 40 && i < 200 && j > 40 && j < 120) mask[k] = MASK.cut;
  }
  const target: Wanted = { field, mask, ground: -3 };
  const run = rows(off, aside);
  const cut = makeField(grid);
  removeStock(cut, profileOf(ball), run.segments);
  const shown = compareSurfaces(cut, field, mask);
  const look: Look = async (g) => ({ field: draw(g, aside), seen: new Uint8Array(g.width * g.height).fill(1) });
  const here: LookCloser = async (at, windows, each) => {
    for (const w of windows) each(await lookAt(w, at, look, localHost));
  };
  return { target, shown, closer: await lookCloser(target, shown.map, [run], here) };
}

test('a ridge that is cut off between two rows of cells is seen by a closer look', async () => {
  // Tops at 6.0 mm and the proof's rows at 5.975 and 6.075: moved by 0.025 they lie halfway between two.
  const { shown, closer } = await looked(0.04, 0.025);
  expect(shown.deepest).toBeGreaterThan(-0.02);
  // 0.04 mm upright is 0.028 along the normal of either side: the nearest of the surface.
  expect(closer.deepest!.deep).toBeLessThan(-0.024);
  expect(closer.deepest!.deep).toBeGreaterThan(-0.03);
  expect(closer.eye.left).toBe(0);
  // At a ridge's top, to a fine cell; and in the cell around it.
  const { y, cell } = closer.deepest!;
  expect(Math.abs(((y - 0.025) % 4) - 2)).toBeLessThan(0.01);
  expect(Math.abs(cellPlace(grid, cell).y - y)).toBeLessThan(0.051);
});

test('what is whole stays whole, and nothing is looked at where no edge stands between cells', async () => {
  const { closer } = await looked(0, 0.025);
  expect(closer.deepest?.deep ?? 0).toBeGreaterThan(-0.006);
  const { target } = await looked(0, 0);
  for (let k = 0; k < target.field.data.length; k++) target.field.data[k] = -2 + 0.01 * Math.sin((k % grid.width) / 40);
  expect(windowsToLookAt(target, new Float32Array(target.mask.length))).toEqual([]);
});
