import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Layer, PLAIN_LAYER, type Seat } from '../doc/layer';
import { boardGrid, type Grid } from '../field/height-field';
import { localHost } from '../kernels/host';
import { type Surface, surfaceFacts } from './compose';
import { detailOf, FINE, largerFor } from './detail';
import { Arrangement } from './engine';
import { scaleWords } from './kinds/words/scale';
import { splitLines } from './kinds/words/split';
import { fitUniformly, ledgerOf, pressTo, seatedDepth } from './ledger';
import { duplicateLayer, mirroredCopy, NEW_WORDS, newShape, newWords, resizeLayer } from './new-layer';
import { boundsOf } from './place';
import { solidOf, thinSurface } from './solid';

const board = { x: 120, y: 80 };
const raised: Seat = { mode: 'raised', skin: 0.5, drop: 0, press: null };
const dome = (id: string, more: Partial<Layer> = {}): Layer => ({
  ...newShape({ id: id, name: id }, { kind: 'oval' }, { kind: 'dome' }, board, { share: 0.4 }),
  ...more,
});

function surfaceOf(layers: Layer[], seat: Seat = raised, cell = 1): Surface {
  const a = new Arrangement(boardGrid(board.x, board.y, cell), () => ({}));
  a.update(layers, seat);
  return a.surface;
}

test('the ledger adds up to the board: skin, highest and backing, and the share used', () => {
  const layers = [dome('a', { rise: 6 }), dome('b', { rise: 3, lift: 1, join: 'carve' }), dome('c', { hidden: true })];
  const l = ledgerOf(layers, raised, 19, surfaceFacts(surfaceOf([layers[0]])));
  expect(l.skin + l.depth + l.backing).toBeCloseTo(19, 9);
  expect(l.depth).toBeCloseTo(6, 1);
  expect(l.used).toBeCloseTo((l.depth + 0.5) / 19, 9);
  expect(l.lines.map((e) => [e.id, e.lift, e.rise, e.top])).toEqual([
    ['a', 0, 6, 6],
    ['b', 1, 3, -4],
  ]);
  const sunk: Seat = { mode: 'sunk', skin: 0, drop: 2, press: null };
  expect(seatedDepth(sunk, { peak: 0, low: -5 })).toBe(7);
});

test('fit to depth by one factor scales the whole composite with it, whatever the joins', () => {
  const join = fc.constantFrom<Layer['join']>('stack', 'carve', 'highest', 'lowest', 'blend');
  const any = fc.record({
    join,
    rise: fc.integer({ min: 1, max: 8 }),
    lift: fc.integer({ min: 0, max: 4 }),
    x: fc.integer({ min: 30, max: 90 }),
    amount: fc.constantFrom(0.5, 1),
    slope: fc.constantFrom(0, 4),
  });
  fc.assert(
    fc.property(fc.array(any, { minLength: 1, maxLength: 4 }), fc.constantFrom(0.5, 1.5), (all, k) => {
      const layers = all.map((a, i) =>
        dome(`l${i}`, {
          join: i === 0 ? 'stack' : a.join,
          rise: a.rise,
          lift: a.lift,
          amount: a.amount,
          slope: { x: a.slope, y: 0 },
          centre: { x: a.x, y: 40 },
        }),
      );
      const was = surfaceOf(layers);
      fitUniformly(layers, 10, 10 * k);
      const now = surfaceOf(layers);
      let worst = 0;
      for (let i = 0; i < was.z.length; i++) worst = Math.max(worst, Math.abs(now.z[i] - was.z[i] * k));
      expect(worst).toBeLessThan(0.005);
    }),
    { numRuns: 25 },
  );
});

test('pressed to a depth: the top comes to it exactly, what lies below the knee stays', () => {
  const layers = [dome('a', { rise: 9 })];
  const s = surfaceOf(layers);
  const { peak } = surfaceFacts(s);
  const press = pressTo(peak, 6, 4)!;
  const t = surfaceOf(layers, { ...raised, press });
  expect(surfaceFacts(t).peak).toBeCloseTo(6, 3);
  expect(t.z.every((v, k) => s.z[k] > 4 || v === s.z[k])).toBe(true);
  expect(pressTo(5, 6, 4)).toBeNull();
  expect(() => pressTo(9, 4, 4)).toThrow('4 mm is not above 4 mm');
});

/** Volume under a solid by the divergence theorem, from its triangles alone. */
function volumeOf(v: Float32Array): number {
  let sum = 0;
  for (let t = 0; t < v.length; t += 9)
    sum +=
      v[t] * (v[t + 4] * v[t + 8] - v[t + 5] * v[t + 7]) +
      v[t + 1] * (v[t + 5] * v[t + 6] - v[t + 3] * v[t + 8]) +
      v[t + 2] * (v[t + 3] * v[t + 7] - v[t + 4] * v[t + 6]);
  return sum / 6;
}

/** Every directed edge and how often it is run along. */
function edges(v: Float32Array): Map<string, number> {
  const out = new Map<string, number>();
  const corner = (i: number) => `${v[i]},${v[i + 1]},${v[i + 2]}`;
  for (let t = 0; t < v.length; t += 9) {
    for (let e = 0; e < 3; e++) {
      const key = `${corner(t + 3 * e)}|${corner(t + 3 * ((e + 1) % 3))}`;
      out.set(key, (out.get(key) ?? 0) + 1);
    }
  }
  return out;
}

function isClosed(v: Float32Array): boolean {
  const all = edges(v);
  for (const [key, n] of all) {
    const [a, b] = key.split('|');
    if (n !== 1 || all.get(`${b}|${a}`) !== 1) return false;
  }
  return all.size > 0;
}

test('the model is closed, each edge shared by two triangles, and holds the integral of the heights', () => {
  const grid: Grid = { width: 14, height: 11, cell: 0.5, originX: 0, originY: 0 };
  const n = grid.width * grid.height;
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 80 }), { minLength: n, maxLength: n }),
      fc.array(fc.boolean(), { minLength: n, maxLength: n }),
      fc.boolean(),
      (h, c, all) => {
        const z = Float32Array.from(h, (v) => v / 8);
        const cover = Uint8Array.from(c, (v) => (all || v ? 1 : 0));
        const solid = solidOf(grid, z, cover, -2);
        if (solid.length === 0) return;
        expect(isClosed(solid)).toBe(true);
        if (!all) return;
        // Two triangles a square: the mean of their corners' heights over the square's halves.
        let integral = 0;
        for (let j = 0; j + 1 < grid.height; j++) {
          for (let i = 0; i + 1 < grid.width; i++) {
            const at = (a: number, b: number) => z[(j + b) * grid.width + i + a] + 2;
            integral +=
              (((at(0, 0) + at(1, 0) + at(1, 1)) / 3 + (at(0, 0) + at(1, 1) + at(0, 1)) / 3) * (0.5 * 0.5)) / 2;
          }
        }
        expect(volumeOf(solid)).toBeCloseTo(integral, 3);
      },
    ),
    { numRuns: 60 },
  );
});

test('the model of a composite is closed, and its volume is that of the shape in closed form', () => {
  const s = surfaceOf(
    [{ ...newShape({ id: 'p', name: 'p' }, { kind: 'oval' }, { kind: 'flat' }, board, { share: 0.8 }), rise: 5 }],
    raised,
    0.5,
  );
  const solid = solidOf(s.grid, s.z, s.cover, -1);
  expect(isClosed(solid)).toBe(true);
  const plan = (Math.PI * 96 * 64) / 4;
  // Squares reach to the middles of the outermost cells: half a cell less all around.
  expect(Math.abs(volumeOf(solid) / (plan * 6) - 1)).toBeLessThan(0.02);
  const thin = thinSurface(s.grid, s.z, s.cover, 4);
  expect(thin.grid.cell).toBe(2);
  expect(isClosed(solidOf(thin.grid, thin.z, thin.cover, -1))).toBe(true);
  expect(solidOf(s.grid, s.z, new Uint8Array(s.z.length), -1)).toHaveLength(0);
});

/** Parallel grooves of half-round bottoms. */
function grooves(radius: number): Surface {
  const grid: Grid = { width: 200, height: 40, cell: 0.1, originX: 0, originY: 0 };
  const z = new Float32Array(8000);
  for (let k = 0; k < z.length; k++) {
    const x = (((k % 200) * 0.1) % (4 * radius)) - 2 * radius;
    z[k] = Math.abs(x) < radius ? 5 - Math.sqrt(radius * radius - x * x) : 5;
  }
  return { grid, z, cover: new Uint8Array(z.length).fill(1), clipped: new Float32Array(z.length) };
}

test('a ball reaches grooves as round as itself and rounder, and fills finer ones', async () => {
  const ball = (d: number) => ({ shape: 1 as const, R: d / 2, p0: 0, p1: 0, p2: 0 });
  const fits = await detailOf(grooves(2), ball(2), 0.05, localHost);
  // Half-round grooves stand upright at their rims: one cell beside each is not met.
  expect(fits.missed).toBeLessThan(0.03);
  const fine = await detailOf(grooves(0.5), ball(3), 0.05, localHost);
  expect(fine.missed).toBeGreaterThan(0.3);
  // Over a groove of half width w a ball of radius R hangs R - sqrt(R^2 - w^2) deep.
  const deepest = Math.max(...fine.left);
  expect(deepest).toBeCloseTo(0.5 - (1.5 - Math.sqrt(1.5 ** 2 - 0.5 ** 2)), 1);
  // Waves of period 8 and height 1 are at their tightest as round as P^2 / (4 pi^2) = 1.62 mm: a ball of 1.5 mm meets them, one of
  // 3 mm does when they are not quite twice as large.
  const waves = { ...grooves(2) };
  waves.z = waves.z.map((_, k) => 5 + Math.cos((2 * Math.PI * (k % 200) * 0.1) / 8));
  expect(await largerFor(waves, ball(3), 0.05, localHost)).toBe(1);
  const larger = (await largerFor(waves, ball(6), 0.05, localHost))!;
  expect(larger).toBeGreaterThan(1.2);
  expect(larger).toBeLessThan(1.9);
  expect(await largerFor(waves, ball(40), 0.05, localHost)).toBeNull();
  expect(FINE).toBe(0.01);
});

test('new layers lie in the middle; copies, mirrors, sizes and split lines keep what they should', () => {
  const panel = newShape({ id: 'p', name: 'Panel' }, { kind: 'rounded', radius: 8 }, { kind: 'flat' }, board);
  expect(panel.centre).toEqual({ x: 60, y: 40 });
  expect(panel.size).toEqual({ x: 96, y: 64 });
  expect(newShape({ id: 'c', name: 'C' }, { kind: 'circle' }, { kind: 'flat' }, board, { share: 0.5 }).size).toEqual({
    x: 40,
    y: 40,
  });
  const copy = duplicateLayer(panel, 'q');
  expect(copy).toMatchObject({ id: 'q', name: 'Panel copy', centre: { x: 65, y: 35 } });
  copy.size.x = 1;
  expect(panel.size.x).toBe(96);
  const ear = dome('e', { turn: -24, centre: { x: 20, y: 30 } });
  const right = mirroredCopy(ear, 'r', 'x', board);
  expect(right).toMatchObject({ turn: 24, mirror: true, centre: { x: 100, y: 30 } });
  const [a, b] = [boundsOf(ear), boundsOf(right)];
  expect(a.x0 + b.x1).toBeCloseTo(120, 6);
  const far = mirroredCopy(ear, 'f', 'y', board);
  expect(far.centre).toEqual({ x: 20, y: 50 });
  expect(boundsOf(far).y1 + a.y0).toBeCloseTo(80, 6);
  resizeLayer(panel, 0.5, 2);
  expect(panel.size).toEqual({ x: 48, y: 128 });
});

test('a mirrored copy is the mirror image of what it copies, cell by cell', () => {
  const grid = boardGrid(board.x, board.y, 1);
  const lopsided: Layer = {
    ...newShape({ id: 'a', name: 'a' }, { kind: 'path', d: 'M 0 0 H 30 L 10 40 Z' }, { kind: 'dome' }, board, {
      share: 0.3,
    }),
    turn: 20,
    rise: 6,
    slope: { x: 3, y: -2 },
    centre: { x: 31, y: 34 },
  };
  for (const axis of ['x', 'y'] as const) {
    const one = new Arrangement(grid, () => ({}));
    one.update([lopsided], raised);
    const other = new Arrangement(grid, () => ({}));
    other.update([mirroredCopy(lopsided, 'm', axis, board)], raised);
    let differ = 0;
    for (let j = 0; j < grid.height; j++) {
      for (let i = 0; i < grid.width; i++) {
        const k = axis === 'x' ? j * grid.width + grid.width - 1 - i : (grid.height - 1 - j) * grid.width + i;
        if (Math.abs(one.surface.z[j * grid.width + i] - other.surface.z[k]) > 1e-3) differ++;
      }
    }
    expect(differ, axis).toBeLessThan(4);
  }
});

test('words grow with their spaces and their line, and are split into lines where they stood', () => {
  const w = {
    ...NEW_WORDS,
    text: 'AB\nC',
    nudges: { '1': 2, '3': -1 },
    spacing: 0.5,
    line: { kind: 'arc', radius: 50, under: false } as const,
  };
  const big = scaleWords(w, 2);
  expect(big).toMatchObject({ height: 24, spacing: 1, nudges: { '1': 4, '3': -2 }, line: { radius: 100 } });
  expect(scaleWords({ ...w, line: { kind: 'curve', d: 'M 0 0 L 10 5' } }, 2).line).toMatchObject({ d: 'M0 0L20 10' });
  const layer = newWords('w', { ...NEW_WORDS, text: 'AB\nC', nudges: { '1': 2, '3': -1 } }, { x: 30, y: 40 }, board);
  expect(layer.name).toBe('AB');
  resizeLayer(layer, 1.5, 1);
  expect(layer.size).toEqual({ x: 45, y: 60 });
  const lines = splitLines(
    layer,
    ['l1', 'l2'],
    [
      { x: 45, y: 18 },
      { x: 15, y: 18 },
    ],
  );
  expect(lines.map((l) => l.name)).toEqual(['AB', 'C']);
  const text = (l: Layer) => (l.source.kind === 'words' ? l.source.words : NEW_WORDS);
  expect(text(lines[0]).nudges).toEqual({ '1': 3 });
  expect(text(lines[1]).nudges).toEqual({ '0': -1.5 });
  const apart = lines[0].centre.y - lines[1].centre.y;
  expect(apart).toBeCloseTo(1.6 * 18, 6);
  expect(PLAIN_LAYER.join).toBe('stack');
});
