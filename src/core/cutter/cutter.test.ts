import { expect, test } from 'vitest';
import { DRAWER } from '../doc/defaults';
import { makeField } from '../field/height-field';
import { removeStock } from '../kernels/stock-removal';
import {
  CUTTER_SHAPES,
  type Cutter,
  chipLoad,
  cutterSchema,
  profileHeight,
  profileOf,
  ridgeOf,
  stepOn,
  stepoverFor,
} from './cutter';
import { reshape } from './reshape';

// Scallop height of parallel ball passes on a plane, h = R - sqrt(R^2 - (s/2)^2): any machining handbook. The trade
// handbook's worked example: 1/8 in ball, 8 %, s = 0.254 mm, h = 0.0051 mm.
const scallop = (R: number, s: number) => R - Math.sqrt(R * R - (s / 2) ** 2);
const shaped = (shape: Cutter['shape'], change: Partial<Cutter> = {}): Cutter => {
  const c = { ...cutterSchema.parse(DRAWER[0]), cornerRadius: 0, tipDiameter: 0, taperAngle: 0, includedAngle: 0 };
  reshape(c, shape);
  return Object.assign(c, change);
};
const ball = (diameter: number) => shaped('ball', { diameter });

test('the stepover for a ridge is the ridge of the stepover turned round, for every tip that leaves one', () => {
  for (const c of [ball(1), ball(3.175), ball(6.35), shaped('tapered-ball'), shaped('bullnose'), shaped('v')]) {
    const most = ridgeOf(c, c.diameter);
    for (const share of [0.01, 0.1, 0.5, 0.9])
      expect(ridgeOf(c, stepoverFor(c, share * most)), c.shape).toBeCloseTo(share * most, 9);
  }
  expect(stepoverFor(ball(3.175), 0)).toBe(0);
});

test('ridges of every tip: closed forms', () => {
  expect(ridgeOf(ball(3.175), 0.254)).toBeCloseTo(scallop(1.5875, 0.254), 12);
  // A V bit: half the stepover less its flat, over the tangent of half its angle.
  const v = shaped('v', { includedAngle: 60, tipDiameter: 0.2, diameter: 6 });
  expect(ridgeOf(v, 0.9)).toBeCloseTo((0.45 - 0.1) / Math.tan(Math.PI / 6), 12);
  expect(ridgeOf(v, 0.15)).toBe(0);
  // A bull-nose: none within its flat, of its corner beyond.
  const bull = shaped('bullnose', { diameter: 6, cornerRadius: 1 });
  expect(ridgeOf(bull, 4)).toBe(0);
  expect(ridgeOf(bull, 5)).toBeCloseTo(1 - Math.sqrt(1 - 0.5 ** 2), 12);
  // A tapered ball finer than its tip is a ball of that tip.
  const tapered = shaped('tapered-ball', { diameter: 6, tipDiameter: 1, taperAngle: 5 });
  expect(ridgeOf(tapered, 0.2)).toBeCloseTo(scallop(0.5, 0.2), 12);
  expect(ridgeOf(shaped('endmill'), 2)).toBe(0);
  expect(stepOn(30, 0.6)).toBeCloseTo(0.6 / Math.sqrt(3), 12);
});

test('a bit of another shape has what that shape needs', () => {
  for (const shape of CUTTER_SHAPES) {
    const c = { ...cutterSchema.parse(DRAWER[0]), cornerRadius: 0, tipDiameter: 0, taperAngle: 0, includedAngle: 0 };
    reshape(c, shape);
    expect(c.shape).toBe(shape);
    const p = profileOf(c);
    const heights = Array.from({ length: 50 }, (_, i) => profileHeight(p, (p.R * i) / 49));
    expect(Math.min(...heights), shape).toBeCloseTo(0, 9);
    expect(Number.isFinite(Math.max(...heights)), shape).toBe(true);
  }
});

test('the ridge of the worked example', () => {
  expect(ridgeOf(ball(3.175), 0.254)).toBeCloseTo(0.0051, 4);
});

test.each([
  ['ball', ball(3.175)],
  ['v', shaped('v', { diameter: 3, tipDiameter: 0.1, includedAngle: 90 })],
  ['tapered-ball', shaped('tapered-ball', { diameter: 3, tipDiameter: 1, taperAngle: 10 })],
] as const)('parallel passes of the simulated bit leave just that ridge: %s', (_, bit) => {
  for (const s of [0.254, 0.6, 1.2]) {
    const f = makeField({ width: 400, height: 400, cell: 0.02, originX: 0, originY: 0 }, 0);
    const segments: number[] = [];
    for (let y = 1; y < 7; y += s) segments.push(-3, y, -1, 11, y, -1, 0);
    removeStock(f, profileOf(bit), Float64Array.from(segments));
    let high = -Infinity;
    for (let j = 100; j < 250; j++) high = Math.max(high, f.data[j * 400 + 200]);
    // The highest cell lies within half a cell of the ridge's line: a V's falls by as much there.
    expect(high + 1).toBeLessThanOrEqual(ridgeOf(bit, s) + 1e-5);
    expect(high + 1).toBeGreaterThan(ridgeOf(bit, s) * 0.94 - (bit.shape === 'ball' ? 1e-5 : 0.011));
  }
});

// Chip load = feed / (rpm x flutes): arithmetic of any handbook. 3/8 in two-flute at 0.006 in and 18000 rpm: 216 in/min.
test('chip load arithmetic', () => {
  expect(chipLoad(216 * 25.4, 18000, 2) / 25.4).toBeCloseTo(0.006, 10);
});

test('every bit of the drawer is whole, and its profile rises without a jump', () => {
  for (const c of DRAWER) {
    expect(cutterSchema.safeParse(c).success).toBe(true);
    const p = profileOf(c);
    expect(profileHeight(p, 0)).toBe(0);
    let last = 0;
    for (let i = 1; i <= 1000; i++) {
      const h = profileHeight(p, (p.R * i) / 1000);
      expect(h).toBeGreaterThanOrEqual(last - 1e-9);
      if (i < 1000) expect(h - last).toBeLessThan(0.2);
      last = h;
    }
  }
});

test('a tapered ball is tangent where its cone begins', () => {
  const p = profileOf(DRAWER.find((c) => c.shape === 'tapered-ball')!);
  const d = 1e-5;
  const below = (profileHeight(p, p.p1) - profileHeight(p, p.p1 - d)) / d;
  const above = (profileHeight(p, p.p1 + d) - profileHeight(p, p.p1)) / d;
  expect(Math.abs(below / above - 1)).toBeLessThan(0.01);
});

test.each([
  [{ diameter: 0 }, 'diameter'],
  [{ diameter: -3 }, 'diameter'],
  [{ diameter: Number.NaN }, 'diameter'],
  [{ feed: 0 }, 'feed'],
  [{ shape: 'bullnose', cornerRadius: 9 }, 'cornerRadius'],
  [{ shape: 'tapered-ball', tipDiameter: 0 }, 'tipDiameter'],
  [{ shape: 'v', includedAngle: 0 }, 'includedAngle'],
])('a bit with %j is refused at that field', (change, field) => {
  const parsed = cutterSchema.safeParse({ ...DRAWER[0], ...change });
  expect(parsed.success).toBe(false);
  expect(parsed.error?.issues[0].path).toEqual([field]);
});

test('a bull-nose is flat up to its corner, which rises as a quarter of a circle', () => {
  const p = { shape: 2 as const, R: 5, p0: 2, p1: 0, p2: 0 };
  expect(profileHeight(p, 0)).toBe(0);
  expect(profileHeight(p, 3)).toBe(0);
  expect(profileHeight(p, 4)).toBeCloseTo(2 - Math.sqrt(3), 12);
  expect(profileHeight(p, 5)).toBeCloseTo(2, 12);
});
