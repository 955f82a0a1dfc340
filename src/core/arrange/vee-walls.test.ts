import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Layer } from '../doc/layer';
import { boardGrid } from '../field/height-field';
import type { Polygon } from '../outline/polygon';
import { Arrangement } from './engine';
import { newShape } from './new-layer';
import { meetingOf, reachOf, WallFoot, type Walls } from './vee-walls';

/** A star of uneven rays. */
function star(rays: number[], r: number): Polygon {
  const n = rays.length;
  const ring = new Float64Array(2 * n);
  rays.forEach((share, i) => {
    const a = (2 * Math.PI * i) / n;
    ring.set([share * r * Math.cos(a), share * r * Math.sin(a)], 2 * i);
  });
  return [ring];
}

const wallsOn = (polygon: Polygon, angle: number, deepest: number): Walls => ({
  polygon,
  fall: 1 / Math.tan((angle * Math.PI) / 360),
  deepest,
  reach: reachOf(angle, deepest),
});

/** The walls by their definition: the highest of the cones that hang from a dense row of places along the outline. */
function plainly({ polygon, fall }: Walls, ground: (x: number, y: number) => number, x: number, y: number): number {
  let high = -Infinity;
  for (const r of polygon) {
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) {
      const n = Math.ceil(Math.hypot(r[i] - r[q], r[i + 1] - r[q + 1]) / 0.004);
      for (let k = 0; k <= n; k++) {
        const [px, py] = [r[q] + ((r[i] - r[q]) * k) / n, r[q + 1] + ((r[i + 1] - r[q + 1]) * k) / n];
        high = Math.max(high, ground(px, py) - fall * Math.hypot(px - x, py - y));
      }
    }
  }
  return high;
}

const tenth = (min: number, max: number) => fc.integer({ min: min * 10, max: max * 10 }).map((v) => v / 10);

describe('walls of grooves', () => {
  test('are the highest cones that hang from the ground along the outline', () => {
    fc.assert(
      fc.property(
        fc.array(tenth(0.4, 1), { minLength: 5, maxLength: 12 }),
        fc.constantFrom(30, 60, 90),
        tenth(-0.3, 0.3),
        tenth(-0.3, 0.3),
        fc.array(fc.tuple(tenth(-2, 2), tenth(-2, 2)), { minLength: 5, maxLength: 5 }),
        (rays, angle, sx, sy, places) => {
          const walls = { ...wallsOn(star(rays, 2), angle, 9), reach: 9 };
          const ground = (x: number, y: number) => 3 + sx * x + sy * y;
          const foot = new WallFoot(walls, ground);
          // On level ground the distance alone says it, and no heights are kept.
          if (foot.level) return;
          for (const [x, y] of places) {
            // A plane's slope is exact along each piece, and so is the closed form: what differs are the definition's own steps.
            const plain = plainly(walls, ground, x, y);
            expect(foot.at(x, y, 9)).toBeGreaterThanOrEqual(plain - 1e-9);
            expect(foot.at(x, y, 9)).toBeLessThanOrEqual(plain + 0.01);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  test('of a straight groove on a slope meet where both are equally high, as deep as on level ground below their middle', () => {
    const polygon = [Float64Array.of(-1, -20, 1, -20, 1, 20, -1, 20)];
    const walls = wallsOn(polygon, 60, 4);
    const slope = 0.25;
    const foot = new WallFoot(walls, (x) => slope * x);
    expect(foot.level).toBe(false);
    const [x, y] = meetingOf(foot, walls, 0, 0, 1);
    expect(x).toBeCloseTo(-slope / walls.fall, 5);
    expect(y).toBeCloseTo(0, 6);
    expect(foot.at(x, y, 9)).toBeCloseTo(-walls.fall, 5);
    // The edges hold: a cone that stands there meets the ground just at both.
    for (const e of [-1, 1]) expect(foot.at(x, y, 9) + walls.fall * Math.abs(e - x)).toBeCloseTo(slope * e, 5);
    expect(new WallFoot(walls, () => 2).level).toBe(true);
  });

  test('a blunt tip lies as much higher as its flat is wide', () => {
    const walls = wallsOn([Float64Array.of(-1, -20, 1, -20, 1, 20, -1, 20)], 60, 4);
    const foot = new WallFoot(walls, (_, y) => y / 1000);
    expect(foot.at(0, 0, 9, 0.2)).toBeCloseTo(-walls.fall * 0.8, 5);
    expect(foot.at(0.95, 0, 9, 0.2)).toBeCloseTo(0, 3);
  });
});

describe('grooves over a dome', () => {
  const board = { x: 60, y: 40 };
  const layers = (at: number): Layer[] => [
    {
      ...newShape({ id: 'dome', name: 'Dome' }, { kind: 'oval' }, { kind: 'dome' }, board),
      size: { x: 40, y: 30 },
      centre: { x: at, y: 20 },
      rise: 8,
    },
    {
      ...newShape({ id: 'cut', name: 'Cut' }, { kind: 'rectangle' }, { kind: 'vee', angle: 60 }, board),
      size: { x: 34, y: 2.4 },
      centre: { x: 30, y: 24 },
      join: 'carve',
      lift: 0,
      rise: 3,
    },
  ];
  const seat = { mode: 'raised', skin: 0, drop: 0, press: null } as const;
  const made = () => new Arrangement(boardGrid(board.x, board.y, 0.2), () => ({}));

  test('change with the ground around them, and windows that are composed again are as all composed at once', () => {
    const one = made();
    one.update(layers(30), seat);
    const first = one.surface.z.slice();
    one.update(layers(31.3), seat);
    const all = made();
    all.update(layers(31.3), seat);
    expect(one.surface.z).toEqual(all.surface.z);
    expect(first).not.toEqual(one.surface.z);
  });

  test('change beyond the window of a bump that moves on their outline', () => {
    const bump = (x: number): Layer[] => {
      const [dome, cut] = layers(30);
      const layer: Layer = {
        ...newShape({ id: 'bump', name: 'Bump' }, { kind: 'circle' }, { kind: 'dome' }, board),
        size: { x: 3, y: 3 },
        centre: { x, y: 26.4 },
        rise: 1,
        join: 'stack',
      };
      return [dome, layer, cut];
    };
    const one = made();
    one.update(bump(25), seat);
    one.update(bump(26), seat);
    const all = made();
    all.update(bump(26), seat);
    expect(one.surface.z).toEqual(all.surface.z);
  });

  test('stay below the ground, and no deeper than their deepest', () => {
    const with_ = made();
    with_.update(layers(30), seat);
    const without = made();
    without.update(layers(30).slice(0, 1), seat);
    let deepest = 0;
    for (let k = 0; k < with_.surface.z.length; k++) {
      const d = without.surface.z[k] - with_.surface.z[k];
      expect(d).toBeGreaterThanOrEqual(0);
      deepest = Math.max(deepest, d);
    }
    expect(deepest).toBeGreaterThan(1.5);
    expect(deepest).toBeLessThanOrEqual(3 + 1e-5);
  });
});
