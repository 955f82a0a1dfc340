import fc from 'fast-check';
import { expect, test } from 'vitest';
import { profileHeight, profileOf } from '../cutter/cutter';
import { DRAWER } from '../doc/defaults';
import { distanceInside } from '../field/distance';
import { boardGrid, cellPlace, type HeightField, makeField } from '../field/height-field';
import { ENGAGED, VOLUME } from '../kernels/engagement';
import { engageStock, removeStock } from '../kernels/stock-removal';
import { partsOf } from '../motion/ease';
import { MOVES, Path } from '../motion/path';
import { HEIGHTS } from '../plan/plan-test-kit';
import { loopsOf } from './loops';
import { cutLoops } from './rings';
import { RIB, Wood } from './wood';

const bit = (id: string) => DRAWER.find((c) => c.id === id)!;
const uneven = (): HeightField => {
  const f = makeField(boardGrid(24, 16, 0.25));
  for (let k = 0; k < f.data.length; k++) f.data[k] = -2 - Math.sin(k * 12.9898) * 1.5;
  return f;
};

test('wood is met where a cell under the bit stands over it, after all that the path has cut since (brute force, property)', () => {
  const place = fc.record({
    x: fc.integer({ min: 0, max: 2400 }).map((v) => v / 100),
    y: fc.integer({ min: 0, max: 1600 }).map((v) => v / 100),
    z: fc.integer({ min: -500, max: 0 }).map((v) => v / 100),
  });
  fc.assert(
    fc.property(
      fc.constantFrom('em3', 'ball3', 'v60'),
      fc.array(place, { minLength: 2, maxLength: 5 }),
      place,
      (id, way, at) => {
        // An end mill's ways lie side by side.
        const less = id === 'em3' ? RIB : 0;
        const f = uneven();
        const path = new Path();
        path.rapid(0, 0, 5);
        const wood = new Wood(f, bit(id), path, less);
        for (const p of way) path.feed(p.x, p.y, p.z, 1000);
        const profile = profileOf(bit(id));
        // By its definition: every cell lies at the lowest that the bit came over it, here in 400 steps a move.
        let over = -Infinity;
        const d = path.data;
        for (let k = 0; k < f.data.length; k++) {
          const c = cellPlace(f, k);
          const away = Math.hypot(c.x - at.x, c.y - at.y);
          if (away > profile.R) continue;
          let top = f.data[k];
          for (let m = 1; m < path.moves; m++) {
            for (let s = 0; s <= 400; s++) {
              const [px, py, pz] = [0, 1, 2].map(
                (a) => d[4 * m - 4 + a] + ((d[4 * m + a] - d[4 * m - 4 + a]) * s) / 400,
              );
              const r = Math.hypot(px - c.x, py - c.y);
              if (r <= profile.R - less * f.cell) top = Math.min(top, pz + profileHeight(profile, r));
            }
          }
          over = Math.max(over, top - at.z - profileHeight(profile, away));
        }
        // Steps know the lowest to two hundredths: nearer than that either answer is right.
        fc.pre(Math.abs(over - 0.01) > 0.02);
        expect(wood.meets(at.x, at.y, at.z, 0.01)).toBe(over > 0.01);
      },
    ),
    { numRuns: 12 },
  );
});

test('wood that stands beside a bit is met up to its own radius', () => {
  const mill = bit('em6');
  const R = mill.diameter / 2;
  // A post of one cell, 3 mm high over ground that is clear.
  const f = makeField(boardGrid(24, 16, 0.25), -5);
  const post = 20 * f.width + 40;
  f.data[post] = -2;
  const { x, y } = cellPlace(f, post);
  const wood = new Wood(f, mill, new Path());
  for (const [away, met] of [
    [0, true],
    [0.6 * R, true],
    [0.95 * R, true],
    [1.05 * R, false],
  ] as const) {
    expect(wood.meets(x + away, y, -4, 0.01), `${away} mm away`).toBe(met);
    expect(wood.meets(x, y - away, -4, 0.01), `${away} mm away`).toBe(met);
    // Over its top nothing is met wherever the bit is.
    expect(wood.meets(x + away, y, -1.9, 0.01)).toBe(false);
  }
});

test('loops on which nothing stands any more are left out, long ways in air are hopped over, and no more is left than by going round them all', () => {
  const mill = bit('em6');
  const R = mill.diameter / 2;
  // A board of 160 x 60 mm at -1, of which the right part has been cut down to -3 but for a strip along its upper edge.
  const stands = makeField(boardGrid(160, 60, 0.2), -1);
  const tip = new Uint8Array(stands.data.length);
  for (let k = 0; k < tip.length; k++) {
    const { x, y } = cellPlace(stands, k);
    if (x > 60 && y < 45) stands.data[k] = -3;
    if (x > 10 && x < 150 && y > 10 && y < 50) tip[k] = 1;
  }
  const z = -2;
  const grid = stands;
  const depth = distanceInside(tip, grid.width, grid.height);
  const cut = (hop: number) => {
    const path = new Path();
    const clear = { ...stands, data: new Float32Array(stands.data.length) };
    const level = { z, depth, grid, wood: new Wood(stands, mill, path, RIB), hop };
    const loops = loopsOf(level, 2.5, 0.1, Infinity).flat();
    path.rapid(0, 0, 5);
    cutLoops({ path, cutter: mill, clear, heights: HEIGHTS }, level, loops, {
      stepover: 2.5,
      rampAngle: 10,
      milling: 'either',
    });
    expect(loops.every((l) => l.done)).toBe(true);
    return { path, loops };
  };
  const { path, loops } = cut(25);

  const left = { ...stands, data: stands.data.slice() };
  const { segments, move } = partsOf(path, 1, 1);
  const engaged = engageStock(left, profileOf(mill), segments, 0.02);
  // No longer in air than a hop is worth, and a part of a loop beside it.
  let [air, longest] = [0, 0];
  for (let o = 0; o < move.length; o++) {
    const q = 4 * (1 + move[o]);
    const cutting = MOVES[path.kinds[1 + move[o]]] === 'cut' && path.data[q + 3] > 0;
    air = cutting && engaged[o * ENGAGED + VOLUME] < 1e-3 ? air + 1 : 0;
    longest = Math.max(longest, air);
  }
  expect(longest).toBeLessThan(25 + R);

  // Round all of them: by the same kernel, which has its own tests.
  const whole = { ...stands, data: stands.data.slice() };
  const all = new Path();
  for (const { xy } of loops) {
    all.rapid(xy[0], xy[1], 5);
    for (let i = 0; i <= xy.length / 2; i++) {
      const v = i % (xy.length / 2);
      all.feed(xy[2 * v], xy[2 * v + 1], z, 1000, 'cut');
    }
  }
  removeStock(whole, profileOf(mill), partsOf(all, 0, Infinity).segments);
  let most = -Infinity;
  for (let k = 0; k < left.data.length; k++) most = Math.max(most, left.data[k] - whole.data[k]);
  expect(most).toBeLessThan(0.011);
  const length = (p: Path) => {
    let sum = 0;
    for (let i = 1; i < p.moves; i++)
      if (MOVES[p.kinds[i]] === 'cut')
        sum += Math.hypot(p.data[4 * i] - p.data[4 * i - 4], p.data[4 * i + 1] - p.data[4 * i - 3]);
    return sum;
  };
  // Three fifths of the ground lie deeper than the level.
  expect(length(path)).toBeLessThan(0.65 * length(all));
});
