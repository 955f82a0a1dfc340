import { readFileSync } from 'node:fs';
import path from 'node:path';
import { expect, test } from 'vitest';
import { NEW_WORDS } from '../arrange/new-layer';
import { distanceInside } from '../field/distance';
import { FONTS } from '../sources/fonts';
import { layWords, readFont } from '../sources/lettering';
import { medialAxis, thinChain } from './medial';
import { crossings, type Polygon, polygonBounds } from './polygon';
import { outlinePolygon } from './shapes';

const lengthOf = (chains: Float64Array[]) => {
  let sum = 0;
  for (const c of chains) for (let k = 3; k < c.length; k += 3) sum += Math.hypot(c[k] - c[k - 3], c[k + 1] - c[k - 2]);
  return sum;
};
const places = (chains: Float64Array[]) =>
  chains.flatMap((c) =>
    Array.from({ length: c.length / 3 }, (_, k) => [c[3 * k], c[3 * k + 1], c[3 * k + 2]] as const),
  );

test('a square has its two diagonals, as far from the edge as half its width in the middle, and drawn to its corners', () => {
  const axis = medialAxis(outlinePolygon({ kind: 'rectangle' }, 20, 20), 0.1);
  expect(lengthOf(axis)).toBeCloseTo(2 * 20 * Math.SQRT2, 1);
  for (const [x, y, d] of places(axis)) {
    expect(Math.abs(Math.abs(x) - Math.abs(y))).toBeLessThan(0.06);
    expect(d).toBeCloseTo(10 - Math.max(Math.abs(x), Math.abs(y)), 2);
  }
  for (const [sx, sy] of [
    [1, 1],
    [-1, 1],
    [-1, -1],
    [1, -1],
  ])
    expect(Math.min(...places(axis).map(([x, y]) => Math.hypot(x - 10 * sx, y - 10 * sy)))).toBe(0);
});

test('a rectangle has a ridge and four diagonals; a ring a circle in its middle', () => {
  const axis = medialAxis(outlinePolygon({ kind: 'rectangle' }, 40, 12), 0.1);
  expect(lengthOf(axis)).toBeCloseTo(28 + 4 * 6 * Math.SQRT2, 1);
  const ring: Polygon = [
    outlinePolygon({ kind: 'circle' }, 40, 40)[0],
    // A hole runs the other way round.
    Float64Array.from(
      Array.from({ length: 400 }, (_, k) => [
        12 * Math.cos((-2 * Math.PI * k) / 400),
        12 * Math.sin((-2 * Math.PI * k) / 400),
      ]).flat(),
    ),
  ];
  const middle = medialAxis(ring, 0.1);
  expect(Math.abs(lengthOf(middle) - 2 * Math.PI * 16)).toBeLessThan(0.3);
  for (const [x, y, d] of places(middle)) {
    expect(Math.hypot(x, y)).toBeCloseTo(16, 1);
    expect(d).toBeCloseTo(4, 1);
  }
});

test('an L is two bars with a bend of a parabola around its inner corner', () => {
  // Bars 10 wide; inner corner at (10, 10).
  const L: Polygon = [Float64Array.of(0, 0, 40, 0, 40, 10, 10, 10, 10, 40, 0, 40)];
  const axis = medialAxis(L, 0.05);
  for (const [x, y, d] of places(axis)) {
    // In the bend places are as far from the inner corner as from an outer edge, or lie on the diagonal from the outer corner.
    if (x < 10 && y < 10)
      expect(Math.min(Math.abs(x - y), Math.abs(Math.hypot(x - 10, y - 10) - Math.min(x, y)))).toBeLessThan(0.05);
    else if (x > 12 && x < 33) expect(Math.abs(y - 5)).toBeLessThan(0.03);
    expect(d).toBeLessThan(5.86);
  }
  // Furthest in: on the diagonal where x = sqrt 2 (10 - x), x = 10 (2 - sqrt 2).
  expect(Math.max(...places(axis).map((p) => p[2]))).toBeCloseTo(10 * (2 - Math.SQRT2), 1);
});

test('on letters the distances are those of an exact distance transform, and the axis runs through every part', () => {
  const bytes = readFileSync(path.resolve('node_modules', FONTS.find((f) => f.id === 'script')!.file));
  const font = readFont(new Uint8Array(bytes), 'script');
  const words = { ...NEW_WORDS, text: 'Mill', font: 'script', fontName: 'Script', height: 14 };
  const { polygon } = layWords(words, font);
  const axis = medialAxis(polygon, 0.05);
  const b = polygonBounds(polygon);
  const cell = 0.02;
  const [w, h] = [Math.ceil((b.x1 - b.x0) / cell) + 4, Math.ceil((b.y1 - b.y0) / cell) + 4];
  const inside = new Uint8Array(w * h);
  for (let j = 0; j < h; j++) {
    const row = crossings(polygon, b.y0 + (j - 1.5) * cell);
    for (let q = 0; q + 1 < row.length; q += 2) {
      const i0 = Math.ceil((row[q] - b.x0) / cell + 1.5);
      const i1 = Math.floor((row[q + 1] - b.x0) / cell + 1.5);
      if (i1 >= i0) inside.fill(1, j * w + i0, j * w + i1 + 1);
    }
  }
  const grid = distanceInside(inside, w, h);
  let worst = 0;
  for (const [x, y, d] of places(axis)) {
    const i = Math.round((x - b.x0) / cell + 1.5);
    const j = Math.round((y - b.y0) / cell + 1.5);
    worst = Math.max(worst, Math.abs(grid[j * w + i] * cell - d));
  }
  expect(worst).toBeLessThan(2.5 * cell);
  // Discs around the axis fill the letters: hardly a cell lies outside all of them.
  const filled = new Uint8Array(w * h);
  for (const c of axis) {
    for (let k = 3; k < c.length; k += 3) {
      const steps = Math.max(1, Math.ceil(Math.hypot(c[k] - c[k - 3], c[k + 1] - c[k - 2]) / 0.04));
      for (let s = 0; s <= steps; s++) {
        const at = (o: number) => c[k - 3 + o] + ((c[k + o] - c[k - 3 + o]) * s) / steps;
        const r = at(2) / cell;
        const [ci, cj] = [(at(0) - b.x0) / cell + 1.5, (at(1) - b.y0) / cell + 1.5];
        for (let j = Math.max(0, Math.ceil(cj - r)); j <= Math.min(h - 1, cj + r); j++)
          for (let i = Math.max(0, Math.ceil(ci - r)); i <= Math.min(w - 1, ci + r); i++)
            if ((i - ci) ** 2 + (j - cj) ** 2 <= r * r) filled[j * w + i] = 1;
      }
    }
  }
  let [all, missed] = [0, 0];
  for (let k = 0; k < inside.length; k++) {
    if (!inside[k]) continue;
    all++;
    if (!filled[k]) missed++;
  }
  expect(missed / all).toBeLessThan(0.02);
});

test('a thinned chain stays within its tolerance', () => {
  const chain = Float64Array.from(
    Array.from({ length: 300 }, (_, k) => [k * 0.1, Math.sin(k * 0.05), Math.cos(k * 0.03)]).flat(),
  );
  const thin = thinChain(chain, 0.01);
  expect(thin.length).toBeLessThan(chain.length / 4);
  for (let k = 0; k < chain.length; k += 3) {
    let best = Infinity;
    for (let q = 3; q < thin.length; q += 3) {
      const d = [0, 1, 2].map((c) => thin[q + c] - thin[q - 3 + c]);
      const p = [0, 1, 2].map((c) => chain[k + c] - thin[q - 3 + c]);
      const t = Math.max(
        0,
        Math.min(1, (d[0] * p[0] + d[1] * p[1] + d[2] * p[2]) / (d[0] ** 2 + d[1] ** 2 + d[2] ** 2)),
      );
      best = Math.min(best, Math.hypot(p[0] - t * d[0], p[1] - t * d[1], p[2] - t * d[2]));
    }
    expect(best).toBeLessThanOrEqual(0.0101);
  }
});
