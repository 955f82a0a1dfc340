import fc from 'fast-check';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { type Layer, PLAIN_LAYER } from '../doc/layer';
import type { ReliefOf } from '../doc/relief-of';
import { AIR, boardGrid, type Grid } from '../field/height-field';
import { outlinePolygon } from '../outline/shapes';
import type { HeightImage } from '../sources/height-image';
import type { Mesh } from '../sources/mesh';
import { copiesOf } from './copies';
import type { Content } from './kinds/kind';
import { rasterOf } from './kinds/mesh/piece';
import type { MeshSource } from './kinds/mesh/schema';
import { formOf } from './relief-of';
import { renderLayer } from './render';
import type { Rendered } from './rendered';
import { BELOW, joinWindows, windowOf } from './window';

const board = boardGrid(60, 40, 0.5);

function shape(relief: ReliefOf, more: Partial<Layer> = {}): Layer {
  return {
    ...PLAIN_LAYER,
    id: 'a',
    name: 'A',
    source: { kind: 'shape', outline: { kind: 'oval' }, edge: { kind: 'plain' }, relief },
    size: { x: 40, y: 24 },
    rise: 5,
    centre: { x: 30, y: 20 },
    ...more,
  };
}

/** A layer's height at a place of the board, by the nearest cell; null where it has nothing. */
function at(r: Rendered, x: number, y: number, grid: Grid = board): number | null {
  const i = Math.round((x - grid.originX) / grid.cell) - r.window.i;
  const j = Math.round((y - grid.originY) / grid.cell) - r.window.j;
  if (i < 0 || j < 0 || i >= r.window.width || j >= r.window.height) return null;
  const h = r.heights[j * r.window.width + i];
  return h === AIR ? null : h;
}

const covered = (r: Rendered) => r.heights.reduce((n, h) => n + (h === AIR ? 0 : 1), 0);

test('a flat shape covers its area, on the cells whose middles lie in it, at its rise', () => {
  const r = renderLayer(shape({ kind: 'flat' }), {}, board);
  expect(Math.abs(covered(r) * 0.25 - (Math.PI * 40 * 24) / 4)).toBeLessThan(8);
  for (const h of r.heights) expect(h === AIR || h === 5).toBe(true);
  expect(r.weight).toBeNull();
});

test('borders follow the distance from the edge of a circle, in closed form', () => {
  const forms: [ReliefOf, (u: number) => number][] = [
    [{ kind: 'bevel', width: 6, band: false }, (u) => u],
    [{ kind: 'cove', width: 6, band: false }, (u) => 1 - Math.sqrt(1 - u * u)],
    [
      { kind: 'ogee', width: 6, band: false },
      (u) => (u < 0.5 ? (1 - Math.sqrt(1 - 4 * u * u)) / 2 : (1 + Math.sqrt(1 - (2 - 2 * u) ** 2)) / 2),
    ],
    [{ kind: 'bead', width: 6, band: false }, (u) => Math.sqrt(1 - (2 * u - 1) ** 2)],
  ];
  for (const [relief, form] of forms) {
    const l = shape(relief, {
      source: { kind: 'shape', outline: { kind: 'circle' }, edge: { kind: 'plain' }, relief },
      size: { x: 30, y: 30 },
    });
    const r = renderLayer(l, {}, board);
    for (let j = 0; j < r.window.height; j++) {
      for (let i = 0; i < r.window.width; i++) {
        const h = r.heights[j * r.window.width + i];
        const x = board.originX + (r.window.i + i) * board.cell - 30;
        const y = board.originY + (r.window.j + j) * board.cell - 20;
        const edge = 15 - Math.hypot(x, y);
        if (Math.abs(edge) < 0.02 || h === AIR) continue;
        const u = edge / 6;
        const want = u >= 1 ? (relief.kind === 'bead' ? 0 : 1) : form(u);
        // The chords of the circle lie up to the curve's tolerance inside it; where a round form stands upright a hair sideways is much in height.
        expect(Math.abs(h / 5 - want), `${relief.kind} at ${edge}`).toBeLessThan(
          [0, 0.5, 1].some((v) => Math.abs(u - v) < 0.05) ? 0.12 : 0.01,
        );
      }
    }
  }
});

test('a dome and a dish are halves of the same ball, and bands leave the middle free', () => {
  const dome = renderLayer(shape({ kind: 'dome' }), {}, board);
  const dish = renderLayer(shape({ kind: 'dish' }), {}, board);
  for (let k = 0; k < dome.heights.length; k++)
    if (dome.heights[k] !== AIR) expect(dome.heights[k] + dish.heights[k]).toBeCloseTo(5, 4);
  expect(at(dome, 30, 20)).toBeCloseTo(5, 2);
  for (const kind of ['bevel', 'cove', 'ogee', 'bead'] as const) {
    const r = renderLayer(shape({ kind, width: 4, band: true }), {}, board);
    expect(at(r, 30, 20), kind).toBeNull();
    expect(at(r, 12, 20), kind).not.toBeNull();
  }
  for (const kind of ['rope', 'pearls'] as const) {
    const r = renderLayer(shape({ kind, width: 4, pitch: 5, band: true }), {}, board);
    expect(at(r, 30, 20), kind).toBeNull();
    expect(Math.max(...r.heights), kind).toBeGreaterThan(4.5);
  }
});

test('all forms keep within 0 to 1 everywhere, and repeats meet where a ring closes', () => {
  const forms: ReliefOf[] = [
    { kind: 'flat' },
    { kind: 'dome' },
    { kind: 'dish' },
    { kind: 'bevel', width: 3, band: false },
    { kind: 'cove', width: 3, band: false },
    { kind: 'ogee', width: 3, band: false },
    { kind: 'bead', width: 3, band: false },
    { kind: 'rope', width: 3, pitch: 4, band: false },
    { kind: 'pearls', width: 3, pitch: 4, band: false },
    { kind: 'shell', ribs: 9 },
    { kind: 'flutes', pitch: 5 },
    { kind: 'weave', pitch: 6 },
    { kind: 'gouge', length: 9, width: 5, seed: 2 },
    { kind: 'ripples', pitch: 7 },
    { kind: 'vee', angle: 60 },
  ];
  const spot = fc.record({
    x: fc.double({ min: -30, max: 30, noNaN: true }),
    y: fc.double({ min: -20, max: 20, noNaN: true }),
    edge: fc.double({ min: 0, max: 12, noNaN: true }),
    along: fc.double({ min: 0, max: 99.99, noNaN: true }),
    ring: fc.constant(100),
  });
  fc.assert(
    fc.property(fc.constantFrom(...forms), spot, (f, s) => {
      const h = formOf(f, 12, { x: 60, y: 40, rise: 5 })(s);
      expect(h).not.toBeNull();
      expect(h!).toBeGreaterThanOrEqual(0);
      expect(h!).toBeLessThanOrEqual(1 + 1e-9);
    }),
    { numRuns: 2000 },
  );
  for (const f of forms.filter((q) => q.kind === 'rope' || q.kind === 'pearls')) {
    const near = { x: 0, y: 0, edge: 1, ring: 100 };
    const first = formOf(f, 12, { x: 60, y: 40, rise: 5 })({ ...near, along: 1e-6 })!;
    const last = formOf(f, 12, { x: 60, y: 40, rise: 5 })({ ...near, along: 100 - 1e-6 })!;
    expect(first).toBeCloseTo(last, 3);
  }
  // Gouge marks are the same each time, and others with another seed.
  const mark = (seed: number) =>
    formOf({ kind: 'gouge', length: 9, width: 5, seed }, 12, { x: 60, y: 40, rise: 5 })({
      x: 3.3,
      y: 2.1,
      edge: 9,
      along: 0,
      ring: 1,
    });
  expect(mark(4)).toBe(mark(4));
  expect([1, 2, 3, 4, 5].map(mark).filter((v) => v === mark(1)).length).toBeLessThan(5);
});

/** A wedge: heights 0 at the left to 1 at the right, as an image. */
function wedge(width: number, height: number): HeightImage {
  const values = new Float32Array(width * height);
  for (let j = 0; j < height; j++) for (let i = 0; i < width; i++) values[j * width + i] = (i + 0.5) / width;
  return { width, height, depth: 16, values };
}

function imageLayer(more: Partial<Layer> = {}, blackIsGround = false): Layer {
  const tone = {
    black: 0,
    white: 1,
    gamma: 1,
    invert: false,
    noise: 0,
    smooth: 0,
    smoothBelow: 0.1,
    terraces: false,
    cutout: { threshold: null, light: false, strokes: [] },
  };
  return {
    ...shape({ kind: 'flat' }),
    source: { kind: 'image', file: 'w.png', hash: '0'.repeat(64), blackIsGround, tone },
    size: { x: 40, y: 20 },
    rise: 4,
    ...more,
  };
}

test('an image is stretched over its box, its first row the far one, turned and mirrored as told', () => {
  const image = wedge(80, 40);
  const plain = renderLayer(imageLayer(), { image }, board);
  expect(at(plain, 20, 20)).toBeCloseTo(4 * 0.25, 1);
  expect(at(plain, 40, 20)).toBeCloseTo(4 * 0.75, 1);
  const mirrored = renderLayer(imageLayer({ mirror: true }), { image }, board);
  expect(at(mirrored, 20, 20)).toBeCloseTo(4 * 0.75, 1);
  const quarter = renderLayer(imageLayer({ turn: 90, size: { x: 30, y: 20 } }), { image }, board);
  expect(at(quarter, 30, 12)!).toBeLessThan(at(quarter, 30, 28)!);
  // The first row is dark here: it lies at the far side.
  const rows: HeightImage = { ...image, values: image.values.map((_, k) => (k < 80 * 20 ? 0.1 : 0.9)) };
  const r = renderLayer(imageLayer(), { image: rows }, board);
  expect(at(r, 30, 27)!).toBeLessThan(at(r, 30, 13)!);
  const inverted = renderLayer(imageLayer({ invert: true }), { image }, board);
  expect(at(inverted, 20, 20)! + at(plain, 20, 20)!).toBeCloseTo(4, 4);
});

test('black ground does not belong to a relief that says so', () => {
  const image = { ...wedge(80, 40), values: wedge(80, 40).values.map((v) => (v < 0.5 ? 0 : v)) };
  const r = renderLayer(imageLayer({}, true), { image }, board);
  expect(at(r, 18, 20)).toBeNull();
  expect(at(r, 45, 20)).not.toBeNull();
  expect(at(renderLayer(imageLayer(), { image }, board), 18, 20)).toBe(0);
});

test('an image brought down to the grid is close to what sharp makes of it', async () => {
  const [width, height] = [480, 240];
  const values = Float32Array.from({ length: width * height }, (_, k) => {
    const [x, y] = [k % width, Math.floor(k / width)];
    return 0.5 + 0.25 * Math.sin(x / 17) + 0.2 * Math.cos((x + 2 * y) / 31);
  });
  const grid: Grid = { width: 80, height: 40, cell: 0.5, originX: 10.25, originY: 10.25 };
  const r = renderLayer(imageLayer({ rise: 1 }), { image: { width, height, depth: 16, values } }, grid);
  const bytes = Uint16Array.from(values, (v) => Math.round(v * 65535));
  const small = await sharp(bytes, { raw: { width, height, channels: 1 } })
    .resize(80, 40, { kernel: 'linear' })
    .toColourspace('grey16')
    .raw({ depth: 'ushort' })
    .toBuffer();
  const theirs = new Uint16Array(small.buffer, small.byteOffset, 80 * 40);
  let worst = 0;
  for (let j = 1; j < 39; j++) {
    for (let i = 1; i < 79; i++) {
      const ours = r.heights[(j - r.window.j) * r.window.width + i - r.window.i];
      worst = Math.max(worst, Math.abs(ours - theirs[(39 - j) * 80 + i] / 65535));
    }
  }
  // Two ways to take a mean of 6 x 6 pixels: a box of even samples, and a triangle twice as wide.
  expect(worst).toBeLessThan(0.015);
});

/** A pyramid of four sides on a square of 10 mm, 6 high, its foot 2 below zero. */
const pyramid: Mesh = (() => {
  const top = [0, 0, 4];
  const feet = [
    [-5, -5, -2],
    [5, -5, -2],
    [5, 5, -2],
    [-5, 5, -2],
  ];
  return { triangles: Float32Array.from(feet.flatMap((f, i) => [...f, ...feet[(i + 1) % 4], ...top])) };
})();
const meshSource: MeshSource = {
  kind: 'mesh',
  file: 'p.stl',
  hash: '0'.repeat(64),
  unit: 'mm',
  turns: [0, 0, 0],
  flip: false,
  base: 0,
};

test('a mesh is scaled to its size and rise; what lies under its base is lost, and said', () => {
  const l: Layer = { ...shape({ kind: 'flat' }), source: meshSource, size: { x: 20, y: 20 }, rise: 3 };
  const r = renderLayer(l, { mesh: pyramid }, board);
  // A pyramid's height falls evenly with the larger of |x| and |y|.
  for (const [x, y] of [
    [30.25, 20.25],
    [34.25, 20.25],
    [30.25, 27.25],
    [36.25, 25.25],
  ]) {
    expect(at(r, x, y)).toBeCloseTo(3 * (1 - Math.max(Math.abs(x - 30), Math.abs(y - 20)) / 10), 3);
  }
  expect(r.lostPlan).toBe(0);
  // With the base half way up, what remains is a pyramid of half the width; the rest of its plan is lost.
  const cut = renderLayer({ ...l, source: { ...meshSource, base: 0.5 } }, { mesh: pyramid }, board);
  expect(cut.lostPlan).toBeCloseTo(0.75, 1);
  expect(at(cut, 38, 20)).toBeNull();
  expect(at(cut, 30.25, 20.25)).toBeCloseTo(3 * (1 - (2 * 0.25) / 10), 3);
});

test('a mesh seen through its picture is the mesh itself, to a cell of the picture', () => {
  const raster = rasterOf(pyramid, { ...meshSource, base: 0.25 }, 400);
  expect([raster.width, raster.height]).toEqual([400, 400]);
  expect(raster.data[0]).toBe(BELOW);
  const l: Layer = {
    ...shape({ kind: 'flat' }),
    source: { ...meshSource, base: 0.25 },
    size: { x: 20, y: 20 },
    rise: 3,
    turn: 25,
  };
  const exact = renderLayer(l, { mesh: pyramid }, board);
  const seen = renderLayer(l, { raster }, board);
  let differ = 0;
  for (let y = 8; y < 32; y += 0.5) {
    for (let x = 18; x < 42; x += 0.5) {
      const [a, b] = [at(exact, x, y), at(seen, x, y)];
      if ((a === null) !== (b === null)) differ++;
      else if (a !== null) expect(Math.abs(a - b!)).toBeLessThan(0.02);
    }
  }
  expect(differ).toBeLessThan(30);
  expect(seen.lostPlan).toBeCloseTo(exact.lostPlan, 1);
});

test('slopes raise one side of a layer, thinning gives a weight that grows from its edge', () => {
  const flat = shape(
    { kind: 'flat' },
    {
      source: { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: { kind: 'flat' } },
      size: { x: 30, y: 20 },
    },
  );
  const sloped = renderLayer({ ...flat, slope: { x: 10, y: -5 } }, {}, board);
  for (const [x, y] of [
    [20.25, 15.25],
    [40.25, 25.25],
    [30.25, 20.25],
  ]) {
    const want = 5 + (x - 30) * Math.tan((10 * Math.PI) / 180) + (y - 20) * Math.tan((-5 * Math.PI) / 180);
    expect(at(sloped, x, y)).toBeCloseTo(want, 4);
  }
  const thinned = renderLayer({ ...flat, thin: 4 }, {}, board);
  const weight = (x: number, y: number) => {
    const w = thinned.window;
    return thinned.weight![
      (Math.round((y - board.originY) / 0.5) - w.j) * w.width + Math.round((x - board.originX) / 0.5) - w.i
    ];
  };
  expect(weight(30.25, 20.25)).toBe(1);
  // Smooth from 0 at the edge to 1 at four millimetres: half at two.
  expect(weight(17.25, 20.25)).toBeCloseTo((2.25 / 4) ** 2 * (3 - (2 * 2.25) / 4), 3);
  expect(weight(15.25, 20.25)).toBeLessThan(0.02);
});

test('masks: an outline that goes with the layer, and another silhouette larger by a number', () => {
  const flat = shape({ kind: 'flat' }, { size: { x: 50, y: 36 } });
  const within = renderLayer(
    { ...flat, mask: { kind: 'outline', outline: { kind: 'rectangle' }, x: 10, y: 8, dx: 5, dy: 0, outside: false } },
    {},
    board,
  );
  expect(covered(within) * 0.25).toBeCloseTo(80, 0);
  expect(at(within, 35, 20)).toBe(5);
  expect(at(within, 28, 20)).toBeNull();
  const other = renderLayer(
    shape(
      { kind: 'flat' },
      {
        source: { kind: 'shape', outline: { kind: 'circle' }, edge: { kind: 'plain' }, relief: { kind: 'flat' } },
        size: { x: 10, y: 10 },
      },
    ),
    {},
    board,
  );
  const radius = (grow: number, outside: boolean) =>
    renderLayer({ ...flat, mask: { kind: 'layer', layer: 'b', grow, outside } }, {}, board, other);
  for (const grow of [0, 3, -2])
    expect(Math.abs(Math.sqrt((covered(radius(grow, false)) * 0.25) / Math.PI) - 5 - grow)).toBeLessThan(0.35);
  const [out, inn] = [radius(3, true), radius(3, false)];
  expect(covered(out) + covered(inn)).toBe(covered(renderLayer(flat, {}, board)));
});

test('copies stand where they are said to: rows, a ring, along a stroke', () => {
  expect(copiesOf({ kind: 'rows', columns: 3, rows: 2, dx: 10, dy: 6 }).map((c) => [c.dx, c.dy])).toEqual([
    [-10, -3],
    [0, -3],
    [10, -3],
    [-10, 3],
    [0, 3],
    [10, 3],
  ]);
  const ring = copiesOf({ kind: 'ring', count: 4, radius: 8, turning: true });
  expect(ring.map((c) => [Math.round(c.dx) + 0, Math.round(c.dy) + 0, c.turn + 0])).toEqual([
    [0, 8, 0],
    [8, 0, -90],
    [0, -8, -180],
    [-8, 0, -270],
  ]);
  const path = copiesOf({ kind: 'path', count: 3, d: 'M -20 0 H 20', turning: true });
  expect(path.map((c) => [c.dx, c.dy + 0, c.turn])).toEqual([
    [-20, 0, 0],
    [0, 0, 0],
    [20, 0, 0],
  ]);
  const small = shape(
    { kind: 'flat' },
    { size: { x: 6, y: 4 }, copies: { kind: 'rows', columns: 3, rows: 2, dx: 12, dy: 10 } },
  );
  const one = covered(renderLayer({ ...small, copies: { kind: 'one' } }, {}, board));
  expect(Math.abs(covered(renderLayer(small, {}, board)) - 6 * one)).toBeLessThan(24);
});

test('windows hold what they are asked for, and several as one', () => {
  const w = windowOf(board, 10, 10, 20, 15);
  expect(board.originX + w.i * 0.5).toBeLessThanOrEqual(10);
  expect(board.originX + (w.i + w.width - 1) * 0.5).toBeGreaterThanOrEqual(20);
  expect(windowOf(board, -30, 0, -10, 5).width).toBe(0);
  expect(joinWindows([w, { i: 0, j: 0, width: 0, height: 0 }])).toEqual(w);
  expect(
    joinWindows([
      { i: 1, j: 2, width: 3, height: 4 },
      { i: 6, j: 0, width: 1, height: 1 },
    ]),
  ).toEqual({ i: 1, j: 0, width: 6, height: 6 });
});

test('words are their polygon', () => {
  const polygon = outlinePolygon({ kind: 'rectangle' }, 12, 6);
  const l: Layer = {
    ...shape({ kind: 'flat' }),
    source: { kind: 'words', words: {} as never, relief: { kind: 'flat' } },
    size: { x: 12, y: 6 },
  };
  const content: Content = { polygon };
  expect(covered(renderLayer(l, content, board)) * 0.25).toBeCloseTo(72, 0);
  expect(covered(renderLayer(l, {}, board))).toBe(0);
});
