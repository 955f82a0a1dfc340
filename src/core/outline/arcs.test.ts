import fc from 'fast-check';
import { expect, test } from 'vitest';
import { readProgram } from '../program/reader';
import { BLOCK, fitArcs } from './arcs';

const TOLERANCE = 0.01;

/** Moves along a curve, a point every so often; the first is where it starts. */
function movesOf(at: (t: number) => [number, number, number], n: number, feed = 1000): Float64Array {
  return Float64Array.from(Array.from({ length: n + 1 }, (_, i) => [...at(i / n), i === 0 ? 0 : feed]).flat());
}

/** Places along the blocks, no further apart than `step` mm. */
function placesOf(blocks: Float64Array, step: number): [number, number, number][] {
  const out: [number, number, number][] = [[blocks[0], blocks[1], blocks[2]]];
  for (let k = BLOCK; k < blocks.length; k += BLOCK) {
    const [x, y, z, , turn, cx, cy] = blocks.subarray(k, k + BLOCK);
    const [px, py, pz] = [blocks[k - BLOCK], blocks[k - BLOCK + 1], blocks[k - BLOCK + 2]];
    const r = Math.hypot(px - cx, py - cy);
    const a = Math.atan2(py - cy, px - cx);
    let sweep = Math.atan2(y - cy, x - cx) - a;
    if (turn === 3 && sweep < 0) sweep += 2 * Math.PI;
    if (turn === 2 && sweep > 0) sweep -= 2 * Math.PI;
    const long = turn > 0 ? Math.abs(sweep) * r : Math.hypot(x - px, y - py);
    const n = Math.max(1, Math.ceil(long / (turn > 0 ? Math.min(step, r / 20) : step)));
    for (let i = 1; i <= n; i++) {
      const t = i / n;
      out.push(
        turn > 0
          ? [cx + r * Math.cos(a + t * sweep), cy + r * Math.sin(a + t * sweep), pz + t * (z - pz)]
          : [px + t * (x - px), py + t * (y - py), pz + t * (z - pz)],
      );
    }
  }
  return out;
}

/** Distance of a place from a polyline in the plane, by every one of its segments. */
function distanceTo(m: Float64Array, x: number, y: number): number {
  let least = Infinity;
  for (let k = 4; k < m.length; k += 4) {
    const [ax, ay, dx, dy] = [m[k - 4], m[k - 3], m[k] - m[k - 4], m[k + 1] - m[k - 3]];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / l2)) : 0;
    least = Math.min(least, Math.hypot(x - ax - t * dx, y - ay - t * dy));
  }
  return least;
}

test('a circle becomes two arcs, a helix arcs that sink, a square four lines', () => {
  const circle = fitArcs(
    movesOf((t) => [20 * Math.cos(2 * Math.PI * t), 20 * Math.sin(2 * Math.PI * t), -1], 200),
    TOLERANCE,
  );
  expect(circle.length / BLOCK).toBeLessThanOrEqual(4);
  for (let k = BLOCK; k < 2 * BLOCK; k += BLOCK) {
    expect(circle[k + 4]).toBe(3);
    expect(Math.hypot(circle[k + 5], circle[k + 6])).toBeLessThan(0.01);
  }
  const helix = fitArcs(
    movesOf((t) => [5 * Math.cos(-9 * t), 5 * Math.sin(-9 * t), -3 * t], 200),
    TOLERANCE,
  );
  expect(helix.length / BLOCK).toBeLessThanOrEqual(6);
  expect(helix[BLOCK + 4]).toBe(2);
  const corners = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
    [0, 0],
  ];
  const square = fitArcs(
    movesOf((t) => {
      const i = Math.min(3, Math.floor(4 * t));
      const u = 4 * t - i;
      const [a, b] = [corners[i], corners[i + 1]];
      return [a[0] + u * (b[0] - a[0]), a[1] + u * (b[1] - a[1]), 0];
    }, 80),
    TOLERANCE,
  );
  expect(square.length / BLOCK).toBe(5);
});

test('rapids, upright moves and changes of feed stay where they are', () => {
  const m = Float64Array.from(
    [
      [0, 0, 5, 0],
      [3, 0, 5, 0],
      [3, 0, -1, 300],
      [6, 0, -1, 900],
      [9, 0, -1, 900],
      [12, 0, -1, 500],
      [12, 0, 5, 0],
    ].flat(),
  );
  const b = fitArcs(m, TOLERANCE);
  expect(
    Array.from({ length: b.length / BLOCK }, (_, i) => [b[i * BLOCK], b[i * BLOCK + 2], b[i * BLOCK + 3]]),
  ).toEqual([
    [0, 5, 0],
    [3, 5, 0],
    [3, -1, 300],
    [9, -1, 900],
    [12, -1, 500],
    [12, 5, 0],
  ]);
});

test('no block lies further than the tolerance from the curve, and no point of the curve from the blocks (property)', () => {
  const bezier = fc.array(fc.tuple(fc.integer({ min: -40, max: 40 }), fc.integer({ min: -40, max: 40 })), {
    minLength: 4,
    maxLength: 10,
  });
  fc.assert(
    fc.property(bezier, fc.integer({ min: 20, max: 300 }), fc.constantFrom(0.005, 0.01, 0.05), (p, n, tolerance) => {
      // A chain of quadratic curves with corners between them.
      const moves = movesOf((t) => {
        const parts = Math.floor((p.length - 1) / 2);
        const i = Math.min(parts - 1, Math.floor(t * parts));
        const u = t * parts - i;
        const [a, b, c] = [p[2 * i], p[2 * i + 1], p[2 * i + 2]];
        const at = (k: 0 | 1) => (1 - u) ** 2 * a[k] + 2 * u * (1 - u) * b[k] + u * u * c[k];
        return [at(0), at(1), -t];
      }, n);
      const blocks = fitArcs(moves, tolerance);
      const ends = blocks.length / BLOCK;
      expect(ends).toBeLessThanOrEqual(moves.length / 4);
      for (const k of [0, 1, 2]) expect(blocks[(ends - 1) * BLOCK + k]).toBe(moves[moves.length - 4 + k]);
      const places = placesOf(blocks, 0.25);
      for (const [x, y] of places) expect(distanceTo(moves, x, y)).toBeLessThan(tolerance + 1e-6);
      const line = Float64Array.from(places.flatMap((q) => [...q, 1]));
      // Chords of a quarter of a millimetre lie off an arc of 8 mm by a thousandth, those of a smaller one by 1 / 3200 of its radius.
      for (let k = 0; k < moves.length; k += 4)
        expect(distanceTo(line, moves[k], moves[k + 1])).toBeLessThan(tolerance + 0.01);
    }),
    { numRuns: 150 },
  );
});

test('arcs as written keep to RS-274: both ends at one radius, centre from the start (NIST IR 6556, from memory)', () => {
  // The report's own rule for centre-format arcs: radii at both ends may differ by 0.002 in or 0.02 mm at most.
  const read = (line: string) => readProgram(`G21 G90\nG0 X0 Y0 Z0 M3 S1000\n${line}\n`, 'p.nc');
  expect(() => read('G2 X10 Y0 I5 J0 F100')).not.toThrow();
  expect(() => read('G2 X10 Y0 I5.2 J0 F100')).toThrow('ends lie');
});
