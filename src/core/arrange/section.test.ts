import fc from 'fast-check';
import { expect, test } from 'vitest';
import { JOINS, type Layer, PLAIN_LAYER, type Seat } from '../doc/layer';
import { AIR, boardGrid } from '../field/height-field';
import { Arrangement } from './engine';
import { newShape } from './new-layer';
import { lineThrough, rowOf } from './section';

const RAISED: Seat = { mode: 'raised', skin: 0, drop: 0, press: null };
const BOARD = { x: 40, y: 30, thickness: 12 };

const dome = (id: string, more: Partial<Layer>): Layer => ({
  ...newShape({ id, name: id }, { kind: 'oval' }, { kind: 'dome' }, BOARD),
  ...PLAIN_LAYER,
  size: { x: 20, y: 16 },
  rise: 4,
  centre: { x: 20, y: 15 },
  ...more,
});

/** Shapes hold no files: there is nothing to be read. */
const arrangement = () => new Arrangement(boardGrid(BOARD.x, BOARD.y, 0.5), () => ({}));

test('a section along a row of cells is that row of the composed surface, whatever joins and wherever the press lies', () => {
  const layer = fc.record({
    join: fc.constantFrom(...JOINS),
    x: fc.integer({ min: 8, max: 32 }),
    lift: fc.integer({ min: -20, max: 40 }).map((v) => v / 10),
    thin: fc.constantFrom(0, 3),
    amount: fc.integer({ min: 0, max: 10 }).map((v) => v / 10),
  });
  fc.assert(
    fc.property(fc.array(layer, { minLength: 1, maxLength: 4 }), fc.nat(3), fc.boolean(), (all, pick, press) => {
      const layers = all.map((l, i) =>
        dome(`l${i}`, { join: l.join, lift: l.lift, thin: l.thin, amount: l.amount, centre: { x: l.x, y: 15 } }),
      );
      const seat: Seat = press ? { ...RAISED, press: { above: 2, factor: 0.5 } } : RAISED;
      const a = arrangement();
      a.update(layers, seat);
      const { grid, surface } = a;
      const row = 29;
      const y = grid.originY + row * grid.cell;
      const line = { x0: grid.originX, y0: y, x1: grid.originX + (grid.width - 1) * grid.cell, y1: y };
      const chosen = pick % layers.length;
      const s = a.section(layers, seat, new Set([`l${chosen}`]), line, grid.width)!;
      const under = a.without(layers, seat, (_, i) => i >= chosen);
      const upTo = a.without(layers, seat, (_, i) => i > chosen);
      for (let i = 0; i < grid.width; i++) {
        const k = row * grid.width + i;
        expect(s.end[i]).toBeCloseTo(surface.z[k], 4);
        expect(s.beneath[i]).toBeCloseTo(under.z[k], 4);
        expect(s.withThem[i]).toBeCloseTo(upTo.z[k], 4);
      }
    }),
    { numRuns: 12 },
  );
});

test("a layer's line goes with its turn, and its section shows the form that it has along it", () => {
  // A dome of 20 by 16 mm: its height at a distance s from its middle is its rise times a quarter round, by its inner radius.
  const l = dome('d', { turn: 30 });
  const line = lineThrough(l, 'x');
  expect(Math.hypot(line.x1 - line.x0, line.y1 - line.y0)).toBeCloseTo(1.24 * 20, 6);
  expect(Math.atan2(line.y1 - line.y0, line.x1 - line.x0)).toBeCloseTo(Math.PI / 6, 6);
  const a = arrangement();
  const s = a.section([l], RAISED, new Set(['d']), line, 125)!;
  // Nothing beyond its ends, its full rise in the middle.
  expect(s.own[0]).toBe(AIR);
  expect(s.own[124]).toBe(AIR);
  expect(s.own[62]).toBeCloseTo(4, 1);
  expect(s.end[62]).toBeCloseTo(4, 1);
  // The far side is the near one's mirror image.
  for (let k = 15; k < 62; k++) expect(s.own[k]).toBeCloseTo(s.own[124 - k], 1);
});

test('a line off the board meets nothing, and copies in a ring are cut through the first of them', () => {
  const ring = dome('r', { size: { x: 6, y: 6 }, copies: { kind: 'ring', count: 4, radius: 10, turning: false } });
  const a = arrangement();
  const s = a.section([ring], RAISED, new Set(['r']), lineThrough(ring, 'x'), 61)!;
  expect(s.own[30]).toBeCloseTo(4, 1);
  const off = rowOf(a.rendered(ring, [ring])!, a.grid, { x0: -50, y0: -50, x1: -20, y1: -50 }, 9);
  expect([...off.heights]).toEqual(Array(9).fill(AIR));
  expect(a.section([{ ...ring, hidden: true }], RAISED, new Set(['r']), lineThrough(ring, 'x'), 61)).toBe(null);
});
