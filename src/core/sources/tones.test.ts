import fc from 'fast-check';
import { expect, test } from 'vitest';
import { PLAIN_TONE, type Tone, toneSchema } from '../doc/tone';
import { fromLight, toLight } from '../units/light';
import { boxMean, removeNoise, smoothKeepingEdges } from './filters';
import type { HeightImage } from './height-image';
import { findTerraces, smoothTerraces } from './terraces';
import { BACKGROUND, toneImage } from './tone';

const image = (width: number, height: number, at: (x: number, y: number) => number): HeightImage => ({
  width,
  height,
  depth: 8,
  values: Float32Array.from({ length: width * height }, (_, k) => at(k % width, Math.floor(k / width))),
});
const tone = (t: Partial<Tone>): Tone => ({ ...PLAIN_TONE, ...t });
const field = fc
  .record({ width: fc.integer({ min: 1, max: 12 }), height: fc.integer({ min: 1, max: 12 }) })
  .chain(({ width, height }) =>
    fc.record({
      width: fc.constant(width),
      height: fc.constant(height),
      values: fc
        .array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: width * height, maxLength: width * height })
        .map((v) => Float32Array.from(v)),
    }),
  );

test('the curve of sRGB: the values of IEC 61966-2-1, and back', () => {
  expect(toLight(0)).toBe(0);
  expect(toLight(1)).toBeCloseTo(1, 12);
  // The straight part ends at 0.04045 with slope 1/12.92; middle gray of 0.5 is 0.21404 of light.
  expect(toLight(0.04045)).toBeCloseTo(0.04045 / 12.92, 6);
  expect(toLight(0.5)).toBeCloseTo(0.214041, 5);
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1, noNaN: true }), (v) => {
      expect(fromLight(toLight(v))).toBeCloseTo(v, 6);
    }),
  );
});

test('levels, gamma and invert are their formulas, and a plain tone leaves the image as it is', () => {
  const ramp = image(11, 1, (x) => x / 10);
  expect(toneImage(ramp, PLAIN_TONE)).toBe(ramp);
  const levels = toneImage(ramp, tone({ black: 0.2, white: 0.7 })).values;
  for (let k = 0; k <= 10; k++) expect(levels[k]).toBeCloseTo(Math.min(1, Math.max(0, (k / 10 - 0.2) / 0.5)), 5);
  const gamma = toneImage(ramp, tone({ gamma: 2 })).values;
  expect(gamma[5]).toBeCloseTo(Math.sqrt(0.5), 5);
  const inverted = toneImage(ramp, tone({ invert: true, gamma: 2 })).values;
  for (let k = 0; k <= 10; k++) expect(inverted[k]).toBeCloseTo(1 - gamma[k], 6);
  expect(ramp.values[3]).toBeCloseTo(0.3, 6);
  expect(toneSchema.safeParse({ ...PLAIN_TONE, black: 0.8, white: 0.2 }).success).toBe(false);
});

test('cut-outs: by threshold from either side, and by brush strokes, the later over the earlier', () => {
  const ramp = image(100, 50, (x) => x / 99);
  const out = (cutout: Partial<Tone['cutout']>) => {
    const v = toneImage(ramp, tone({ cutout: { ...PLAIN_TONE.cutout, ...cutout } })).values;
    return v.reduce((n, h) => n + (h === BACKGROUND ? 1 : 0), 0);
  };
  expect(out({ threshold: 0.25 })).toBe(25 * 50);
  expect(out({ threshold: 0.25, light: true })).toBe(75 * 50);
  // A dot of a tenth of the width: a circle of 10 pixels; a stroke is a capsule.
  const dot = { keep: false, radius: 0.1, points: [[0.5, 0.5]] as [number, number][] };
  expect(Math.abs(out({ strokes: [dot] }) - Math.PI * 100)).toBeLessThan(12);
  const stroke = {
    ...dot,
    points: [
      [0.3, 0.5],
      [0.7, 0.5],
    ] as [number, number][],
  };
  expect(Math.abs(out({ strokes: [stroke] }) - Math.PI * 100 - 40 * 20)).toBeLessThan(25);
  const kept = { ...dot, keep: true };
  expect(out({ strokes: [dot, kept] })).toBe(0);
  expect(out({ strokes: [kept, dot] })).toBe(out({ strokes: [dot] }));
  expect(out({ threshold: 1, strokes: [kept] })).toBe(5000 - out({ strokes: [dot] }));
});

test('the mean over a window and the median of nine are what their definitions say', () => {
  fc.assert(
    fc.property(field, fc.integer({ min: 0, max: 4 }), ({ width, height, values }, r) => {
      const mean = boxMean(values, width, height, r);
      const median = removeNoise(values, width, height, 1);
      for (let y = 0; y < height; y++) {
        for (let x = 0; x < width; x++) {
          let sum = 0;
          let n = 0;
          for (let v = Math.max(0, y - r); v <= Math.min(height - 1, y + r); v++)
            for (let u = Math.max(0, x - r); u <= Math.min(width - 1, x + r); u++, n++) sum += values[v * width + u];
          expect(mean[y * width + x]).toBeCloseTo(sum / n, 5);
          const nine: number[] = [];
          for (let dy = -1; dy <= 1; dy++)
            for (let dx = -1; dx <= 1; dx++)
              nine.push(
                values[Math.min(height - 1, Math.max(0, y + dy)) * width + Math.min(width - 1, Math.max(0, x + dx))],
              );
          expect(median[y * width + x]).toBe(nine.sort((a, b) => a - b)[4]);
        }
      }
    }),
    { numRuns: 60 },
  );
});

test('smoothing levels grain within a face and leaves an edge where it is', () => {
  let seed = 1;
  const grain = () => ((seed = (seed * 16807) % 2147483647) / 2147483647 - 0.5) * 0.06;
  const step = image(80, 40, (x) => (x < 40 ? 0.25 : 0.75) + grain());
  const out = smoothKeepingEdges(step.values, 80, 40, 4, 0.1);
  const spread = (v: Float32Array, x0: number, x1: number) => {
    let [n, sum, sum2] = [0, 0, 0];
    for (let y = 5; y < 35; y++)
      for (let x = x0; x < x1; x++, n++) {
        sum += v[y * 80 + x];
        sum2 += v[y * 80 + x] ** 2;
      }
    return Math.sqrt(sum2 / n - (sum / n) ** 2);
  };
  expect(spread(out, 5, 33)).toBeLessThan(0.4 * spread(step.values, 5, 33));
  // Most of the step is still between two neighbours: the plain mean leaves a ninth of it.
  const row = out.subarray(20 * 80, 21 * 80);
  expect(row[40] - row[39]).toBeGreaterThan(0.3);
  const flat = smoothKeepingEdges(new Float32Array(100).fill(0.5), 10, 10, 3, 0.1);
  for (const v of flat) expect(v).toBeCloseTo(0.5, 5);
});

test('terraces of 8 bit are found with their step; smooth ramps, drawings and noise have none', () => {
  const slope = (levels: number) => image(200, 100, (x, y) => Math.round(((x + 0.3 * y) / 230) * levels) / levels);
  const found = findTerraces(slope(64).values, 200)!;
  expect(found.levels).toBe(65);
  expect(found.step).toBeCloseTo(1 / 64, 6);
  expect(findTerraces(slope(60_000).values, 200)).toBeNull();
  expect(findTerraces(image(200, 100, (x) => (x < 100 ? 0 : 1)).values, 200)).toBeNull();
  expect(findTerraces(image(200, 100, (x, y) => ((x * 7919 + y * 104729) % 256) / 255).values, 200)).toBeNull();
});

test('smoothing terraces leaves the surface as a whole where it is: a dome beside a cliff, hollow and full', () => {
  for (const levels of [24, 48, 96])
    for (const sign of [1, -1]) {
      const dome = image(160, 160, (x, y) => {
        const r = Math.hypot(x - 80, y - 80) / 72;
        return r < 1 ? 0.5 + sign * (0.8 * Math.sqrt(1 - r * r) - 0.4) : 0;
      });
      const rounded = dome.values.map((v) => Math.round(v * levels) / levels);
      const out = smoothTerraces(rounded, 160, 160);
      expect(out).not.toBe(rounded);
      let [shift, n] = [0, 0];
      for (let k = 0; k < out.length; k++) {
        if (dome.values[k] === 0) continue;
        shift += (out[k] - dome.values[k]) * levels;
        n++;
      }
      expect(Math.abs(shift / n)).toBeLessThan(0.06);
    }
});

test('smoothed terraces stay within half a step, and lie nearer to the slope that was rounded', () => {
  const true_ = image(200, 100, (x, y) => 0.5 + 0.4 * Math.sin(x / 40) * Math.cos(y / 50));
  const rounded = true_.values.map((v) => Math.round(v * 40) / 40);
  const out = smoothTerraces(rounded, 200, 100);
  let [before, after] = [0, 0];
  for (let k = 0; k < out.length; k++) {
    expect(Math.abs(out[k] - rounded[k])).toBeLessThanOrEqual(1 / 80 + 1e-6);
    before += (rounded[k] - true_.values[k]) ** 2;
    after += (out[k] - true_.values[k]) ** 2;
  }
  expect(Math.sqrt(after)).toBeLessThan(0.7 * Math.sqrt(before));
  const smooth = true_.values;
  expect(smoothTerraces(smooth, 200, 100)).toBe(smooth);
});
