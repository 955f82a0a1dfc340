import fc from 'fast-check';
import { expect, test } from 'vitest';
import { profileOf } from '../../../cutter/cutter';
import { DRAWER } from '../../../doc/defaults';
import { heldOver } from '../../../doc/drum';
import { unrolled } from '../../../field/drum';
import { AIR, drumGrid, makeField } from '../../../field/height-field';
import { removeStock } from '../../../kernels/stock-removal';
import { Arrangement } from '../../engine';
import { renderLayer } from '../../render';
import { contourAt, flatAcross, turnedForm } from './forms';
import { deepenTurned, freshForm, newTurned } from './fresh';
import { depthOn, type Groove, halfWidth } from './groove';
import type { TurnedForm } from './schema';

const R = 16;
const BOARD = { x: 100, y: unrolled(R), thickness: R, drum: heldOver(20, 10) };

/** The heights of a form alone on the drum's grid, mm below the blank's circle. */
function drawn(form: TurnedForm, rise: number, cell = 0.5, change: object = {}) {
  const layer = newTurned('t', 'Form', form, BOARD);
  deepenTurned(layer, rise);
  Object.assign(layer, { invert: false }, change);
  const grid = drumGrid(BOARD.x, R, cell);
  const { window: w, heights } = renderLayer(layer, {}, grid);
  const at = (i: number, j: number) => {
    const [u, v] = [i - w.i, j - w.j];
    if (u < 0 || v < 0 || u >= w.width || v >= w.height) return null;
    const h = heights[v * w.width + u];
    // A groove's layer has nothing to say where it is not deep.
    return h === AIR || h === 0 ? null : h;
  };
  return { grid, layer, at };
}

test('a ball groove is what its ball leaves that runs along the drum at its depth, ends and all', () => {
  const ball = DRAWER.find((c) => c.shape === 'ball' && c.diameter > 6)!;
  const [depth, long] = [1.8, 30];
  const { grid, at, layer } = drawn(
    { kind: 'flutes', count: 1, twist: 0, section: { kind: 'ball', radius: ball.diameter / 2 } },
    depth,
    0.1,
    { size: { x: long, y: BOARD.y }, centre: { x: 50, y: 10 } },
  );
  const half = halfWidth({ depth, section: { kind: 'ball', radius: ball.diameter / 2 } });
  const [x0, x1] = [layer.centre.x - long / 2 + half, layer.centre.x + long / 2 - half];
  const cut = makeField(grid, 0);
  removeStock(cut, profileOf(ball), Float64Array.of(x0, 10, -depth, x1, 10, -depth, 0));
  let worst = 0;
  let met = 0;
  for (let j = 0; j < grid.height; j++)
    for (let i = 0; i < grid.width; i++) {
      const own = -(at(i, j) ?? 0);
      const z = cut.data[j * grid.width + i];
      // Where the bit's side leaves the drum a ray is met or missed; that is a wall's matter.
      worst = Math.max(worst, Math.abs(z - own));
      if (z < -1e-6) met++;
    }
  expect(met).toBeGreaterThan(5_000);
  expect(worst).toBeLessThan(2e-3);
});

test('the ray of a groove lies on the ball or the cone (property)', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 5, max: 60, noNaN: true }),
      fc.double({ min: 0.05, max: 0.6, noNaN: true }),
      fc.double({ min: 0, max: 0.95, noNaN: true }),
      fc.double({ min: 0, max: 0.6, noNaN: true }),
      fc.boolean(),
      (radius, share, side, past, vee) => {
        const r = radius / 5;
        const depth = share * r;
        const section: Groove['section'] = vee ? { kind: 'vee', angle: 70 } : { kind: 'ball', radius: r };
        const groove: Groove = { depth, section };
        const wide = halfWidth(groove);
        const a = (side * wide) / radius;
        const e = past * wide;
        const deep = depthOn(groove, radius, a, e);
        if (deep <= 0) return;
        const [h, l] = [(radius - deep) * Math.cos(a), (radius - deep) * Math.sin(a)];
        const d = radius - depth;
        if (vee) expect(h - d).toBeCloseTo(Math.hypot(l, e) / Math.tan((35 * Math.PI) / 180), 6);
        else expect(Math.hypot(h - (d + r), l, e)).toBeCloseTo(r, 6);
      },
    ),
  );
});

test('a flat is a plane: rho cos a is the same everywhere on it, and it ends where the blank does', () => {
  const rise = 4;
  const { at, grid, layer } = drawn({ kind: 'flat' }, rise, 0.5, {
    centre: { x: 50, y: 1 },
    size: { x: 20, y: flatAcross(R, rise) },
  });
  const i = Math.floor(50 / grid.cell);
  let rows = 0;
  for (let j = 0; j < grid.height; j++) {
    const deep = at(i, j);
    if (deep === null) continue;
    rows++;
    const a = (grid.originY + j * grid.cell - 1) / R;
    expect((R - deep) * Math.cos(a)).toBeCloseTo(R - rise, 5);
  }
  // Over the seam too.
  expect(rows).toBe(Math.round(layer.size.y / grid.cell));
  // The chord of a circle: half its width squared is R^2 - (R - depth)^2 (Euclid III.35).
  expect((2 * R * Math.sin(layer.size.y / 2 / R)) ** 2 / 4).toBeCloseTo(R ** 2 - (R - rise) ** 2, 9);
});

test('tenons, contours, beads, flutes and knurls go all round, and meet themselves at the seam', () => {
  for (const kind of ['cylinder', 'contour', 'beads', 'flutes', 'knurl'] as const) {
    const { at, grid, layer } = drawn(freshForm(kind, BOARD), 1, 0.25, { centre: { x: 55, y: 3 } });
    const i = Math.floor((layer.centre.x + 2) / grid.cell);
    const depths = Array.from({ length: grid.height }, (_, j) => at(i, j) ?? 0);
    const steps = depths.map((d, j) => Math.abs(d - depths[(j + 1) % grid.height]));
    // The step over the seam is like any other.
    expect(steps[grid.height - 1]).toBeLessThanOrEqual(Math.max(...steps.slice(0, -1)) + 1e-6);
    if (kind === 'cylinder') expect(new Set(depths)).toEqual(new Set([1]));
    if (kind === 'flutes') {
      const starts = depths.filter((d, j) => d > 0 && depths[(j + grid.height - 1) % grid.height] === 0).length;
      expect(starts).toBe(12);
    }
  }
});

test('flutes carved into a thinner part are of the same ball there: their section lies on its circle, as deep below that ground', () => {
  const ball = 2.5;
  const tenon = newTurned('tenon', 'Tenon', { kind: 'cylinder' }, BOARD);
  Object.assign(tenon, { size: { x: 80, y: BOARD.y } });
  deepenTurned(tenon, 5);
  const section = { kind: 'ball', radius: ball } as const;
  const flutes = newTurned('flutes', 'Flutes', { kind: 'flutes', count: 6, twist: 0, section }, BOARD);
  Object.assign(flutes, { size: { x: 40, y: BOARD.y }, rise: 1.5 });
  const grid = drumGrid(BOARD.x, R, 0.2);
  const a = new Arrangement(grid, () => ({}));
  a.update([tenon, flutes], { mode: 'sunk', skin: 0, drop: 0, press: null });
  const { z } = a.surface;
  const i = Math.round(flutes.centre.x / grid.cell);
  let on = 0;
  for (let j = 0; j < grid.height; j++) {
    const deep = -z[j * grid.width + i];
    expect(deep).toBeGreaterThanOrEqual(5 - 1e-5);
    if (deep < 5.05) continue;
    on++;
    const turn = (grid.originY + j * grid.cell - flutes.centre.y) / R;
    const aside = turn - (Math.PI / 3) * Math.round(turn / (Math.PI / 3));
    const rho = R - deep;
    expect(Math.hypot(rho * Math.cos(aside) - (R - 5 - 1.5 + ball), rho * Math.sin(aside))).toBeCloseTo(ball, 4);
  }
  // Each as wide on the thinner part as it would be on the blank, which is more of its turn.
  expect(on / 6).toBeGreaterThan((2 * halfWidth({ depth: 1.4, section })) / grid.cell);
});

test('a twisted flute has gone round by its twist at its end', () => {
  const flute = (twist: number) =>
    turnedForm({ kind: 'flutes', count: 1, twist, section: { kind: 'vee', angle: 90 } }, { radius: R, x: 40, rise: 1 });
  const turned = flute(90);
  // Well inside its pointed end.
  for (const dx of [-15, 0, 7, 15]) {
    const round = (R * (Math.PI / 2) * dx) / 40;
    expect(turned(dx, round)).toBeCloseTo(1, 9);
    expect(turned(dx, round + 2 * Math.PI * R)).toBeCloseTo(1, 6);
    expect(turned(dx, round + 2.5)).toBe(null);
  }
});

test('a contour goes through its points, never beyond them, and straight where it is to be straight', () => {
  const points = [
    { along: 0, down: 0.2 },
    { along: 0.3, down: 1 },
    { along: 0.6, down: 0.4 },
    { along: 1, down: 0.5 },
  ];
  for (const curved of [true, false]) {
    const at = contourAt({ kind: 'contour', points, curved });
    for (const p of points) expect(at(p.along)).toBeCloseTo(p.down, 9);
    for (let k = 0; k < 3; k++)
      for (let t = 0.05; t < 1; t += 0.05) {
        const [p, q] = [points[k], points[k + 1]];
        const v = at(p.along + t * (q.along - p.along));
        expect(v).toBeGreaterThanOrEqual(Math.min(p.down, q.down) - 1e-9);
        expect(v).toBeLessThanOrEqual(Math.max(p.down, q.down) + 1e-9);
        if (!curved) expect(v).toBeCloseTo(p.down + t * (q.down - p.down), 9);
      }
  }
});

test('beads are arcs of one circle that meet at their full depth', () => {
  const at = turnedForm({ kind: 'beads', count: 4 }, { radius: R, x: 24, rise: 2 });
  // A chord of 6 mm under an arc 2 mm high: radius (3^2 + 2^2) / 4.
  const r = (9 + 4) / 4;
  for (const [dx, u] of [
    [-9, 0],
    [-10.5, 1.5],
    [3, 0],
    [5, 2],
  ])
    expect(at(dx, 0)).toBeCloseTo(r - Math.sqrt(r * r - u * u), 9);
  expect(at(-6, 0)).toBeCloseTo(2, 6);
});
