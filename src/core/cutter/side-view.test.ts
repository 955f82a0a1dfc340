import { expect, test } from 'vitest';
import { DRAWER } from '../doc/defaults';
import { profileHeight, profileOf } from './cutter';
import { sideView } from './side-view';

test.each(DRAWER.map((c) => [c.name, c] as const))('%s is drawn by its own numbers', (_, c) => {
  const { cutting, shank, holder } = sideView(c);
  const profile = profileOf(c);
  // Every place of the tip lies on the profile, from the axis to its full width; over it the side is upright, and of a slot bit the neck stands on its head.
  const neck = c.shape === 'slot' ? cutting.splice(-2) : [];
  if (c.shape === 'slot')
    expect(neck).toEqual([
      [c.neckDiameter / 2, c.fluteLength],
      [c.neckDiameter / 2, c.fluteLength + c.neckLength],
    ]);
  for (const [r, z] of cutting.slice(0, -1)) expect(z).toBeCloseTo(profileHeight(profile, r), 9);
  expect(cutting[0]).toEqual([0, 0]);
  expect(cutting.at(-1)![0]).toBeCloseTo(c.diameter / 2, 9);
  expect(Math.max(...cutting.map(([r]) => 2 * r))).toBeCloseTo(c.diameter, 9);
  // One part stands on the other.
  expect((neck.at(-1) ?? cutting.at(-1))![1]).toBe(shank[0][1]);
  expect(shank[1][1]).toBe(holder[0][1]);
  expect(shank[0][1]).toBeGreaterThanOrEqual(c.fluteLength);
  expect(shank[1]).toEqual([c.shankDiameter / 2, Math.max(c.stickOut, c.fluteLength)]);
});

test('a ball is a half circle, to a hundredth of its radius between two points', () => {
  const ball = DRAWER.find((c) => c.id === 'ball6')!;
  const R = ball.diameter / 2;
  const { cutting } = sideView(ball);
  for (let i = 1; i < cutting.length - 1; i++) {
    const [a, b] = [cutting[i - 1], cutting[i]];
    const [r, z] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
    expect(Math.abs(Math.hypot(r, R - z) - R)).toBeLessThan(0.01 * R);
  }
});
