import { expect, test } from 'vitest';
import { offsetPolygon } from '../../outline/union';
import { tightCorners } from './corners';

/** An L of 40 x 40 with arms of 20, its inside corner rounded by r. */
function elbow(r: number) {
  const sharp = [Float64Array.of(0, 0, 40, 0, 40, 20, 20, 20, 20, 40, 0, 40)];
  // Closing by r fills the inside corner with an arc of r.
  return r === 0 ? sharp : offsetPolygon(offsetPolygon(sharp, r, 0.001), -r, 0.001);
}

test('a bit leaves r^2 (1 - pi / 4) in a square inside corner, and a sharp one is entered by none', () => {
  const [c, ...rest] = tightCorners(elbow(0), false, 3.175);
  expect(rest).toEqual([]);
  expect(c.area).toBeCloseTo(3.175 ** 2 * (1 - Math.PI / 4), 1);
  expect(c.most).toBe(0);
  expect(Math.hypot(c.x - 20, c.y - 20)).toBeLessThan(4);
});

test('a rounded corner is entered by a bit of its own diameter, and by no larger one', () => {
  const [c] = tightCorners(elbow(1.6), false, 3.175);
  expect(c.most).toBeGreaterThan(3.1);
  expect(c.most).toBeLessThan(3.6);
  expect(tightCorners(elbow(3.2), false, 3.175)).toEqual([]);
  expect(tightCorners(elbow(1.6), false, 1.5)).toEqual([]);
});

test('inside an outline its outer corners are the tight ones', () => {
  const found = tightCorners(elbow(0), true, 2);
  expect(found).toHaveLength(5);
  for (const c of found) expect(c.most).toBe(0);
});
