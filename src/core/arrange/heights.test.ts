import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Gap, JOINS, type Join, type Layer, PLAIN_LAYER, THE_BOARD } from '../doc/layer';
import { boardHeights, heightOff, heightsOf, keepHeights, raiseLayer } from './heights';

const layer = (id: string, more: Partial<Layer> = {}): Layer => ({
  ...structuredClone(PLAIN_LAYER),
  id,
  name: id,
  source: { kind: 'shape', outline: { kind: 'oval' }, edge: { kind: 'plain' }, relief: { kind: 'flat' } },
  size: { x: 10, y: 10 },
  rise: 4,
  centre: { x: 0, y: 0 },
  ...more,
});
const kept = (of: string, from: string, distance: number, more: Partial<Gap> = {}): Gap => ({
  id: `${of} ${from}`,
  axis: 'z',
  of,
  ofSide: 'high',
  from,
  fromSide: 'high',
  distance,
  ...more,
});
const SUNK = { mode: 'sunk' as const, drop: 12, skin: 1 };
const board = { thickness: 25 };

test('a layer reaches from its lift by its rise; a carved one from its mouth down', () => {
  expect(heightsOf(layer('a', { lift: 2 }))).toEqual({ low: 2, high: 6 });
  expect(heightsOf(layer('a', { lift: 1, join: 'carve' }))).toEqual({ low: -5, high: -1 });
  // The base plane lies 13 mm below the top of a board that is 25 mm thick.
  expect(boardHeights(SUNK, board)).toEqual({ low: -12, high: 13 });
  expect(boardHeights({ ...SUNK, mode: 'raised' }, board)).toBeNull();
});

test('raised, a layer reaches as much higher, however it joins', () => {
  const joins = fc.constantFrom<Join>(...JOINS);
  fc.assert(
    fc.property(joins, fc.double({ min: -50, max: 50, noNaN: true }), (join, by) => {
      const l = layer('a', { join, lift: 3 });
      const was = heightsOf(l);
      raiseLayer(l, by);
      expect(heightsOf(l).low - was.low).toBeCloseTo(by, 3);
      expect(heightsOf(l).high - was.high).toBeCloseTo(by, 3);
    }),
  );
});

test('top flush with a neighbour, standing 2 mm over it, and 3 mm of board left beneath', () => {
  const layers = [
    layer('dish', { rise: 7 }),
    layer('ribbon', { rise: 3 }),
    layer('pocket', { join: 'carve', rise: 5 }),
  ];
  const at = { layers, seat: SUNK, board };
  const gaps = [kept('ribbon', 'dish', 0), kept('pocket', THE_BOARD, 3, { ofSide: 'low', fromSide: 'low' })];
  expect(keepHeights(gaps, at)).toEqual([]);
  expect(layers[1].lift).toBe(4);
  // Underside at -12, so the pocket's floor at -9: its mouth 4 below the base plane.
  expect(layers[2].lift).toBe(4);
  expect(heightsOf(layers[2]).low).toBe(-9);
  gaps[0].distance = 2;
  layers[0].rise = 8;
  keepHeights(gaps, at);
  expect(heightsOf(layers[1]).high).toBe(10);
  // A thinner board: the floor comes up with its underside.
  keepHeights(gaps, { ...at, board: { thickness: 20 } });
  expect(heightsOf(layers[2]).low).toBe(-4);
});

test('what cannot be kept is named: a lock, a circle; a raised piece says nothing of its board', () => {
  const layers = [layer('a'), layer('b', { locked: true, lift: 1 }), layer('c')];
  const at = { layers, seat: SUNK, board };
  expect(keepHeights([kept('b', 'a', 0)], at)).toEqual(['b a']);
  expect(layers[1].lift).toBe(1);
  expect(keepHeights([kept('a', 'c', 1), kept('c', 'a', 1)], at)).toEqual(['a c', 'c a']);
  expect(keepHeights([kept('a', 'gone', 1)], at)).toEqual([]);
  const raised = { ...at, seat: { ...SUNK, mode: 'raised' as const } };
  expect(heightOff(kept('a', THE_BOARD, 3), raised)).toBeNull();
});

test('any chain is kept in one go, in whatever order it is written', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: -5, max: 5 }), { minLength: 1, maxLength: 6 }),
      fc.infiniteStream(fc.nat()),
      (steps, order) => {
        const layers = [0, ...steps].map((_, i) => layer(`l${i}`, { lift: i, join: i % 2 ? 'carve' : 'highest' }));
        const gaps = steps
          .map((d, i) => kept(`l${i + 1}`, `l${i}`, d))
          .sort(() => ((order.next().value ?? 0) % 2) - 0.5);
        const at = { layers, seat: SUNK, board };
        expect(keepHeights(gaps, at)).toEqual([]);
        for (const g of gaps) expect(heightOff(g, at)).toBeCloseTo(0, 6);
        expect(layers[0].lift).toBe(0);
      },
    ),
    { numRuns: 60 },
  );
});
