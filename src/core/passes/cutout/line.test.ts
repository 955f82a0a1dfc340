import fc from 'fast-check';
import { expect, test } from 'vitest';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '../../doc/defaults';
import { ringArea } from '../../field/contours';
import { NearestOutline } from '../../outline/nearest';
import { outlinePolygon } from '../../outline/shapes';
import { plainSetup, proposed } from '../../plan/plan-test-kit';
import { alongNearest, atDepth, cutLines, pointAt, rotated } from './line';
import type { CutoutPass } from './schema';
import { placeTabs } from './tabs';

const mill = DRAWER.find((c) => c.id === 'em6')!;
const board = { x: 200, y: 150, thickness: 20, material: materialNamed('maple') };
const view = plainSetup({ name: 'a', order: '', machine: HOBBY_MACHINE, rough: mill, finish: mill, board });
const pass = (change: Partial<CutoutPass> = {}): CutoutPass => ({
  ...proposed('cutout', view, mill),
  ...change,
});
const plate = outlinePolygon({ kind: 'rounded', radius: 15 }, 120, 80);
const distanceTo = (p: Float64Array[], x: number, y: number) =>
  new NearestOutline(p, 60).find(x, y, { distance: 0, along: 0, ring: 0 }).distance;

test('the tip runs a radius off the outline, with the piece on its right: climb for a bit that turns clockwise', () => {
  const { last, wide } = cutLines(plate, pass({ last: 0.3 }), mill);
  for (const [lines, off] of [
    [last, 3.175],
    [wide, 3.475],
  ] as const) {
    expect(lines).toHaveLength(1);
    for (let i = 0; i < lines[0].ring.length; i += 14)
      expect(Math.abs(distanceTo(plate, lines[0].ring[i], lines[0].ring[i + 1]) - off)).toBeLessThan(0.005);
  }
  // Clockwise around the piece; counter-clockwise inside of a hole; on the line as outside.
  expect(ringArea(last[0].ring)).toBeLessThan(0);
  expect(ringArea(cutLines(plate, pass({ side: 'inside' }), mill).last[0].ring)).toBeGreaterThan(0);
  const [on] = cutLines(plate, pass({ side: 'on', last: 0 }), mill).last;
  expect(ringArea(on.ring) / ringArea(plate[0])).toBeCloseTo(-1, 6);
});

test('tabs are spread evenly over straight runs, away from corners, and each line has its share', () => {
  const tabs = { count: 6, length: 8, thickness: 4, sloped: true, at: null };
  const [line] = cutLines(plate, pass({ tabs }), mill).last;
  expect(line.tabs).toHaveLength(6);
  const sorted = [...line.tabs].sort((a, b) => a - b);
  const gaps = sorted.map((t, i) => (sorted[i + 1] ?? sorted[0] + line.total) - t);
  // No gap is more than twice what even ones would be.
  expect(Math.max(...gaps)).toBeLessThan((2 * line.total) / 6);
  for (const s of line.tabs) {
    const p = pointAt(line, s);
    // A tab of 8 mm and the bit's width fit on the straight part: its middle is 7.2 mm and more from where it bends.
    const straight = Math.abs(p.y) > 43 ? Math.abs(p.x) < 45 : Math.abs(p.y) < 25;
    expect(straight).toBe(true);
  }
  const hole = [Float64Array.from([-20, -15, -20, 15, 20, 15, 20, -15])];
  const both = cutLines([...plate, ...hole], pass({ tabs, outline: { ...pass().outline, holes: true } }), mill).last;
  expect(both.map((l) => l.tabs.length)).toEqual([1, 5]);
});

test('thin places get no tab while there are others', () => {
  // A plate with a tongue 5 mm wide that has the longest straight runs.
  const tongue = [Float64Array.from([0, 0, 60, 0, 60, 27, 160, 27, 160, 32, 60, 32, 60, 60, 0, 60])];
  const rings = cutLines(tongue, pass(), mill).last.map((l) => l.ring);
  const [placed] = placeTabs(
    rings,
    { count: 3, length: 8, thickness: 4, sloped: false, at: null },
    { outline: tongue, half: 7.2, foot: 7.2, stands: () => true },
  );
  for (const p of placed) expect(p.x).toBeLessThan(70);
});

test('tabs set by hand lie on the line nearest to where they were set', () => {
  const at = [
    { x: 0, y: 60 },
    { x: 90, y: 3 },
  ];
  const [line] = cutLines(plate, pass({ tabs: { ...pass().tabs, count: 2, at } }), mill).last;
  const places = line.tabs.map((s) => pointAt(line, s));
  expect(places.some((p) => Math.hypot(p.x, p.y - 43.175) < 1e-6)).toBe(true);
  expect(places.some((p) => Math.hypot(p.x - 63.175, p.y - 3) < 1e-6)).toBe(true);
});

test('a line begun elsewhere is the same line, and its tabs stay where they are (property)', () => {
  const [line] = cutLines(plate, pass(), mill).last;
  fc.assert(
    fc.property(fc.double({ min: -500, max: 900, noNaN: true }), fc.double({ min: 0, max: 1, noNaN: true }), (s, t) => {
      const other = rotated(line, s);
      expect(other.total).toBe(line.total);
      const [a, b] = [pointAt(line, s + t * line.total), pointAt(other, t * line.total)];
      expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeLessThan(1e-4);
      line.tabs.forEach((tab, i) => {
        const [p, q] = [pointAt(line, tab), pointAt(other, other.tabs[i])];
        expect(Math.hypot(p.x - q.x, p.y - q.y)).toBeLessThan(1e-4);
      });
      const p = pointAt(line, s);
      const along = alongNearest(line.ring, line.at, line.total, p.x, p.y);
      expect(Math.hypot(pointAt(line, along).x - p.x, pointAt(line, along).y - p.y)).toBeLessThan(1e-6);
    }),
    { numRuns: 200 },
  );
});

test('at a depth the line rises over tabs and nowhere else, never steeper than their slope (property)', () => {
  const lines = cutLines(plate, pass(), mill);
  const [line] = lines.last;
  fc.assert(
    fc.property(fc.double({ min: -20.5, max: -2, noNaN: true }), fc.boolean(), (z, sloped) => {
      const slope = sloped ? 1 : Infinity;
      const top = -14;
      const points = atDepth(line, z, top, lines.half, slope);
      const n = points.length / 3;
      let over = 0;
      for (let k = 0; k < n; k++) {
        const q = (k + 1) % n;
        const [h, next] = [points[3 * k + 2], points[3 * q + 2]];
        expect(h).toBeGreaterThanOrEqual(z - 1e-9);
        expect(h).toBeLessThanOrEqual(Math.max(z, top) + 1e-9);
        const run = Math.hypot(points[3 * q] - points[3 * k], points[3 * q + 1] - points[3 * k + 1]);
        if (sloped) expect(Math.abs(next - h)).toBeLessThanOrEqual(run * slope + 1e-4);
        if (h >= top - 1e-9 && next >= top - 1e-9 && z < top) over += run;
      }
      // At full height over each tab's length and the bit's width.
      if (z < top) expect(over).toBeCloseTo(line.tabs.length * 2 * lines.half, 1);
    }),
    { numRuns: 60 },
  );
});
