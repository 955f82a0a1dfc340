import fc from 'fast-check';
import { expect, test } from 'vitest';
import { MOVES, Path, sinkingFeed, slopeFeed } from './path';
import { thinLine } from './thin';
import { motionTime, spentOn } from './time';

const machine = {
  maxFeed: { x: 6000, y: 6000, z: 3000 },
  acceleration: { x: 500, y: 500, z: 200 },
  junctionDeviation: 0.01,
};

function pathOf(points: [number, number, number, number][]): Float64Array {
  const p = new Path();
  for (const [x, y, z, f] of points) f > 0 ? p.feed(x, y, z, f) : p.rapid(x, y, z);
  return p.data;
}

// Trapezoid motion in closed form: t = L / v + v / a while L >= v^2 / a, else 2 sqrt(L / a). Any text on kinematics.
test.each([
  [100, 3000],
  [1, 3000],
  [0.2, 1200],
])('one straight move of %d mm at %d mm/min takes the time of a trapezoid', (L, feed) => {
  const v = feed / 60;
  const a = 500;
  const expected = L >= (v * v) / a ? L / v + v / a : 2 * Math.sqrt(L / a);
  const t = motionTime(
    pathOf([
      [0, 0, 0, 0],
      [L, 0, 0, feed],
    ]),
    machine,
  );
  expect(t.seconds).toBeCloseTo(expected, 9);
  expect(t.naiveSeconds).toBeCloseTo(L / v, 9);
});

test('splitting a straight move changes nothing; a square corner costs its junction speed', () => {
  const whole = motionTime(
    pathOf([
      [0, 0, 0, 0],
      [60, 0, 0, 3000],
    ]),
    machine,
  ).seconds;
  const parts = motionTime(
    pathOf([
      [0, 0, 0, 0],
      [7, 0, 0, 3000],
      [8, 0, 0, 3000],
      [60, 0, 0, 3000],
    ]),
    machine,
  ).seconds;
  expect(parts).toBeCloseTo(whole, 9);
  // v_j^2 = a d s / (1 - s) with s = sin 45 degrees; the corner's acceleration is sqrt 2 times an axis's.
  const s = Math.SQRT1_2;
  const vj = Math.sqrt((500 * Math.SQRT2 * 0.01 * s) / (1 - s));
  const v = 50;
  const leg = 50 / v + v / (2 * 500) + (v - vj) ** 2 / (2 * 500 * v);
  const corner = motionTime(
    pathOf([
      [0, 0, 0, 0],
      [50, 0, 0, 3000],
      [50, 50, 0, 3000],
    ]),
    machine,
  ).seconds;
  expect(corner).toBeCloseTo(2 * leg, 6);
});

// v_j^2 = a d s / (1 - s), s the sine of half the angle between the legs (usual look-ahead model; from memory). The corner's own
// acceleration is what the axes along the change of direction allow.
test.each([20, 45, 120, 150])('a corner that turns by %d degrees is passed at its junction speed', (turn) => {
  const t = (turn * Math.PI) / 180;
  const [ux, uy] = [Math.cos(t), Math.sin(t)];
  const change = Math.hypot(ux - 1, uy);
  const a = Math.min(500 / Math.abs((ux - 1) / change), 500 / (uy / change));
  const s = Math.cos(t / 2);
  const v = 50;
  const vj = Math.min(v, Math.sqrt((a * 0.01 * s) / (1 - s)));
  const along = 500 / Math.max(Math.abs(ux), Math.abs(uy));
  // From rest to speed, and down to the junction's; then up again and down to rest, on an axis that is slower askew.
  const leg = (accel: number) => {
    const ends = (v * v) / (2 * accel) + (v * v - vj * vj) / (2 * accel);
    return v / accel + (v - vj) / accel + (60 - ends) / v;
  };
  const found = motionTime(
    pathOf([
      [0, 0, 0, 0],
      [60, 0, 0, 3000],
      [60 + 60 * ux, 60 * uy, 0, 3000],
    ]),
    machine,
  ).seconds;
  expect(found).toBeCloseTo(leg(500) + leg(along), 6);
});

test('a path that turns back stops there, and a short last move slows what comes before it', () => {
  const one = (L: number) => L / 50 + 50 / 500;
  const back = motionTime(
    pathOf([
      [0, 0, 0, 0],
      [40, 0, 0, 3000],
      [0, 0, 0, 3000],
    ]),
    machine,
  ).seconds;
  expect(back).toBeCloseTo(2 * one(40), 6);
  const short = motionTime(
    pathOf([
      [0, 0, 0, 0],
      [39.95, 0, 0, 3000],
      [40, 0, 0, 3000],
    ]),
    machine,
  ).seconds;
  expect(short).toBeCloseTo(one(40), 6);
});

test('rapids go at the slowest axis that takes part', () => {
  const t = motionTime(
    pathOf([
      [0, 0, 0, 0],
      [0, 0, 100, 0],
    ]),
    machine,
  );
  expect(t.rapidSeconds).toBeCloseTo(100 / 50 + 50 / 200, 9);
  expect(t.rapidLength).toBe(100);
});

test('a sinking move never sinks faster than the plunge feed', () => {
  expect(sinkingFeed(1800, 300, -1, 1)).toBe(300);
  expect(sinkingFeed(1800, 300, -1, 10)).toBe(1800);
  expect(sinkingFeed(1800, 300, 1, 1)).toBe(1800);
  // Down a slope: at 45 degrees and steeper the plunge feed downwards, at half that slope's tangent twice as much, upwards the feed.
  expect(slopeFeed(1800, 300, -1, 0)).toBe(300);
  expect(slopeFeed(1800, 300, -1, 1)).toBe(Math.floor(300 * Math.SQRT2));
  expect(slopeFeed(1800, 300, -1, 2)).toBe(Math.floor(600 * Math.sqrt(5)));
  expect(slopeFeed(1800, 300, -1, 4)).toBe(1800);
  expect(slopeFeed(1800, 300, 1, 1)).toBe(1800);
});

test('a thinned line stays between the surface and the tolerance at every sample', () => {
  fc.assert(
    fc.property(
      fc.array(fc.double({ min: -5, max: 5, noNaN: true }), { minLength: 1, maxLength: 200 }),
      fc.constantFrom(0.1, 1, 10),
      fc.constantFrom(0.01, 0.5),
      (raw, smooth, tolerance) => {
        const z = Float64Array.from(raw, (v, i) => v / smooth + Math.sin(i / 7));
        const [p, h] = [new Float64Array(z.length + 1), new Float64Array(z.length + 1)];
        const n = thinLine(z, z.length, 0.1, tolerance, p, h);
        expect(n).toBeLessThanOrEqual(z.length);
        for (let i = 0, k = 0; i < z.length; i++) {
          const x = i * 0.1;
          while (k + 2 < n && p[k + 1] < x - 1e-9) k++;
          const y = n === 1 ? h[0] : h[k] + ((h[k + 1] - h[k]) * (x - p[k])) / (p[k + 1] - p[k]);
          expect(y - z[i]).toBeGreaterThanOrEqual(-1e-9);
          expect(y - z[i]).toBeLessThanOrEqual(tolerance + 1e-9);
        }
      },
    ),
  );
});

test('a hop goes up before it goes across', () => {
  const p = new Path();
  p.rapid(0, 0, -3);
  p.hop(5, 5, 1, -2);
  expect([...p.data]).toEqual([0, 0, -3, 0, 0, 0, 1, 0, 5, 5, 1, 0, 5, 5, -2, 0]);
});

test('moves carry what they are, and the time goes to each of them', () => {
  const path = new Path();
  path.hop(10, 10, 5, 1);
  path.feed(10, 10, -2, 300, 'plunge');
  path.feed(60, 10, -2, 1200);
  path.feed(60, 20, -2, 1200, 'link');
  path.hop(10, 40, 5, 1);
  path.rapid(10, 40, 5);
  const kinds = Array.from(path.kinds, (k) => MOVES[k]);
  expect(kinds).toEqual(['approach', 'approach', 'plunge', 'cut', 'link', 'retract', 'link', 'approach', 'retract']);
  const slow = {
    maxFeed: { x: 3000, y: 3000, z: 1500 },
    acceleration: { x: 200, y: 200, z: 100 },
    junctionDeviation: 0.02,
  };
  const { seconds, spent } = motionTime(path.data, slow, path.kinds);
  expect(Object.values(spent).reduce((s, t) => s + t, 0)).toBeCloseTo(seconds, 9);
  expect(spent.cut).toBeGreaterThan(2.5);
  const { cutting, entering, between } = spentOn({ spent });
  expect(cutting + entering + between).toBeCloseTo(seconds, 9);
  expect(entering).toBe(spent.plunge);
  expect(motionTime(path.data, slow).spent).toEqual({});
});

test('of two places that are said without a move between them the last one holds', () => {
  const path = new Path();
  path.rapid(0, 0, 5);
  path.at(['level', 1, 2]);
  path.at(['level', 2, 2]);
  path.feed(0, 0, -1, 300);
  expect(path.marks).toEqual([{ move: 1, place: [['level', 2, 2]] }]);
});
