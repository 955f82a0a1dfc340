import fc from 'fast-check';
import { expect, test } from 'vitest';
import { flattenLines, flattenPath, readSvgPath } from './flatten';
import { NearestOutline } from './nearest';
import { pathData } from './path-data';
import { outlinePolygon } from './shapes';
import { offsetPolygon } from './union';

test('path data says the outline again, within the tolerance, in both directions (property)', () => {
  const points = fc.array(fc.tuple(fc.integer({ min: 4, max: 30 }), fc.integer({ min: 1, max: 100 })), {
    minLength: 5,
    maxLength: 14,
  });
  fc.assert(
    fc.property(points, fc.double({ min: 0.5, max: 5, noNaN: true }), (list, by) => {
      // A star of random radii around 0, rounded by an offset so that there are arcs in it.
      const ring = Float64Array.from(
        list.flatMap(([r], i) => {
          const a = (2 * Math.PI * i) / list.length;
          return [r * Math.cos(a), r * Math.sin(a)];
        }),
      );
      const polygon = offsetPolygon([ring], by, 0.002);
      const d = pathData(polygon, 0.01, 0);
      // SVG's y runs down: the reader turns it up again.
      const back = flattenPath(readSvgPath(d), 0.001);
      expect(back).toHaveLength(polygon.length);
      const hit = { distance: 0, along: 0, ring: 0 };
      const [was, now] = [new NearestOutline(polygon, 5), new NearestOutline(back, 5)];
      for (const r of back)
        for (let i = 0; i < r.length; i += 2) expect(was.find(r[i], r[i + 1], hit).distance).toBeLessThan(0.012);
      for (const r of polygon)
        for (let i = 0; i < r.length; i += 2) expect(now.find(r[i], r[i + 1], hit).distance).toBeLessThan(0.013);
      expect(d).toContain(' A ');
    }),
    { numRuns: 60 },
  );
});

test('a circle of 40 mm is a few arcs of 20, measured down from where it is asked for', () => {
  const d = pathData(outlinePolygon({ kind: 'circle' }, 40, 40), 0.012, 50);
  expect(d.match(/A 20 20 /g)!.length).toBeLessThanOrEqual(5);
  // What is left at the end is shorter than an arc is worth.
  expect(d.match(/ L /g)?.length ?? 0).toBeLessThanOrEqual(2);
  const [ring] = flattenPath(readSvgPath(d), 0.01);
  for (let i = 0; i < ring.length; i += 2)
    expect(Math.abs(Math.hypot(ring[i], ring[i + 1] + 50) - 20)).toBeLessThan(0.02);
});

test('open lines stay open, closed ones close, and what is only a place is none', () => {
  const lines = (d: string) => flattenLines(readSvgPath(d), 0.1).map((l) => [l.points.length / 2, l.closed]);
  expect(lines('M 0 0 L 5 0 L 5 5')).toEqual([[3, false]]);
  expect(lines('M 0 0 L 5 0 L 5 5 Z')).toEqual([[3, true]]);
  // Ends that meet close it as well; the first point is not repeated.
  expect(lines('M 0 0 L 5 0 L 5 5 L 0 0')).toEqual([[3, true]]);
  expect(lines('M 0 0 L 5 0 M 9 9 L 9 12')).toEqual([
    [2, false],
    [2, false],
  ]);
  expect(lines('M 3 3')).toEqual([]);
  expect(flattenPath(readSvgPath('M 0 0 L 5 0'), 0.1)).toEqual([]);
});
