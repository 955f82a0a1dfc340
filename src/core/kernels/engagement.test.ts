import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Profile, profileHeight } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import { cutPlainly, SHAPES, sweptOver } from './dense-test-kit';
import { AREA, BITE, bitesOf, ENGAGED, HIGH, joinEngaged, LEFT, RIGHT, sideOf, VOLUME } from './engagement';
import { engageStock, removeStock } from './stock-removal';

function board(width: number, height: number, cell = 0.1, top = 0): HeightField {
  return { width, height, cell, originX: 0.03, originY: -0.05, data: new Float32Array(width * height).fill(top) };
}

const [flat, ball] = SHAPES;
const place = fc.double({ min: 0.8, max: 3.2, noNaN: true });
const depth = fc.double({ min: -2, max: 0.5, noNaN: true });

test('volume, bite, offsets across and area of single moves are the plain definition, for every shape', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...SHAPES),
      fc.tuple(place, place, depth),
      fc.tuple(place, place, depth),
      fc.constantFrom('free', 'along', 'down'),
      fc.double({ min: 0, max: 2, noNaN: true }),
      (p, a, b, kind, step) => {
        const f = board(40, 40);
        // A step in the wood, so that what is met is not level.
        for (let k = 0; k < f.data.length; k++) if (k % 40 > 22) f.data[k] = -step;
        const s = [...a, ...b, 0];
        if (kind !== 'free') s[4] = s[1];
        if (kind === 'down') [s[3], s[5]] = [s[0], Math.min(s[2], s[5]) - 0.1];
        const g = { ...f, data: f.data.slice() };
        const plain = cutPlainly(g, p, s);
        const told = engageStock(f, p, Float64Array.from(s), 0);
        // A cell at the cutter's upright rim may fall either way: one ring of cells is the tolerance where there is one.
        const rim = f.data.reduce((n, v, k) => n + (Math.abs(v - g.data[k]) > 1e-3 ? 1 : 0), 0);
        const cell = f.cell ** 2;
        expect(Math.abs(told[VOLUME] - plain.volume)).toBeLessThan(plain.volume * 2e-3 + 3e-3 + rim * cell * 2.5);
        expect(Math.abs(told[AREA] - plain.area)).toBeLessThan((rim + (0.04 * plain.area) / cell + 3) * cell);
        if (rim === 0 && plain.volume > 0.05) {
          expect(Math.abs(told[BITE] - plain.bite)).toBeLessThan(Math.abs(s[5] - s[2]) * 0.02 + 2e-3);
        }
        if (rim === 0 && plain.across && plain.volume > 0.05 && kind !== 'down') {
          expect(Math.abs(told[LEFT] - p.R - 1 - plain.across.to)).toBeLessThan(0.11);
          expect(Math.abs(told[RIGHT] - p.R - 1 + plain.across.from)).toBeLessThan(0.11);
        }
      },
    ),
    { numRuns: 25, endOnFailure: true },
  );
});

test('a slot, a lap that takes half the width, and a plunge: closed forms', () => {
  const f = board(300, 80);
  const slot = engageStock(f, flat, Float64Array.from([2, 2, -1.5, 26, 2, -1.5, 0]), 0);
  const area = 2 * flat.R * 24 + Math.PI * flat.R ** 2;
  expect(slot[VOLUME]).toBeCloseTo(area * 1.5, -1);
  expect(Math.abs(slot[VOLUME] / (area * 1.5) - 1)).toBeLessThan(0.01);
  expect(slot[BITE]).toBeCloseTo(1.5, 4);
  expect(Math.abs(sideOf(slot, 0, flat.R) - 2 * flat.R)).toBeLessThan(0.11);
  // A second lap beside it, half a diameter over: its outer half is wood.
  const lap = engageStock(f, flat, Float64Array.from([2, 2 + flat.R, -1.5, 24, 2 + flat.R, -1.5, 0]), 0);
  expect(Math.abs(sideOf(lap, 0, flat.R) - flat.R)).toBeLessThan(0.11);
  expect(Math.abs(lap[VOLUME] / ((flat.R * 22 + (Math.PI * flat.R ** 2) / 2) * 1.5) - 1)).toBeLessThan(0.02);
  const plunge = engageStock(f, flat, Float64Array.from([15, 6, 1, 15, 6, -2, 0]), 0);
  expect(Math.abs(plunge[AREA] / (Math.PI * flat.R ** 2) - 1)).toBeLessThan(0.03);
  expect(Math.abs(plunge[VOLUME] / (Math.PI * flat.R ** 2 * 2) - 1)).toBeLessThan(0.03);
  expect(plunge[BITE]).toBeCloseTo(2, 4);
});

test('a V bit that only its tip can meet tells the width that it cuts, not the width that it has', () => {
  // Less of the cone than its radius reaches the wood: what is left out of the search is not left out of the offsets.
  const vee = SHAPES[4];
  const f = board(80, 80);
  const told = engageStock(f, vee, Float64Array.from([2, 4, -0.6, 6, 4, -0.6, 0]), 0);
  expect(Math.abs(sideOf(told, 0, vee.R) - 2 * (vee.p0 + 0.6 / vee.p2))).toBeLessThan(0.21);
});

/** Moves of an arc round (x, y) in even steps. */
function arc(x: number, y: number, r: number, from: number, to: number, z: (t: number) => number, n: number): number[] {
  const at = (i: number) => {
    const t = i / n;
    const a = from + (to - from) * t;
    return [x + r * Math.cos(a), y + r * Math.sin(a), z(t)];
  };
  return Array.from({ length: n }, (_, i) => [...at(i), ...at(i + 1), 0]).flat();
}

test('a ball that sinks cuts a cap, a helix of a flat end a cylinder less its core: volumes of solid geometry', () => {
  const h = 1.1;
  const cap = engageStock(board(80, 80), ball, Float64Array.from([4, 4, 1, 4, 4, -h, 0]), 0);
  expect(Math.abs(cap[VOLUME] / ((Math.PI * h * h * (3 * ball.R - h)) / 3) - 1)).toBeLessThan(5e-3);
  // Three turns of 0.5 mm and one level one, radius 2 mm: a ring between 0.8 and 3.2 mm, 1.5 mm deep.
  const f = board(100, 100, 0.08);
  const helix = [
    ...arc(4, 4, 2, 0, 6 * Math.PI, (t) => -1.5 * t, 540),
    ...arc(4, 4, 2, 0, 2 * Math.PI, () => -1.5, 180),
  ];
  const told = engageStock(f, flat, Float64Array.from(helix), 0);
  let volume = 0;
  for (let k = VOLUME; k < told.length; k += ENGAGED) volume += told[k];
  const ring = Math.PI * ((2 + flat.R) ** 2 - (2 - flat.R) ** 2) * 1.5;
  expect(Math.abs(volume / ring - 1)).toBeLessThan(5e-3);
});

test('outside and inside arcs of a radial bite: the side met is that bite, whichever way they bend', () => {
  const took = 0.6;
  for (const outside of [true, false]) {
    const f = board(220, 220);
    const wall = outside ? 4 : 6;
    for (let k = 0; k < f.data.length; k++) {
      const [x, y] = [f.originX + (k % 220) * 0.1 - 11, f.originY + Math.floor(k / 220) * 0.1 - 11];
      const r = Math.hypot(x, y);
      if (outside ? r > wall + took : r < wall - took) f.data[k] = -2;
    }
    const r = outside ? wall + flat.R : wall - flat.R;
    const told = engageStock(f, flat, Float64Array.from(arc(11, 11, r, 0.2, 3, () => -2, 60)), 0);
    // After it has run in. Offsets are measured straight across: the wall bends away from that by less than a third of a millimetre within the radius.
    for (let i = 15; i < 55; i++) expect(Math.abs(sideOf(told, i, flat.R) - took)).toBeLessThan(0.3);
    let volume = 0;
    for (let i = 20; i < 50; i++) volume += told[i * ENGAGED + VOLUME];
    const mean = (wall + (outside ? took / 2 : -took / 2)) * ((2.8 * 30) / 60) * took * 2;
    expect(Math.abs(volume / mean - 1)).toBeLessThan(0.03);
  }
});

/** The bite of the whole cutter, cell by cell: the highest wood over the tip wherever the cutter cuts, whoever takes it in the end. */
function wholePlainly(f: HeightField, p: Profile, s: number[]): number {
  let most = 0;
  for (let k = 0; k < f.data.length; k++) {
    const [x, y] = [f.originX + (k % f.width) * f.cell, f.originY + Math.floor(k / f.width) * f.cell];
    const swept = sweptOver(p, s, x, y);
    if (swept && f.data[k] - swept.z > 1e-4) most = Math.max(most, f.data[k] - swept.tip);
  }
  return most;
}

test('bites of short moves in a straight chain never fall under those of the whole cutter, and hardly over', () => {
  let over = 0;
  let n = 0;
  fc.assert(
    fc.property(
      fc.constantFrom(0.15, 0.3, 1),
      fc.double({ min: 0, max: 1.2, noNaN: true }),
      fc.double({ min: 0.4, max: 2.4, noNaN: true }),
      (step, turn, rise) => {
        const f = board(46, 36);
        for (let k = 0; k < f.data.length; k++) if (k % 46 > 24) f.data[k] = -rise;
        const at = (l: number) => [1 + l * Math.cos(turn), 1 + l * Math.sin(turn), -1.2 + 0.5 * Math.sin(l)];
        const moves = Array.from({ length: Math.floor(1.8 / step) }, (_, i) => [
          ...at(i * step),
          ...at((i + 1) * step),
          0,
        ]);
        const g = { ...f, data: f.data.slice() };
        const segments = Float64Array.from(moves.flat());
        const bites = bitesOf(ball, segments, engageStock(g, ball, segments, 0));
        moves.forEach((s, i) => {
          const plain = wholePlainly(f, ball, s);
          cutPlainly(f, ball, s);
          expect(bites[i]).toBeGreaterThan(plain - 0.03 - Math.abs(s[5] - s[2]));
          over += Math.max(0, bites[i] - plain);
          n++;
        });
      },
    ),
    { numRuns: 6, endOnFailure: true },
  );
  expect(over / n).toBeLessThan(0.2);
});

test('of wood higher than a limit the width and the volume over it are told, and a sliver is no width', () => {
  // Steps of 1 and 2 mm over the tip: the left third of a slot is high, the rest is not.
  const f = board(300, 60);
  for (let k = 0; k < f.data.length; k++) f.data[k] = Math.floor(k / 300) * 0.1 - 0.05 > 3.2 ? -1 : -2;
  const told = engageStock(f, flat, Float64Array.from([3, 2.8, -3, 26, 2.8, -3, 0]), 1.5);
  expect(told[BITE]).toBeCloseTo(2, 5);
  expect(Math.abs(sideOf(told, 0, flat.R) - 0.8)).toBeLessThan(0.21);
  expect(Math.abs(told[HIGH] / (0.8 * 23 * 0.5) - 1)).toBeLessThan(0.15);
});

test('bands, small calls and one large call tell and leave the same', () => {
  const random = [...Array(200)].map((_, i) => [
    10 + 8 * Math.sin(i * 0.7) + i * 0.05,
    6 + 4 * Math.cos(i * 0.3),
    -0.5 - 0.5 * Math.sin(i),
  ]);
  const s = Float64Array.from(random.slice(1).flatMap((p, i) => [...random[i], ...p, i % 17 === 3 ? 1 : 0]));
  for (const p of SHAPES) {
    const whole = board(320, 130);
    const told = engageStock(whole, p, s, 0);
    // In bands of rows, as threads do it.
    const joined = new Float32Array(told.length);
    const bands = board(320, 130);
    for (const [y0, y1] of [
      [0, 37],
      [37, 90],
      [90, 130],
    ]) {
      const band = {
        ...bands,
        height: y1 - y0,
        originY: bands.originY + y0 * bands.cell,
        data: bands.data.slice(y0 * 320, y1 * 320),
      };
      joinEngaged(joined, engageStock(band, p, s, 0));
      bands.data.set(band.data, y0 * 320);
    }
    expect(Math.max(...bands.data.map((v, k) => Math.abs(v - whole.data[k])))).toBeLessThan(2e-4);
    for (let k = 0; k < told.length; k++) expect(Math.abs(joined[k] - told[k])).toBeLessThan(2e-3 + 1e-3 * told[k]);
    // In calls of ten moves.
    const small = board(320, 130);
    for (let q = 0; q < s.length; q += 70) removeStock(small, p, s.slice(q, q + 70));
    expect(Math.max(...small.data.map((v, k) => Math.abs(v - whole.data[k])))).toBeLessThan(2e-4);
  }
});

test('of a large board a long thin move works only on the cells under it', () => {
  const f = board(4000, 3000);
  // What it does not reach holds a value that working on it would change.
  const far = 2500 * 4000 + 10;
  f.data[far] = Number.NaN;
  const told = engageStock(f, flat, Float64Array.from([1, 1, -1, 390, 290, -1, 0]), 0);
  const L = Math.hypot(389, 289);
  expect(Math.abs(told[VOLUME] / (2 * flat.R * L + Math.PI * flat.R ** 2) - 1)).toBeLessThan(0.01);
  expect(profileHeight(flat, 1)).toBe(0);
});
