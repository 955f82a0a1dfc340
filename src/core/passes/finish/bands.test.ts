import fc from 'fast-check';
import { expect, test } from 'vitest';
import { boardGrid } from '../../field/height-field';
import { bandsOf, stretchesOf } from './bands';
import type { Rest } from './rest';

/** What is left where a place lies within `r` mm of a circle of radius 12 about the middle of a board of 40 mm, and how far it is to it elsewhere. */
function band(r: number): Rest {
  const grid = boardGrid(40, 40, 0.2);
  const away = new Float32Array(grid.width * grid.height);
  for (let k = 0; k < away.length; k++) {
    const [x, y] = [grid.originX + (k % grid.width) * grid.cell, grid.originY + Math.floor(k / grid.width) * grid.cell];
    away[k] = Math.max(0, Math.abs(Math.hypot(x - 20, y - 20) - 12) - r);
  }
  return { grid, away, around: 0.2, tall: 0, idle: new Uint8Array(0), hop: 10 };
}
const level = { cuts: () => true, heightAt: () => -1 };

/** Distance of a place from a polyline, mm. */
function fromLine({ xy, closed }: { xy: Float64Array; closed: boolean }, x: number, y: number): number {
  const n = xy.length / 2;
  let best = Infinity;
  for (let i = closed ? 0 : 1; i < n; i++) {
    const p = (i + n - 1) % n;
    const [dx, dy] = [xy[2 * i] - xy[2 * p], xy[2 * i + 1] - xy[2 * p + 1]];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.min(1, Math.max(0, ((x - xy[2 * p]) * dx + (y - xy[2 * p + 1]) * dy) / l2)) : 0;
    best = Math.min(best, Math.hypot(xy[2 * p] + t * dx - x, xy[2 * p + 1] + t * dy - y));
  }
  return best;
}

test('of a band every place lies within half a stepover of a line, and lines lie within the band', () => {
  const stepover = 0.4;
  fc.assert(
    fc.property(fc.integer({ min: 2, max: 14 }), (tenths) => {
      const rest = band(tenths / 10);
      const lines = bandsOf(rest, level, stepover);
      // A cell of the grid that lines are drawn on, and the band's own to half a cell.
      const slack = 0.25;
      for (let a = 0; a < 6.28; a += 0.3) {
        for (let d = -tenths / 10; d <= tenths / 10; d += 0.1) {
          const [x, y] = [20 + (12 + d) * Math.cos(a), 20 + (12 + d) * Math.sin(a)];
          expect(Math.min(...lines.map((l) => fromLine(l, x, y)))).toBeLessThan(stepover / 2 + slack);
        }
      }
      for (const { xy } of lines)
        for (let i = 0; i < xy.length; i += 2)
          expect(Math.abs(Math.hypot(xy[i] - 20, xy[i + 1] - 20) - 12)).toBeLessThan(tenths / 10 + 0.2 + slack);
    }),
    { numRuns: 8 },
  );
});

test('of a board that is left as a whole, lines run along its edges; of one on which nothing is left there are none', () => {
  const grid = boardGrid(6, 4, 0.2);
  const rest = (away: number): Rest => ({
    grid,
    away: new Float32Array(grid.width * grid.height).fill(away),
    around: 0.2,
    tall: 0,
    idle: new Uint8Array(0),
    hop: 10,
  });
  const lines = bandsOf(rest(0), level, 0.5);
  expect(Math.min(...lines.map((l) => fromLine(l, 3, 0.2)))).toBeLessThan(0.5);
  expect(Math.min(...lines.map((l) => fromLine(l, 3, 2)))).toBeLessThan(0.5);
  expect(bandsOf(rest(9), level, 0.5)).toEqual([]);
});

test('in a crease between two lines there is one more', () => {
  const rest = band(1.2);
  const lines = (depth: number) =>
    bandsOf(
      rest,
      { cuts: () => true, heightAt: (x, y) => -1 + depth * Math.abs(Math.hypot(x - 20, y - 20) - 11) },
      0.4,
    );
  // A round crease, 45 degrees steep on both sides, 0.4 mm inside the border: lines of a level band lie 0.2 and 0.6 mm inside.
  const on = (all: ReturnType<typeof lines>) => Math.min(...all.map((l) => fromLine(l, 20 + 11, 20)));
  expect(on(lines(0))).toBeGreaterThan(0.12);
  expect(on(lines(1))).toBeLessThan(0.12);
});

test('the stretches of a ring that pass a test begin anew where it does not, and run on over its first point', () => {
  const xy = Float64Array.from([0, 0, 1, 0, 2, 0, 2, 1, 2, 2, 1, 2, 0, 2, 0, 1]);
  expect(stretchesOf({ xy, closed: true, wander: 0 }, () => true)).toEqual([{ xy, closed: true, wander: 0 }]);
  expect(stretchesOf({ xy, closed: true, wander: 0 }, (i) => i !== 3).map((l) => [l.closed, l.xy.length / 2])).toEqual([
    [false, 7],
  ]);
  expect(
    stretchesOf({ xy, closed: true, wander: 0 }, (i) => i !== 3 && i !== 5).map((l) => Array.from(l.xy.subarray(0, 2))),
  ).toEqual([[0, 2]]);
  expect(stretchesOf({ xy, closed: false, wander: 0 }, (i) => i < 3).map((l) => l.xy.length / 2)).toEqual([3]);
});
