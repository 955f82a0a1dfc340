import fc from 'fast-check';
import { expect, test } from 'vitest';
import { ringLengths } from '../../outline/flatten';
import { NearestOutline } from '../../outline/nearest';
import type { Ring } from '../../outline/polygon';
import { offsetPolygon } from '../../outline/union';
import { besideCut } from './beside';
import { placeTabs } from './tabs';

/** An ellipse with a wave along it, counter-clockwise. */
function blob(cx: number, cy: number, rx: number, ry: number, waves: number): Ring {
  const n = 240;
  const xy = new Float64Array(2 * n);
  for (let i = 0; i < n; i++) {
    const a = (2 * Math.PI * i) / n;
    const r = 1 + 0.15 * Math.cos(waves * a);
    xy.set([cx + rx * r * Math.cos(a), cy + ry * r * Math.sin(a)], 2 * i);
  }
  return xy;
}

const size = fc.integer({ min: 30, max: 900 }).map((v) => v / 10);
const rings = fc
  .array(fc.tuple(size, size, fc.integer({ min: 0, max: 7 })), { minLength: 1, maxLength: 5 })
  .map((all) => all.map(([rx, ry, waves], k) => blob(250 * k, 0, rx, ry, waves)));

test('tabs are as many as were asked for, one for every piece at least, and never overlap', () => {
  let exact = 0;
  fc.assert(
    fc.property(rings, fc.nat(24), fc.integer({ min: 10, max: 250 }), fc.nat(80), (lines, count, length, slope) => {
      const half = length / 20 + 3.175;
      const foot = half + slope / 10;
      const tabs = { count, length: length / 10, thickness: 3, sloped: slope > 0, at: null };
      const placed = placeTabs(lines, tabs, { outline: lines, half, foot, stands: () => true });
      const all = placed.reduce((n, p) => n + p.length, 0);
      const totals = lines.map((r) => ringLengths(r).total);
      const rooms = totals.map((t) => Math.floor(t / (2.5 * foot)));
      const pieces = rooms.filter((m) => m > 0).length;
      const most = rooms.reduce((a, b) => a + b, 0);
      expect(all).toBe(count === 0 ? 0 : Math.min(most, Math.max(count, pieces)));
      if (all === count && count > 0) exact++;
      for (const [k, p] of placed.entries()) {
        const near = new NearestOutline([lines[k]], 1000);
        const hit = { distance: 0, along: 0, ring: 0 };
        const on = p.map(({ x, y }) => near.find(x, y, hit).along).sort((a, b) => a - b);
        on.forEach((s, i) => {
          if (on.length < 2) return;
          const next = i + 1 < on.length ? on[i + 1] : on[0] + totals[k];
          expect(next - s).toBeGreaterThanOrEqual(2 * foot - 1e-6);
        });
      }
    }),
    { numRuns: 12 },
  );
  expect(exact).toBeGreaterThan(2);
});

test('no tab stands on waste that the cut itself frees, or on waste too narrow to hold', () => {
  // A frame of 80 x 60 with a slit of 8 mm in its right side: a bit of 6 mm goes through the slit, so what lies within comes loose.
  const ring = [0, 0, 80, 0, 80, 26, 60, 26, 60, 12, 20, 12, 20, 48, 60, 48, 60, 34, 80, 34, 80, 60, 0, 60];
  const outline = [Float64Array.from(ring)];
  const stands = besideCut(outline, 6);
  expect(stands({ x: 40, y: -3 }, [40, 0])).toBe(true);
  expect(stands({ x: 40, y: 15 }, [40, 12])).toBe(false);
  // With a true hole instead of the slit the slug is held by its own tab.
  const holed = [Float64Array.from([0, 0, 80, 0, 80, 60, 0, 60]), Float64Array.from([20, 12, 20, 48, 60, 48, 60, 12])];
  expect(besideCut(holed, 6)({ x: 40, y: 15 }, [40, 12])).toBe(true);
  // Between two pieces 8 mm apart a strip of 2 mm would be left by one cut and none by both.
  const two = [Float64Array.from([0, 0, 40, 0, 40, 40, 0, 40]), Float64Array.from([48, 0, 88, 0, 88, 40, 48, 40])];
  const beside = besideCut(two, 6);
  expect(beside({ x: 43, y: 20 }, [40, 20])).toBe(false);
  expect(beside({ x: -3, y: 20 }, [0, 20])).toBe(true);
  const lines = offsetPolygon(outline, 3, 0.01);
  const placed = placeTabs(
    lines,
    { count: 4, length: 6, thickness: 3, sloped: false, at: null },
    { outline, half: 6, foot: 6, stands },
  ).flat();
  expect(placed.length).toBe(4);
  const inner = (p: { x: number; y: number }) => p.x > 20 && p.x < 80 && p.y > 12 && p.y < 48;
  expect(placed.filter(inner)).toEqual([]);
});
