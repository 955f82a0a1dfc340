import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { DRAWER } from '../doc/defaults';
import { enterWood, hasRoom, headOf } from './enter';
import { shortestHop } from './link';
import { MOVES, Path } from './path';
import { motionTime } from './time';

const ball = DRAWER.find((c) => c.id === 'ball3')!;
const mill = DRAWER.find((c) => c.id === 'em6')!;

/** A straight line along x with so many points, and the path that has come to stand over its first. */
function over(long: number, n: number, z: number) {
  const points = Float64Array.from(Array.from({ length: n }, (_, i) => [(long * i) / (n - 1), 7, z]).flat());
  const path = new Path();
  path.rapid(0, 7, 5);
  return { points, path };
}

/** The moves of a path from the second on: how far down and aside each goes, and what it is. */
function movesOf({ data, kinds, moves }: Path) {
  return Array.from({ length: moves - 1 }, (_, k) => {
    const q = 4 * (k + 1);
    return {
      down: data[q - 2] - data[q + 2],
      aside: Math.hypot(data[q] - data[q - 4], data[q + 1] - data[q - 3]),
      x: data[q],
      z: data[q + 2],
      kind: MOVES[kinds[k + 1]],
    };
  });
}

describe('going into the wood along an open line', () => {
  test('by a ramp that ends at its beginning, no steeper than its angle and no longer than it needs (property)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 70, max: 3000 }),
        fc.integer({ min: 2, max: 40 }),
        fc.integer({ min: 2, max: 20 }),
        fc.integer({ min: 1, max: 80 }),
        (long, n, angle, deep) => {
          const { points, path } = over(long / 10, n, -deep / 10);
          enterWood(path, mill, points, { closed: false, top: 0, angle });
          expect([path.x, path.y, path.z]).toEqual([0, 7, -deep / 10]);
          const slope = Math.tan((angle * Math.PI) / 180);
          let gone = 0;
          for (const m of movesOf(path)) {
            // Straight down in air alone.
            if (m.aside === 0) expect(m.z).toBeGreaterThanOrEqual(0);
            else expect(m.down).toBeLessThanOrEqual(m.aside * slope + 1e-9);
            gone += m.aside;
          }
          // There and back once where the line is long enough; a diameter at least.
          const needs = Math.max(2 * mill.diameter, (deep / 10 + 0.3) / slope);
          if (long / 10 >= needs / 2) expect(gone).toBeLessThanOrEqual(needs * (1 + 1e-5));
        },
      ),
    );
  });

  test('straight down through what the bit may plunge into, in air before', () => {
    const { points, path } = over(20, 2, -5);
    enterWood(path, ball, points, { closed: false, top: -3.5, angle: 4 });
    expect(movesOf(path).map((m) => [m.kind, Math.round(m.z * 10) / 10])).toEqual([
      ['plunge', -3.5],
      ['plunge', -5],
    ]);
  });

  test('not over a wall that stands in the way: it turns round before it', () => {
    const points = Float64Array.of(0, 7, -4, 5, 7, -4, 5, 7, 2, 8, 7, 2, 8, 7, -4, 40, 7, -4);
    const path = new Path();
    path.rapid(0, 7, 5);
    enterWood(path, ball, points, { closed: false, top: 0, angle: 4 });
    expect(Math.max(...movesOf(path).map((m) => m.x))).toBe(5);
    expect(path.z).toBe(-4);
  });

  test('nor over one that is lower than where it begins, but higher than it may plunge behind it', () => {
    // A wall 3 mm high, 1 mm under the height that the ramp begins at, and a slope of 45 degrees that is no wall.
    for (const [foot, most] of [
      [5, 5],
      [2, 8],
    ]) {
      const points = Float64Array.of(0, 7, -4, foot, 7, -4, 5, 7, -1, 8, 7, -1, 8, 7, -1, 40, 7, -1);
      const path = new Path();
      path.rapid(0, 7, 5);
      expect(hasRoom(path, ball, points, 0)).toBe(true);
      enterWood(path, ball, points, { closed: false, top: 0, angle: 4 });
      const reached = Math.max(...movesOf(path).map((m) => m.x));
      if (foot === 5) expect(reached).toBe(most);
      else expect(reached).toBeGreaterThan(most);
      expect(path.z).toBe(-4);
    }
  });

  test('has room for it where it runs on for a quarter of a diameter before a wall, or may plunge', () => {
    const path = new Path();
    path.rapid(0, 7, 5);
    const line = (long: number) => Float64Array.of(0, 7, -4, long, 7, -4, long, 7, 3);
    expect(hasRoom(path, ball, line(0.26 * ball.diameter), 0)).toBe(true);
    expect(hasRoom(path, ball, line(0.24 * ball.diameter), 0)).toBe(false);
    expect(hasRoom(path, ball, line(0.1), -4 + ball.maxPlungeDepth)).toBe(true);
  });

  test('on a line too short for a ramp no deeper at once than it may plunge, along it and back in between', () => {
    const { points, path } = over(2, 5, -5);
    enterWood(path, ball, points, { closed: false, top: 0, angle: 4 });
    const moves = movesOf(path);
    for (const m of moves) if (m.z < 0 && m.aside === 0) expect(m.down).toBeLessThanOrEqual(ball.maxPlungeDepth + 1e-9);
    expect(Math.max(...moves.map((m) => m.x))).toBe(2);
    expect(moves.length).toBeLessThan(60);
    expect(path.z).toBe(-5);
  });
});

test('the head of a line ends where it is asked to, in the middle of a move', () => {
  expect(Array.from(headOf(Float64Array.of(0, 0, 0, 10, 0, -10, 20, 0, 0), 4))).toEqual([0, 0, 0, 4, 0, -4]);
  expect(Array.from(headOf(Float64Array.of(0, 0, 0, 10, 0, -10), 40))).toEqual([0, 0, 0, 10, 0, -10]);
});

test('a hop pays from where the look-ahead model says so, and never where the machine is no quicker than the feed', () => {
  const machine = {
    maxFeed: { x: 20000, y: 20000, z: 8000 },
    acceleration: { x: 1500, y: 1500, z: 1000 },
    junctionDeviation: 0.01,
  };
  const bit = { feed: 1800, plunge: 500 };
  const hop = shortestHop(machine, bit, 1, 0.5);
  const seconds = (...moves: number[]) => motionTime(Float64Array.of(0, 0, 0, 0, ...moves), machine).seconds;
  for (const [l, pays] of [
    [hop + 0.01, true],
    [hop - 0.6, false],
  ] as const) {
    const stay = seconds(20, 0, 0, 1800, 20 + l, 0, 0, 1800, 40 + l, 0, 0, 1800);
    const up = [20, 0, 0, 1800, 20, 0, 1, 0, 20 + l, 0, 1, 0, 20 + l, 0, 0.5, 0, 20 + l, 0, 0, 500, 40 + l, 0, 0, 1800];
    expect(seconds(...up) < stay).toBe(pays);
  }
  const slow = { ...machine, maxFeed: { x: 1800, y: 1800, z: 600 } };
  expect(shortestHop(slow, bit, 1, 0.5)).toBe(Infinity);
});
