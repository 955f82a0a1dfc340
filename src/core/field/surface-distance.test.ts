import fc from 'fast-check';
import { Triangle, Vector3 } from 'three';
import { expect, test } from 'vitest';
import { makeField } from './height-field';
import { fromTriangle, surfaceDistance } from './surface-distance';

const coordinate = fc.double({ min: -5, max: 5, noNaN: true });
const place = fc.tuple(coordinate, coordinate, coordinate);

test('the distance from a triangle is what three says of its nearest point', () => {
  fc.assert(
    fc.property(place, place, place, place, (p, a, b, c) => {
      const t = new Triangle(new Vector3(...a), new Vector3(...b), new Vector3(...c));
      fc.pre(t.getArea() > 0.01);
      const near = t.closestPointToPoint(new Vector3(...p), new Vector3());
      expect(Math.sqrt(fromTriangle(p, a, b, c))).toBeCloseTo(near.distanceTo(new Vector3(...p)), 6);
    }),
  );
});

const grid = { width: 30, height: 24, cell: 0.1, originX: 0.05, originY: 0.05 };

test('under an even slope the distance is what stands over a place times the cosine of the slope', () => {
  for (const degrees of [0, 30, 60, 80]) {
    const f = makeField(grid);
    const slope = Math.tan((degrees * Math.PI) / 180);
    for (let k = 0; k < f.data.length; k++) f.data[k] = (k % grid.width) * grid.cell * slope;
    const k = 12 * grid.width + 15;
    const under = 0.05 / Math.cos((degrees * Math.PI) / 180);
    expect(surfaceDistance(f, k, f.data[k] - under, 1)).toBeCloseTo(0.05, 5);
  }
});

test('beside a wall the distance is taken sideways, and nothing beyond six cells is nearer than what it is held against', () => {
  const f = makeField(grid);
  for (let k = 0; k < f.data.length; k++) if (k % grid.width >= 15) f.data[k] = -8;
  const inside = (cells: number) => 12 * grid.width + 15 - cells;
  // The wall runs from the last high cell to the first low one.
  expect(surfaceDistance(f, inside(1), -7.9, 5)).toBeLessThan(0.1);
  expect(surfaceDistance(f, inside(3), -4, 5)).toBeCloseTo(0.25, 2);
  expect(surfaceDistance(f, inside(12), -4, 3.5)).toBe(3.5);
});
