import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Profile, profileHeight } from '../cutter/cutter';
import { AIR, type HeightField } from '../field/height-field';
import { cutterOffset, flatOffset, lineOffset } from './cutter-offset';

/** The plain definition: the highest of h(x + d) - t(|d|) over every cell within the cutter's radius. */
function offsetByDefinition(f: HeightField, radius: number, t: (r: number) => number): Float32Array {
  const R = Math.floor(radius / f.cell + 1e-6);
  const out = new Float32Array(f.width * f.height);
  for (let y = 0; y < f.height; y++) {
    for (let x = 0; x < f.width; x++) {
      let best = -1e30;
      for (let dy = -R; dy <= R; dy++) {
        for (let dx = -R; dx <= R; dx++) {
          const r = Math.hypot(dx, dy) * f.cell;
          if (r > radius + 1e-6 * f.cell) continue;
          const inside = x + dx >= 0 && x + dx < f.width && y + dy >= 0 && y + dy < f.height;
          const h = inside ? f.data[(y + dy) * f.width + x + dx] : AIR;
          best = Math.max(best, h - t(Math.min(r, radius)));
        }
      }
      out[y * f.width + x] = best;
    }
  }
  return out;
}

function field(width: number, height: number, cell: number, seed: number, rough: number): HeightField {
  const data = new Float32Array(width * height);
  let s = seed >>> 0;
  for (let i = 0; i < data.length; i++) {
    s = (Math.imul(s, 1664525) + 1013904223) >>> 0;
    const noise = s / 2 ** 32;
    const x = i % width;
    const y = (i / width) | 0;
    data[i] = 3 * Math.sin(x * 0.2) * Math.cos(y * 0.15) + rough * noise + (x > width / 2 ? -4 : 0);
    if (noise < 0.02) data[i] = AIR;
  }
  return { width, height, cell, originX: 0, originY: 0, data };
}

const shapes: Profile[] = [
  { shape: 1, R: 1.5875, p0: 0, p1: 0, p2: 0 },
  { shape: 2, R: 2, p0: 0.5, p1: 0, p2: 0 },
  { shape: 3, R: 1.5, p0: 0.4, p1: 0.4 * Math.cos(0.09), p2: 1 / Math.tan(0.09) },
  { shape: 4, R: 2.2, p0: 0.1, p1: 0, p2: 1.7 },
];

function worst(a: Float32Array, b: Float32Array): number {
  let d = 0;
  for (let i = 0; i < a.length; i++) {
    // Air less a profile is still air: a float near a million carries no hundredths.
    if (a[i] < AIR / 2 && b[i] < AIR / 2) continue;
    d = Math.max(d, Math.abs(a[i] - b[i]));
  }
  return d;
}

test('cutter offset equals its brute-force definition within 1e-5 mm for every shape and random fields', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 90 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer(),
      fc.constantFrom(0.05, 0.1, 0.17, 0.4),
      fc.constantFrom(0, 0.5, 6),
      fc.constantFrom(...shapes),
      (w, h, seed, cell, rough, p) => {
        const f = field(w, h, cell, seed, rough);
        const t = (r: number) => profileHeight(p, r);
        expect(worst(cutterOffset(f, p.R, t), offsetByDefinition(f, p.R, t))).toBeLessThanOrEqual(1e-5);
      },
    ),
    { numRuns: 12 },
  );
});

test('flat offset equals its brute-force definition exactly', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 90 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer(),
      fc.constantFrom(0.3, 1, 2.07, 3.175),
      (w, h, seed, radius) => {
        const f = field(w, h, 0.1, seed, 3);
        expect(
          worst(
            flatOffset(f, radius),
            offsetByDefinition(f, radius, () => 0),
          ),
        ).toBe(0);
      },
    ),
    { numRuns: 12 },
  );
});

test('a band of rows is the same rows of the whole, also across the inner band edge', () => {
  const f = field(40, 600, 0.1, 7, 2);
  const t = (r: number) => profileHeight(shapes[0], r);
  const whole = cutterOffset(f, 1.5875, t);
  expect(worst(cutterOffset(f, 1.5875, t, [200, 310]), whole.subarray(200 * 40, 310 * 40))).toBe(0);
  expect(worst(flatOffset(f, 2, [250, 260]), flatOffset(f, 2).subarray(250 * 40, 260 * 40))).toBe(0);
});

test('the offset along lines between the rows equals its definition there', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 60 }),
      fc.integer({ min: 1, max: 40 }),
      fc.integer(),
      fc.array(fc.double({ min: -1, max: 9, noNaN: true }), { minLength: 1, maxLength: 6 }),
      fc.constantFrom(...shapes),
      (w, h, seed, lines, p) => {
        const f = field(w, h, 0.2, seed, 3);
        const ys = Float64Array.from(lines).sort();
        const got = lineOffset(f, p.R, (r) => profileHeight(p, r), ys);
        const want = new Float32Array(ys.length * w).fill(-1e30);
        for (let l = 0; l < ys.length; l++) {
          for (let x = 0; x < w; x++) {
            for (let b = 0; b < h; b++) {
              for (let a = 0; a < w; a++) {
                const r = Math.hypot((a - x) * 0.2, b * 0.2 - ys[l]);
                if (r > p.R + 1e-6 * 0.2) continue;
                want[l * w + x] = Math.max(want[l * w + x], f.data[b * w + a] - profileHeight(p, Math.min(r, p.R)));
              }
            }
          }
        }
        for (let i = 0; i < want.length; i++) {
          if (want[i] < AIR / 2) expect(got[i]).toBeLessThan(AIR / 2);
          else expect(Math.abs(got[i] - want[i])).toBeLessThan(1e-5);
        }
      },
    ),
    { numRuns: 16 },
  );
});
