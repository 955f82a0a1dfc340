import fc from 'fast-check';
import { expect, test } from 'vitest';
import { contourRings, ringArea, ringLength, simplifyLine, simplifyRing } from './contours';
import { distanceInside } from './distance';
import { boardGrid, makeField, padField, poolField, sampleField } from './height-field';

test('distance transform equals the brute-force nearest distance', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 24 }), fc.integer({ min: 1, max: 24 }), fc.integer(), (w, h, seed) => {
      const inside = new Uint8Array(w * h);
      let s = seed >>> 0;
      for (let i = 0; i < inside.length; i++) {
        s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
        inside[i] = s / 2 ** 32 < 0.85 ? 1 : 0;
      }
      const d = distanceInside(inside, w, h);
      for (let y = 0; y < h; y++) {
        for (let x = 0; x < w; x++) {
          let best = Infinity;
          for (let b = 0; b < h; b++) {
            for (let a = 0; a < w; a++) if (!inside[b * w + a]) best = Math.min(best, Math.hypot(a - x, b - y));
          }
          if (best === Infinity) expect(d[y * w + x]).toBe(Infinity);
          else expect(d[y * w + x]).toBeCloseTo(best, 4);
        }
      }
    }),
    { numRuns: 60 },
  );
});

test('contours of a cone are circles at every level, counter-clockwise around the top', () => {
  const n = 101;
  const v = new Float32Array(n * n);
  for (let j = 0; j < n; j++) for (let i = 0; i < n; i++) v[j * n + i] = (40 - Math.hypot(i - 50, j - 50)) / 10;
  const levels = contourRings(v, n, n);
  expect(levels.length).toBe(5);
  for (let k = 0; k < 4; k++) {
    expect(levels[k]).toHaveLength(1);
    const r = 40 - 10 * k;
    expect(ringArea(levels[k][0])).toBeGreaterThan(Math.PI * r * r * 0.995);
    expect(Math.abs(ringLength(levels[k][0]) / (2 * Math.PI * r) - 1)).toBeLessThan(0.01);
  }
});

test('an island is a clockwise ring, and a region at the edge of the grid closes', () => {
  const n = 20;
  const v = new Float32Array(n * n).fill(0.5);
  v[10 * n + 10] = -1;
  const [rings] = contourRings(v, n, n);
  expect(rings.map((r) => Math.sign(ringArea(r))).sort()).toEqual([-1, 1]);
});

test('simplifying keeps every point within the tolerance', () => {
  const pts: number[] = [];
  for (let i = 0; i < 400; i++) {
    const a = (i / 400) * 2 * Math.PI;
    pts.push(Math.cos(a) * (10 + 0.03 * Math.sin(40 * a)), Math.sin(a) * (10 + 0.03 * Math.sin(40 * a)));
  }
  const ring = Float64Array.from(pts);
  const thin = simplifyRing(ring, 0.1);
  expect(thin.length).toBeLessThan(ring.length / 5);
  for (let i = 0; i < ring.length; i += 2) {
    let best = Infinity;
    for (let j = 0, p = thin.length - 2; j < thin.length; p = j, j += 2) {
      const [dx, dy] = [thin[j] - thin[p], thin[j + 1] - thin[p + 1]];
      const [px, py] = [ring[i] - thin[p], ring[i + 1] - thin[p + 1]];
      const t = Math.max(0, Math.min(1, (px * dx + py * dy) / (dx * dx + dy * dy)));
      best = Math.min(best, Math.hypot(px - t * dx, py - t * dy));
    }
    expect(best).toBeLessThanOrEqual(0.1 + 1e-9);
  }
});

test('sampling is bilinear on slopes and takes the top at a cliff; pooling bounds the field', () => {
  const f = makeField(boardGrid(4, 4, 1));
  for (let j = 0; j < 4; j++) for (let i = 0; i < 4; i++) f.data[j * 4 + i] = i + 2 * j;
  expect(sampleField(f, 1.75, 2.25)).toBeCloseTo(1.25 + 2 * 1.75, 6);
  expect(sampleField(f, 1.75, 2.25, 0.5)).toBe(6);
  expect([...poolField(f, 2, 'max').data]).toEqual([3, 5, 7, 9]);
  expect([...poolField(f, 2, 'min').data]).toEqual([0, 2, 4, 6]);
  const p = padField(f, 1, -9);
  expect(p.data[0]).toBe(-9);
  expect(sampleField(p, 1.75, 2.25)).toBeCloseTo(sampleField(f, 1.75, 2.25), 6);
});

test('a line with fewer points keeps its ends, and none of its own points lies further than the tolerance from it', () => {
  const step = fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 }));
  fc.assert(
    fc.property(fc.array(step, { minLength: 2, maxLength: 40 }), fc.integer({ min: 1, max: 30 }), (steps, tenths) => {
      let [x, y] = [0, 0];
      const line = Float64Array.from(
        steps.flatMap(([dx, dy]) => {
          [x, y] = [x + dx / 10, y + dy / 10];
          return [x, y];
        }),
      );
      const out = simplifyLine(line, tenths / 10);
      expect([out[0], out[1], out.at(-2), out.at(-1)]).toEqual([line[0], line[1], line.at(-2), line.at(-1)]);
      for (let i = 0; i < line.length; i += 2) {
        let best = Math.hypot(line[i] - out[0], line[i + 1] - out[1]);
        for (let k = 2; k < out.length; k += 2) {
          const [ax, ay, bx, by] = [out[k - 2], out[k - 1], out[k], out[k + 1]];
          const l2 = (bx - ax) ** 2 + (by - ay) ** 2;
          const t =
            l2 > 0 ? Math.min(1, Math.max(0, ((line[i] - ax) * (bx - ax) + (line[i + 1] - ay) * (by - ay)) / l2)) : 0;
          best = Math.min(best, Math.hypot(ax + t * (bx - ax) - line[i], ay + t * (by - ay) - line[i + 1]));
        }
        expect(best).toBeLessThanOrEqual(tenths / 10 + 1e-9);
      }
    }),
  );
});
