import { expect, test } from 'vitest';
import type { Layer } from '../doc/layer';
import { WHOLE_PIECE } from '../doc/outline-ref';
import { ringArea } from '../field/contours';
import { boardGrid } from '../field/height-field';
import { type Polygon, polygonBounds } from '../outline/polygon';
import { joinPolygons, offsetPolygon, smoothPolygon } from '../outline/union';
import { shapeOf, strokesOf } from './made-shape';
import { newShape } from './new-layer';
import { renderLayer } from './render';
import { joinSilhouettes, outlineOf, type Shown } from './silhouette';
import { middleLines, traceOutlines } from './trace';

const grid = boardGrid(120, 80, 0.2);
const area = (p: Polygon) => p.reduce((s, r) => s + ringArea(r), 0);
const shown = (change: Partial<Layer>, outline: Parameters<typeof newShape>[1] = { kind: 'rectangle' }): Shown => {
  const layer = {
    ...newShape({ id: 'a', name: 'a' }, outline, { kind: 'flat' }, { x: 120, y: 80 }),
    ...change,
  } as Layer;
  return { layer, content: {}, rendered: renderLayer(layer, {}, grid) };
};
const box = shown({ id: 'box', size: { x: 60, y: 40 }, centre: { x: 60, y: 40 } });
const disc = shown({ id: 'disc', size: { x: 20, y: 20 }, centre: { x: 90, y: 40 } }, { kind: 'circle' });
const bite = shown({ id: 'bite', size: { x: 10, y: 10 }, centre: { x: 60, y: 40 }, join: 'carve' }, { kind: 'circle' });
const all = [box, disc, bite];

test('the whole piece: what is carved in takes nothing of its outline; a masked layer is traced around its cells', () => {
  const whole = outlineOf(WHOLE_PIECE, all, grid, 'raised');
  expect(area(whole)).toBeCloseTo(2400 + Math.PI * 50, 0);
  const traced = shown({
    id: 't',
    size: { x: 60, y: 40 },
    centre: { x: 60, y: 40 },
    mask: { kind: 'outline', outline: { kind: 'circle' }, x: 30, y: 30, dx: 0, dy: 0, outside: false },
  });
  const ring = outlineOf(WHOLE_PIECE, [traced], grid, 'raised');
  expect(area(ring) / (Math.PI * 225)).toBeCloseTo(1, 2);
  for (const r of ring)
    for (let i = 0; i < r.length; i += 2) expect(Math.abs(Math.hypot(r[i] - 60, r[i + 1] - 40) - 15)).toBeLessThan(0.2);
});

test('one outline less another, holes kept or dropped, larger with round and with sharp corners (Steiner’s formula)', () => {
  const ref = { ...WHOLE_PIECE, of: ['box'] };
  const less = outlineOf({ ...ref, less: ['bite'], holes: true }, all, grid, 'raised');
  expect(area(less)).toBeCloseTo(2400 - Math.PI * 25, 0);
  // A convex outline of area A and length P grows by r to A + P r + pi r^2; with sharp corners a rectangle stays one.
  expect(area(outlineOf({ ...ref, grow: 5 }, all, grid, 'raised'))).toBeCloseTo(2400 + 200 * 5 + Math.PI * 25, 1);
  expect(area(outlineOf({ ...ref, grow: 5, corner: 'sharp' }, all, grid, 'raised'))).toBeCloseTo(70 * 50, 3);
  expect(area(outlineOf({ ...ref, grow: -5 }, all, grid, 'raised'))).toBeCloseTo(50 * 30, 3);
  expect(outlineOf({ ...ref, grow: -21 }, all, grid, 'raised')).toEqual([]);
});

test('union, difference and intersection of layers add up', () => {
  const [u, d, i] = (['union', 'difference', 'intersection'] as const).map((how) =>
    area(joinSilhouettes(how, [box, disc], grid)),
  );
  expect(u).toBeCloseTo(2400 + Math.PI * 50, 0);
  expect(i).toBeCloseTo(Math.PI * 50, 0);
  expect(d + i).toBeCloseTo(2400, 3);
  const [p, q] = [[Float64Array.of(0, 0, 4, 0, 4, 4, 0, 4)], [Float64Array.of(2, 2, 6, 2, 6, 6, 2, 6)]];
  const of = (how: 'union' | 'difference' | 'intersection') => area(joinPolygons(how, p, q));
  expect([of('union'), of('difference'), of('intersection')]).toEqual([28, 12, 4]);
});

test('smoothing takes off a spike and fills a notch, and leaves the rest', () => {
  // A square of 30 with a spike and a notch 1 mm wide.
  const rough = [
    Float64Array.of(0, 0, 30, 0, 30, 30, 20, 30, 20, 36, 19, 36, 19, 30, 10, 30, 10, 24, 9, 24, 9, 30, 0, 30),
  ];
  expect(area(rough)).toBeCloseTo(900, 6);
  const smooth = smoothPolygon(rough, 1, 0.001);
  const b = polygonBounds(smooth);
  // At its foot a spike is as wide as the fillets beside it: a little of it stays.
  expect(b.y1).toBeLessThan(31);
  expect(area(smooth)).toBeCloseTo(900, -1);
  expect(area(joinPolygons('difference', rough, smooth))).toBeGreaterThan(5.5);
});

test('an outline as a shape is the same outline: its size, its place and its area', () => {
  const whole = offsetPolygon(outlineOf(WHOLE_PIECE, all, grid, 'raised'), 3, 0.002);
  const made = shapeOf(whole)!;
  const again = shown({ ...made, id: 'made' } as never, made.outline);
  const back = outlineOf(WHOLE_PIECE, [again], grid, 'raised');
  expect(Math.abs(area(back) / area(whole) - 1)).toBeLessThan(3e-4);
  const [a, b] = [polygonBounds(whole), polygonBounds(back)];
  for (const k of ['x0', 'y0', 'x1', 'y1'] as const) expect(b[k]).toBeCloseTo(a[k], 2);
  expect(shapeOf([])).toBeNull();
});

test('traced at a height: the outline of what stands above it, and the middle of a band', () => {
  const dome = shown({ id: 'd', size: { x: 40, y: 40 }, centre: { x: 60, y: 40 }, rise: 8 }, { kind: 'circle' });
  const cone = {
    ...dome.layer,
    source: { ...dome.layer.source, relief: { kind: 'bevel', width: 20, band: false } },
  } as Layer;
  const r = renderLayer(cone, {}, grid);
  // Half way up a cone of radius 20 is a circle of radius 10.
  const [ring] = traceOutlines(r, grid, 4);
  expect(Math.abs(ringArea(ring)) / (Math.PI * 100)).toBeCloseTo(1, 1);
  const bent = shown({ id: 's', size: { x: 70, y: 40 } }, { kind: 'strokes', d: 'M 0 0 C 20 40 50 40 70 0', width: 6 });
  const lines = middleLines(traceOutlines(bent.rendered, grid, 0.1), grid.cell);
  const all = lines.map((l) => l.points);
  const inner = polygonBounds(all);
  // The middle ends about half a width before the round ends.
  expect(inner.x1 - inner.x0).toBeGreaterThan(60);
  expect(inner.x1 - inner.x0).toBeLessThan(66);
  const made = strokesOf(lines, 6)!;
  const back = shown({ ...made, id: 'm' } as never, made.outline);
  const was = area(outlineOf(WHOLE_PIECE, [bent], grid, 'raised'));
  expect(Math.abs(area(outlineOf(WHOLE_PIECE, [back], grid, 'raised')) / was - 1)).toBeLessThan(0.08);
  expect(made.outline.kind).toBe('strokes');
});
