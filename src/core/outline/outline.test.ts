import fc from 'fast-check';
import { expect, test } from 'vitest';
import { addBend, curvePoints, movePoint } from './curve-points';
import { flattenPath, readSvgPath, ringLengths } from './flatten';
import { NearestOutline } from './nearest';
import {
  applyAffine,
  applyPoint,
  crossings,
  fitPolygon,
  invertAffine,
  type Polygon,
  placing,
  polygonBounds,
  type Ring,
  rowCrossings,
} from './polygon';
import {
  CURVE_TOLERANCE,
  edgeSchema,
  hashNoise,
  type Outline,
  outlinePolygon,
  outlineSchema,
  workEdge,
} from './shapes';
import { alongStroke, readStroke } from './stroke';
import { dropHoles, evenRings, offsetPolygon, unionRings } from './union';

/** Area of a ring by the shoelace sum, counter-clockwise positive. */
function ringArea(r: Ring): number {
  let a = 0;
  for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) a += r[q] * r[i + 1] - r[i] * r[q + 1];
  return a / 2;
}

const area = (p: Polygon) => p.reduce((s, r) => s + ringArea(r), 0);
const finite = fc.double({ min: -50, max: 50, noNaN: true });

test('areas of the outlines are the closed forms, within what the chords of their curves leave', () => {
  const of = (o: Outline, x: number, y: number) => area(outlinePolygon(o, x, y));
  const [x, y] = [120, 80];
  // A chord leaves at most the tolerance times its length.
  const slack = 2 * (x + y) * CURVE_TOLERANCE;
  expect(of({ kind: 'rectangle' }, x, y)).toBe(x * y);
  expect(Math.abs(of({ kind: 'oval' }, x, y) - (Math.PI * x * y) / 4)).toBeLessThan(slack);
  expect(Math.abs(of({ kind: 'circle' }, x, y) - (Math.PI * y * y) / 4)).toBeLessThan(slack);
  expect(Math.abs(of({ kind: 'rounded', radius: 10 }, x, y) - (x * y - (4 - Math.PI) * 100))).toBeLessThan(slack);
  // A radius that does not fit becomes half the shorter side: a stadium.
  const stadium = (x - y) * y + (Math.PI * y * y) / 4;
  expect(Math.abs(of({ kind: 'rounded', radius: 500 }, x, y) - stadium)).toBeLessThan(slack);
  // A rectangle under half an ellipse.
  const arch = x * (y - 60) + (Math.PI * 60 * 60) / 2;
  expect(Math.abs(of({ kind: 'arch' }, x, y) - arch)).toBeLessThan(slack);
});

test('every outline fills its box, runs counter-clockwise and lies around its middle', () => {
  const all: Outline[] = [
    { kind: 'rectangle' },
    { kind: 'rounded', radius: 7 },
    { kind: 'oval' },
    { kind: 'arch' },
    { kind: 'scalloped', lobes: 11 },
    { kind: 'cartouche' },
    { kind: 'path', d: 'M 0 0 H 30 V 10 L 15 40 Z' },
  ];
  for (const o of all) {
    const p = outlinePolygon(o, 90, 61);
    const b = polygonBounds(p);
    for (const [v, want] of [
      [b.x0, -45],
      [b.x1, 45],
      [b.y0, -30.5],
      [b.y1, 30.5],
    ]) {
      expect(Math.abs(v - want), o.kind).toBeLessThan(2 * CURVE_TOLERANCE);
    }
    if (o.kind !== 'path') expect(area(p), o.kind).toBeGreaterThan(0);
  }
  // A circle takes the shorter side.
  expect(polygonBounds(outlinePolygon({ kind: 'circle' }, 90, 61)).x1).toBeCloseTo(30.5, 2);
});

test('an outline drawn as an SVG path: read, refused when it encloses nothing or is no path', () => {
  expect(outlineSchema.safeParse({ kind: 'path', d: 'M 0 0 H 10 V 10 Z' }).success).toBe(true);
  expect(outlineSchema.safeParse({ kind: 'path', d: 'M 0 0 L 10 10' }).success).toBe(false);
  const bad = outlineSchema.safeParse({ kind: 'path', d: 'M 0 0 Q' });
  expect(bad.success).toBe(false);
  expect(outlineSchema.safeParse({ kind: 'scalloped', lobes: 2 }).success).toBe(false);
  expect(edgeSchema.safeParse({ kind: 'waney', depth: -1, length: 5, seed: 1 }).success).toBe(false);
  // A half circle by an elliptical arc, y down as SVG has it: its area by the closed form, within 3e-4 of its radius all along.
  const half = flattenPath(readSvgPath('M 0 0 A 20 20 0 0 1 40 0 Z'), 0.001);
  expect(Math.abs(Math.abs(area(half)) - (Math.PI * 400) / 2)).toBeLessThan(3e-4 * 20 * 20 * Math.PI);
  expect(polygonBounds(half).y1).toBeCloseTo(20, 2);
});

test('flattened curves stay within the tolerance of the curve', () => {
  const point = fc.tuple(finite, finite);
  fc.assert(
    fc.property(point, point, point, point, fc.constantFrom(0.2, 0.01), (a, b, c, d, tolerance) => {
      const ring = flattenPath([['M', ...a], ['C', ...b, ...c, ...d], ['Z']], tolerance)[0];
      if (!ring) return;
      const near = new NearestOutline([ring], 60);
      const out = { distance: 0, along: 0, ring: 0 };
      for (let k = 0; k <= 40; k++) {
        const t = k / 40;
        const s = 1 - t;
        const at = (i: 0 | 1) => s * s * s * a[i] + 3 * s * s * t * b[i] + 3 * s * t * t * c[i] + t * t * t * d[i];
        expect(near.find(at(0), at(1), out).distance).toBeLessThan(tolerance * 1.0001);
      }
    }),
    { numRuns: 60 },
  );
});

test('the nearest point of an outline is the nearest of all its edges', () => {
  const ring = fc.array(fc.tuple(finite, finite), { minLength: 3, maxLength: 60 });
  fc.assert(
    fc.property(
      fc.array(ring, { minLength: 1, maxLength: 3 }),
      fc.array(fc.tuple(finite, finite), { minLength: 1, maxLength: 20 }),
      (rings, places) => {
        const p = rings.map((r) => Float64Array.from(r.flat()));
        const near = new NearestOutline(p, 50);
        const out = { distance: 0, along: 0, ring: 0 };
        for (const [x, y] of places) {
          let best = Infinity;
          for (const r of p) {
            for (let i = 0; i < r.length; i += 2) {
              const q = (i + 2) % r.length;
              const [dx, dy] = [r[q] - r[i], r[q + 1] - r[i + 1]];
              const l2 = dx * dx + dy * dy;
              const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - r[i]) * dx + (y - r[i + 1]) * dy) / l2)) : 0;
              best = Math.min(best, Math.hypot(x - r[i] - t * dx, y - r[i + 1] - t * dy));
            }
          }
          near.find(x, y, out);
          expect(out.distance).toBeCloseTo(best, 9);
          // The length along that ring leads to a place just as far away.
          const r = p[out.ring];
          const { at, total } = ringLengths(r);
          let k = at.length - 1;
          while (k > 0 && at[k] > out.along) k--;
          const q = (2 * k + 2) % r.length;
          const l = (k + 1 < at.length ? at[k + 1] : total) - at[k];
          const t = l > 0 ? (out.along - at[k]) / l : 0;
          expect(
            Math.hypot(r[2 * k] + t * (r[q] - r[2 * k]) - x, r[2 * k + 1] + t * (r[q + 1] - r[2 * k + 1]) - y),
          ).toBeCloseTo(best, 6);
        }
      },
    ),
    { numRuns: 60 },
  );
});

test('maps: there and back, a point as a polygon, and a box fitted', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 0.1, max: 5, noNaN: true }),
      finite,
      finite,
      finite,
      fc.boolean(),
      (s, turn, x, y, mirror) => {
        const m = placing(mirror ? -s : s, s, turn, x, y);
        const back = invertAffine(m);
        const [u, v] = applyPoint(m, 3, -7);
        const [a, b] = applyPoint(back, u, v);
        expect(a).toBeCloseTo(3, 8);
        expect(b).toBeCloseTo(-7, 8);
        const moved = applyAffine([Float64Array.of(3, -7, 0, 0, 1, 0)], m)[0];
        expect(moved[0]).toBeCloseTo(u, 10);
        expect(moved[1]).toBeCloseTo(v, 10);
      },
    ),
  );
  expect(() => invertAffine([0, 0, 0, 0, 1, 1])).toThrow('a size of 0');
  const fitted = polygonBounds(fitPolygon([Float64Array.of(1, 1, 5, 1, 5, 4)], 20, 10));
  expect(fitted).toEqual({ x0: -10, x1: 10, y0: -5, y1: 5 });
});

/** Whether a place is inside by the angles that it sees the rings' edges under: whole turns count, a hole takes one back. */
function around(p: Polygon, x: number, y: number): boolean {
  let rings = 0;
  for (const r of p) {
    let sum = 0;
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) {
      const [ax, ay, bx, by] = [r[q] - x, r[q + 1] - y, r[i] - x, r[i + 1] - y];
      sum += Math.atan2(ax * by - ay * bx, ax * bx + ay * by);
    }
    rings += Math.abs(Math.round(sum / (2 * Math.PI)));
  }
  return rings % 2 === 1;
}

test('the crossings of many rows are those of each, rows through corners too', () => {
  const ring = fc.array(fc.tuple(fc.integer({ min: -20, max: 20 }), fc.integer({ min: -20, max: 20 })), {
    minLength: 3,
    maxLength: 12,
  });
  fc.assert(
    fc.property(fc.array(ring, { maxLength: 3 }), fc.constantFrom(0.5, 1, 0.37), (rings, step) => {
      const p = rings.map((r) => Float64Array.from(r.flat()));
      const rows = rowCrossings(p, -21, step, 60);
      expect(rows).toEqual(Array.from({ length: 60 }, (_, j) => crossings(p, -21 + j * step)));
    }),
  );
});

test('crossings and inside agree on polygons with holes', () => {
  const p: Polygon = [...outlinePolygon({ kind: 'oval' }, 40, 30), ...outlinePolygon({ kind: 'rectangle' }, 10, 8)];
  fc.assert(
    fc.property(finite, finite, (x, y) => {
      const row = crossings(p, y);
      const inside = row.filter((c) => c <= x).length % 2 === 1;
      expect(inside).toBe(around(p, x, y));
    }),
    { numRuns: 300 },
  );
});

test('joined rings: areas by inclusion and exclusion, and by the winding of self-crossing strokes', () => {
  const square = (x: number, y: number, s: number) => Float64Array.of(x, y, x + s, y, x + s, y + s, x, y + s);
  expect(Math.abs(area(unionRings([square(0, 0, 10), square(5, 5, 10)])))).toBeCloseTo(175, 3);
  expect(Math.abs(area(unionRings([square(0, 0, 4), square(20, 0, 4)])))).toBeCloseTo(32, 3);
  // One inside the other is filled all through when both run the same way round, and a hole when not.
  expect(area(unionRings([square(0, 0, 10), square(2, 2, 3)]))).toBeCloseTo(100, 3);
  const hole = square(2, 2, 3).slice();
  for (let i = 0, q = 6; i < q; i += 2, q -= 2)
    [hole[i], hole[i + 1], hole[q], hole[q + 1]] = [hole[q], hole[q + 1], hole[i], hole[i + 1]];
  expect(area(unionRings([square(0, 0, 10), hole]))).toBeCloseTo(91, 3);
});

test('any rings come out with their inside at the left, and made smaller by a distance', () => {
  const box = (x: number, y: number) => Float64Array.of(x / 2, y / 2, -x / 2, y / 2, -x / 2, -y / 2, x / 2, -y / 2);
  const turned = (r: Ring) => r.map((_, i) => r[r.length - 2 - (i - (i % 2)) + (i % 2)]);
  for (const outer of [box(20, 10), turned(box(20, 10))]) {
    for (const hole of [box(8, 4), turned(box(8, 4))]) {
      const even = evenRings([outer, hole]);
      expect(area(even)).toBeCloseTo(200 - 32, 3);
      expect(even.map((r) => ringArea(r) > 0).sort()).toEqual([false, true]);
    }
  }
  // A rectangle shrinks to a rectangle; around its hole the corners become quarter rounds.
  expect(area(offsetPolygon([box(20, 10)], -2, 0.001))).toBeCloseTo(16 * 6, 2);
  const ring = offsetPolygon(evenRings([box(30, 30), box(10, 10)]), -1, 0.0005);
  expect(area(ring)).toBeCloseTo(28 * 28 - (10 * 10 + 4 * 10 + Math.PI), 1);
  expect(offsetPolygon([box(20, 10)], -6, 0.001)).toEqual([]);
});

test('edges: a notched ring has its notches, a waney one stays within its depth, both the same each time', () => {
  const p = outlinePolygon({ kind: 'circle' }, 100, 100);
  const notched = workEdge(p, { kind: 'notched', count: 12, width: 8, depth: 3 })[0];
  const radii: number[] = [];
  for (let i = 0; i < notched.length; i += 2) radii.push(Math.hypot(notched[i], notched[i + 1]));
  expect(Math.min(...radii)).toBeCloseTo(47, 1);
  expect(Math.max(...radii)).toBeCloseTo(50, 1);
  let dips = 0;
  for (let i = 0; i < radii.length; i++) {
    const [a, b] = [radii[(i + radii.length - 1) % radii.length], radii[(i + 1) % radii.length]];
    if (radii[i] < 48 && radii[i] <= a && radii[i] < b) dips++;
  }
  expect(dips).toBe(12);
  const edge = { kind: 'waney', depth: 5, length: 30, seed: 3 } as const;
  const waney = workEdge(p, edge)[0];
  for (let i = 0; i < waney.length; i += 2) {
    const r = Math.hypot(waney[i], waney[i + 1]);
    expect(r).toBeGreaterThan(45 - 0.1);
    expect(r).toBeLessThan(50.1);
  }
  expect(workEdge(p, edge)).toEqual([waney]);
  expect(workEdge(p, { ...edge, seed: 4 })).not.toEqual([waney]);
  expect(workEdge(p, { kind: 'plain' })).toBe(p);
  // Chance is even: its mean over many numbers is a half.
  let sum = 0;
  for (let k = 0; k < 10_000; k++) sum += hashNoise(k, 5);
  expect(sum / 10_000).toBeCloseTo(0.5, 1);
});

test('strokes are walked by their length, straight on beyond the ends', () => {
  const s = readStroke('M 0 0 H 30 V 40', 0.01);
  expect(s.total).toBeCloseTo(70, 6);
  expect(alongStroke(s, 10)).toMatchObject({ x: 10, y: 0, c: 1, n: 0 });
  // SVG has y down, the board up.
  expect(alongStroke(s, 50).y).toBeCloseTo(-20, 6);
  expect(alongStroke(s, -5).x).toBeCloseTo(-5, 6);
  expect(alongStroke(s, 80).y).toBeCloseTo(-50, 6);
  // A quarter circle of 20 mm: its length is a quarter of 2 pi r.
  expect(readStroke('M 0 0 A 20 20 0 0 1 20 20', 0.001).total).toBeCloseTo(10 * Math.PI, 2);
  expect(() => readStroke('M 0 0', 0.01)).toThrow('has no length');
});

test('points of a free curve: listed, moved with what bends beside them, and one bend more', () => {
  const d = 'M 0 0 C 10 -20 30 -20 40 0 L 60 0';
  expect(curvePoints(d)).toEqual([
    { x: 0, y: 0, bends: false, starts: true },
    { x: 10, y: -20, bends: true, starts: false },
    { x: 30, y: -20, bends: true, starts: false },
    { x: 40, y: 0, bends: false, starts: false },
    { x: 60, y: 0, bends: false, starts: false },
  ]);
  // A point that it runs through takes its bend along; a bend moves alone.
  expect(movePoint(d, 3, 44, 6)).toBe('M 0 0 C 10 -20 34 -14 44 6 L 60 0');
  expect(movePoint(d, 1, 12, -25)).toBe('M 0 0 C 12 -25 30 -20 40 0 L 60 0');
  expect(movePoint('M 5 5 h 10 v -5', 1, 20, 6)).toBe('M 5 5 L 20 6 L 15 0');
  expect(() => movePoint(d, 9, 0, 0)).toThrow('5 points, not 10');
  const more = addBend(d);
  expect(curvePoints(more)).toHaveLength(8);
  // It goes on the way that the last step ran, as long as that.
  expect(curvePoints(more).at(-1)).toMatchObject({ x: 80, y: 0, bends: false });
  expect(() => addBend('M 0 0')).toThrow('one point only');
  expect(() => curvePoints('M 0 0 Q')).toThrow('cannot be read');
});

test('an outline without its holes is filled, and islands in holes are no pieces of their own', () => {
  const square = (half: number, inside = true) => {
    const r = [-half, -half, half, -half, half, half, -half, half];
    return Float64Array.from(inside ? r : [r[0], r[1], r[6], r[7], r[4], r[5], r[2], r[3]]);
  };
  const filled = dropHoles([square(20), square(10, false), square(4)]);
  expect(filled).toHaveLength(1);
  expect(ringArea(filled[0])).toBeCloseTo(1600, 6);
});
