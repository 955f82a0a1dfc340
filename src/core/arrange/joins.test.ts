import fc from 'fast-check';
import { expect, test } from 'vitest';
import { JOINS, type Join, type Layer, PLAIN_LAYER, type Seat } from '../doc/layer';
import { AIR, boardGrid, type Grid } from '../field/height-field';
import { compose, type Effect, emptySurface, type Op, pressed, surfaceFacts } from './compose';
import { Arrangement, neededLayers } from './engine';
import type { Rendered } from './rendered';
import type { Window } from './window';

const raised: Seat = { mode: 'raised', skin: 0, drop: 0, press: null };
const grid: Grid = { width: 9, height: 7, cell: 1, originX: 0.5, originY: 0.5 };
const whole: Window = { i: 0, j: 0, width: 9, height: 7 };
const cells = whole.width * whole.height;

/** A rendered layer over the whole grid; null is where it has nothing. */
function rendered(h: (number | null)[], weight: number[] | null = null): Rendered {
  return {
    window: whole,
    heights: Float32Array.from(h, (v) => v ?? AIR),
    weight: weight && Float32Array.from(weight),
    below: null,
    lostPlan: 0,
    thinCells: 0,
  };
}

const op = (join: Join, r: Rendered, lift = 0, amount = 1): Op => ({
  rendered: r,
  join,
  lift,
  amount,
  walls: null,
  onGround: null,
});

function composed(ops: Op[], seat = raised, effects?: Effect[]) {
  const s = emptySurface(grid);
  compose(s, ops, seat, whole, effects);
  return s;
}

const height = fc.option(fc.double({ min: 0, max: 9, noNaN: true }), { nil: null });
const heights = fc.array(height, { minLength: cells, maxLength: cells }).map((h) => rendered(h));
const lift = fc.integer({ min: -300, max: 500 }).map((v) => v / 100);

/** The joins as sets of points under their surfaces would do them, one cell at a time. */
function plain(ops: Op[], k: number): number {
  let z = 0;
  for (const o of ops) {
    const h = o.rendered.heights[k];
    if (h === AIR) continue;
    const a = (o.join === 'blend' ? o.amount : 1) * (o.rendered.weight?.[k] ?? 1);
    const v = o.lift + h;
    const full: Record<Join, number> = {
      stack: z + v,
      carve: z - v,
      highest: Math.max(z, v),
      lowest: Math.min(z, v),
      blend: v,
    };
    z += a * (full[o.join] - z);
  }
  return Math.max(0, z);
}

test('every join is its formula, cell by cell, in any order and with any weights', () => {
  const weight = fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: cells, maxLength: cells });
  const any = fc.record({
    r: heights,
    weight: fc.option(weight),
    join: fc.constantFrom(...JOINS),
    lift,
    amount: fc.double({ min: 0, max: 1, noNaN: true }),
  });
  fc.assert(
    fc.property(fc.array(any, { maxLength: 5 }), (all) => {
      const ops = all.map((a) =>
        op(a.join, { ...a.r, weight: a.weight && Float32Array.from(a.weight) }, a.lift, a.amount),
      );
      const s = composed(ops);
      for (let k = 0; k < cells; k++) expect(s.z[k]).toBeCloseTo(plain(ops, k), 4);
    }),
    { numRuns: 30 },
  );
});

test('highest and lowest are the union and the intersection of solids: commutative, associative and idempotent', () => {
  fc.assert(
    fc.property(
      heights,
      heights,
      heights,
      fc.constantFrom<Join>('highest', 'lowest'),
      lift,
      lift,
      (a, b, c, join, la, lb) => {
        const ground = op('stack', rendered(new Array(cells).fill(4)));
        const [x, y, w] = [op(join, a, la), op(join, b, lb), op(join, c)];
        const once = composed([ground, x, y, w]);
        expect(composed([ground, y, x, w]).z).toEqual(once.z);
        expect(composed([ground, w, y, x]).z).toEqual(once.z);
        expect(composed([ground, x, x, y, w, y]).z).toEqual(once.z);
      },
    ),
    { numRuns: 20 },
  );
});

test('stack on and carve into undo each other; blend by nothing and by all are the ends', () => {
  fc.assert(
    fc.property(heights, heights, (a, b) => {
      const ground = op('stack', rendered(new Array(cells).fill(20)));
      const was = composed([ground, op('stack', a)]);
      const back = composed([ground, op('stack', a), op('stack', b, 1), op('carve', b, 1)]);
      for (let k = 0; k < cells; k++) expect(back.z[k]).toBeCloseTo(was.z[k], 4);
      expect(composed([ground, op('stack', a), op('blend', b, 0, 0)]).z).toEqual(was.z);
      const all = composed([ground, op('stack', a), op('blend', b, 2, 1)]);
      for (let k = 0; k < cells; k++) if (b.heights[k] !== AIR) expect(all.z[k]).toBeCloseTo(2 + b.heights[k], 4);
    }),
    { numRuns: 20 },
  );
});

test('what goes below the base plane is clipped, and how far is kept', () => {
  const s = composed([
    op('stack', rendered(new Array(cells).fill(2))),
    op('carve', rendered([5, ...new Array(cells - 1).fill(null)])),
  ]);
  expect(s.z[0]).toBe(0);
  expect(s.clipped[0]).toBe(3);
  expect(s.z[1]).toBe(2);
  const facts = surfaceFacts(s);
  expect(facts).toMatchObject({ peak: 2, low: 0, covered: cells });
  expect(facts.clipped).toEqual({ area: 1, most: 3, x: 0.5, y: 0.5 });
  expect(facts.lowAt).toEqual({ x: 0.5, y: 0.5 });
  // Sunk into the board there is no base to lose: the top is what it may not pass.
  const sunk: Seat = { mode: 'sunk', skin: 1, drop: 3, press: null };
  const t = composed(
    [
      op('stack', rendered([9, 2, ...new Array(cells - 2).fill(null)])),
      op('carve', rendered([null, 6, ...new Array(cells - 2).fill(null)])),
    ],
    sunk,
  );
  expect([t.z[0], t.z[1]]).toEqual([4, -4]);
  expect([t.clipped[0], t.clipped[1]]).toEqual([5, 0]);
});

test('a press shortens only what lies beyond its height', () => {
  const press = { above: 4, factor: 0.25 };
  expect(pressed(3, press, null)).toBe(3);
  expect(pressed(4, press, null)).toBe(4);
  expect(pressed(8, press, null)).toBe(5);
  // Sunk by 10: down to 6 it stays, deeper is pressed.
  expect(pressed(7, press, 10)).toBe(7);
  expect(pressed(2, press, 10)).toBe(5);
});

test('an effect says what a join does: raised, dug, changed, lost', () => {
  const effects: Effect[] = [];
  const half = Array.from({ length: cells }, (_, k) => (k < 9 ? 6 : null));
  composed(
    [op('stack', rendered(new Array(cells).fill(4))), op('carve', rendered(half)), op('highest', rendered(half), -3)],
    raised,
    effects,
  );
  expect(effects[0]).toMatchObject({ covered: cells, changed: cells, up: 4, down: 0, lost: 0 });
  expect(effects[1]).toMatchObject({ covered: 9, changed: 9, up: 0, down: 6, lost: 9, lostMost: 2, mean: -6 });
  // What was dug to -2 comes up to 3.
  expect(effects[2]).toMatchObject({ covered: 9, up: 5 });
  const nothing: Effect[] = [];
  composed([op('stack', rendered(new Array(cells).fill(4))), op('highest', rendered(half), -3)], raised, nothing);
  expect(nothing[1]).toMatchObject({ covered: 9, changed: 0, up: 0 });
});

/** A small world of shapes that are moved, joined, hidden and put in another order. */
const SHAPES: Layer['source'][] = [
  { kind: 'shape', outline: { kind: 'oval' }, edge: { kind: 'plain' }, relief: { kind: 'dome' } },
  { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: { kind: 'flat' } },
  {
    kind: 'shape',
    outline: { kind: 'arch' },
    edge: { kind: 'plain' },
    relief: { kind: 'bevel', width: 3, band: false },
  },
];
const layer = fc.record({
  source: fc.constantFrom(...SHAPES),
  join: fc.constantFrom(...JOINS),
  x: fc.integer({ min: -5, max: 65 }),
  y: fc.integer({ min: -5, max: 45 }),
  w: fc.integer({ min: 3, max: 40 }),
  turn: fc.constantFrom(0, 30, -90),
  rise: fc.integer({ min: 1, max: 6 }),
  lift: fc.integer({ min: -2, max: 3 }),
  hidden: fc.boolean(),
  mask: fc.option(fc.integer({ min: 0, max: 3 }), { nil: null }),
});

type Any = Parameters<typeof made>[0];
function made(
  a: {
    source: Layer['source'];
    join: Join;
    x: number;
    y: number;
    w: number;
    turn: number;
    rise: number;
    lift: number;
    hidden: boolean;
    mask: number | null;
  },
  i: number,
): Layer {
  return {
    ...PLAIN_LAYER,
    id: `l${i}`,
    name: `Layer ${i}`,
    source: a.source,
    size: { x: a.w, y: a.w * 0.7 },
    rise: a.rise,
    lift: a.lift,
    centre: { x: a.x, y: a.y },
    turn: a.turn,
    join: a.join,
    hidden: a.hidden,
    mask:
      a.mask === null || a.mask === i
        ? { kind: 'none' }
        : { kind: 'layer', layer: `l${a.mask}`, grow: 1, outside: false },
  };
}

test('what is composed again only where it changed is what is composed from nothing', () => {
  const board = boardGrid(60, 40, 1);
  const seats: Seat[] = [
    raised,
    { mode: 'sunk', skin: 0.5, drop: 4, press: null },
    { ...raised, press: { above: 3, factor: 0.5 } },
  ];
  const worlds = fc.array(fc.record({ all: fc.array(layer, { maxLength: 5 }), seat: fc.constantFrom(...seats) }), {
    minLength: 2,
    maxLength: 5,
  });
  fc.assert(
    fc.property(worlds, (steps) => {
      const kept = new Arrangement(board, () => ({}));
      for (const { all, seat } of steps) {
        const layers = all.map((a: Any, i) => made(a, i));
        kept.update(layers, seat);
        const anew = new Arrangement(board, () => ({}));
        anew.effects(layers, seat);
        expect(kept.surface.z).toEqual(anew.surface.z);
        expect(kept.surface.cover).toEqual(anew.surface.cover);
        expect(kept.facts()).toEqual(anew.facts());
      }
    }),
    { numRuns: 20 },
  );
});

test('a small move composes a small window, and nothing changed composes nothing', () => {
  const board = boardGrid(300, 200, 1);
  const a = new Arrangement(board, () => ({}));
  const base = made(
    { source: SHAPES[1], join: 'stack', x: 150, y: 100, w: 280, turn: 0, rise: 3, lift: 0, hidden: false, mask: null },
    0,
  );
  const small = (x: number) =>
    made(
      { source: SHAPES[0], join: 'stack', x, y: 100, w: 20, turn: 0, rise: 3, lift: 0, hidden: false, mask: null },
      1,
    );
  a.update([base, small(50)], raised);
  expect(a.update([base, small(50)], raised)).toEqual([]);
  const windows = a.update([base, small(52)], raised);
  expect(windows.reduce((n, w) => n + w.width * w.height, 0)).toBeLessThan(30 * 20 * 2);
});

test('a layer whose file or mask is still on its way is left out, and comes in when it is there', () => {
  const board = boardGrid(60, 40, 1);
  const flat = made(
    { source: SHAPES[1], join: 'stack', x: 30, y: 20, w: 30, turn: 0, rise: 3, lift: 0, hidden: false, mask: null },
    0,
  );
  const masked = made(
    { source: SHAPES[1], join: 'stack', x: 30, y: 20, w: 40, turn: 0, rise: 2, lift: 0, hidden: false, mask: 2 },
    1,
  );
  const words: Layer = {
    ...made(
      { source: SHAPES[1], join: 'stack', x: 30, y: 20, w: 10, turn: 0, rise: 2, lift: 0, hidden: true, mask: null },
      2,
    ),
  };
  let there = false;
  const a = new Arrangement(board, (l) => (l.id === 'l2' && !there ? null : {}));
  a.update([flat, masked, words], raised);
  expect(a.facts().peak).toBe(3);
  there = true;
  a.update([flat, masked, words], raised);
  expect(a.facts().peak).toBe(5);
  // A hidden layer is needed when a mask names it.
  expect(neededLayers([flat, masked, words]).map((l) => l.id)).toEqual(['l0', 'l1', 'l2']);
  expect(neededLayers([flat, words]).map((l) => l.id)).toEqual(['l0']);
});

test('without a layer the rest is as if it had never been', () => {
  const board = boardGrid(60, 40, 1);
  const layers = [0, 1, 2].map((i) =>
    made(
      {
        source: SHAPES[i],
        join: 'stack',
        x: 20 + 8 * i,
        y: 20,
        w: 25,
        turn: 0,
        rise: 2 + i,
        lift: 0,
        hidden: false,
        mask: null,
      },
      i,
    ),
  );
  const a = new Arrangement(board, () => ({}));
  a.update(layers, raised);
  const left = a.without(layers, raised, (_, i) => i === 1);
  const b = new Arrangement(board, () => ({}));
  b.update([layers[0], layers[2]], raised);
  expect(left.z).toEqual(b.surface.z);
});
