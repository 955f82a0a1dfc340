import fc from 'fast-check';
import { expect, test } from 'vitest';
import { DRAWER } from '../doc/defaults';
import { boardGrid, makeField } from '../field/height-field';
import { Path } from '../motion/path';
import { Live } from './live';

const ball = DRAWER.find((c) => c.id === 'ball3')!;
const R = ball.diameter / 2;

/** A board of 40 x 30 mm cut down to -4 but for what stands left of a line along y. */
function wallAt(x: number) {
  const stands = makeField(boardGrid(40, 30, 0.1), -4);
  for (let k = 0; k < stands.data.length; k++)
    if (stands.originX + (k % stands.width) * stands.cell <= x) stands.data[k] = 0;
  return stands;
}

test('wood under an eighth of the disc counts, less is a wall beside the way', () => {
  const path = new Path();
  path.rapid(35, 25, 5);
  // Share of a circle beyond a chord d from its middle: (acos(d / R) - d / R sqrt(1 - (d / R)^2)) / pi.
  const share = (d: number) => (Math.acos(d / R) - (d / R) * Math.sqrt(1 - (d / R) ** 2)) / Math.PI;
  const live = new Live({ stands: wallAt(20) }, ball, path);
  for (let d = 0; d < R; d += 0.1) {
    // Beside the wall the floor lies at the tip: nothing of it is taken. Between two cells it may stand a little higher.
    const solid = live.solid({ x: 20 + d, y: 15, z: -4 }, 1);
    if (share(d) > 0.24) expect(solid).toBeCloseTo(4.05, 6);
    if (share(d) < 0.09) expect(solid).toBe(0);
  }
  expect(live.solid({ x: 10, y: 15, z: -0.5 }, 1)).toBeCloseTo(0.55, 6);
});

test('what the pass has cut itself stands no more: beside its own way only as much as that leaves', () => {
  const path = new Path();
  path.rapid(5, 15, 5);
  const live = new Live({ stands: makeField(boardGrid(40, 30, 0.1), 0) }, ball, path);
  const at = { x: 20, y: 15.2, z: -3 };
  expect(live.solid(at, 1)).toBeCloseTo(3.05, 6);
  path.feed(5, 15, -3, 500, 'plunge');
  path.feed(35, 15, -3, 1800);
  // A rim of 0.2 mm at its side is all that stands.
  expect(live.solid({ ...at, y: 15 }, 1)).toBe(0);
  expect(live.solid({ ...at, y: 15 + 2 * R }, 1)).toBeCloseTo(3.05, 6);
  expect(live.nearest(20, 15.2, 1)).toEqual({ x: 20, y: 15, z: -3 });
  expect(live.nearest(20, 17, 1)).toBeNull();
});

test('the nearest place that the tip has been at lies on one of the moves, none is nearer by more than a cell (property)', () => {
  const place = fc.tuple(fc.integer({ min: 20, max: 380 }), fc.integer({ min: 20, max: 280 }));
  fc.assert(
    fc.property(fc.array(place, { minLength: 3, maxLength: 8 }), place, (stops, [u, v]) => {
      const path = new Path();
      path.rapid(stops[0][0] / 10, stops[0][1] / 10, -1);
      const live = new Live({ stands: makeField(boardGrid(40, 30, 0.2), 0) }, ball, path);
      for (const [a, b] of stops.slice(1)) path.feed(a / 10, b / 10, -1, 1000);
      const [x, y] = [u / 10, v / 10];
      let least = Infinity;
      for (let i = 1; i < stops.length; i++) {
        for (let s = 0; s <= 400; s++) {
          const at = [0, 1].map((c) => (stops[i - 1][c] + ((stops[i][c] - stops[i - 1][c]) * s) / 400) / 10);
          if (stops[i][0] !== stops[i - 1][0] || stops[i][1] !== stops[i - 1][1])
            least = Math.min(least, Math.hypot(at[0] - x, at[1] - y));
        }
      }
      const found = live.nearest(x, y, 3);
      if (least > 3.1) expect(found).toBeNull();
      if (!found) {
        expect(least).toBeGreaterThan(2.7);
        return;
      }
      expect(found.z).toBe(-1);
      expect(Math.hypot(found.x - x, found.y - y)).toBeLessThan(least + 0.3);
    }),
    { numRuns: 60 },
  );
});
