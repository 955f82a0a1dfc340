import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type Gap, type Layer, PLAIN_LAYER, THE_BOARD } from '../doc/layer';
import { AIR, boardGrid } from '../field/height-field';
import { joinBounds } from '../outline/polygon';
import { emptySurface } from './compose';
import { flatFieldAt, standingBounds } from './flat-field';
import {
  alignLayers,
  boundsOf,
  distanceNow,
  distributeLayers,
  keepGaps,
  layerAt,
  layerHas,
  moveLayer,
  sideOf,
  snapBox,
} from './place';

const board = { x: 300, y: 200 };
function box(id: string, x: number, y: number, w = 20, h = 10, more: Partial<Layer> = {}): Layer {
  return {
    ...PLAIN_LAYER,
    id,
    name: id.toUpperCase(),
    source: { kind: 'shape', outline: { kind: 'rectangle' }, edge: { kind: 'plain' }, relief: { kind: 'flat' } },
    size: { x: w, y: h },
    rise: 2,
    centre: { x, y },
    ...more,
  };
}

test('the box around a layer, turned and copied', () => {
  expect(boundsOf(box('a', 50, 40))).toEqual({ x0: 40, x1: 60, y0: 35, y1: 45 });
  const turned = boundsOf(box('a', 50, 40, 20, 10, { turn: 90 }));
  for (const [k, v] of Object.entries({ x0: 45, x1: 55, y0: 30, y1: 50 })) expect(turned[k as 'x0']).toBeCloseTo(v, 9);
  const diagonal = boundsOf(box('a', 0, 0, 10, 10, { turn: 45 }));
  expect(diagonal.x1).toBeCloseTo(5 * Math.SQRT2, 9);
  const rows = boundsOf(box('a', 50, 40, 20, 10, { copies: { kind: 'rows', columns: 3, rows: 2, dx: 30, dy: 20 } }));
  expect(rows).toEqual({ x0: 10, x1: 90, y0: 25, y1: 55 });
  expect(joinBounds([turned, { x0: 0, y0: 31, x1: 1, y1: 32 }])).toMatchObject({ x0: 0, y0: turned.y0 });
});

test('a place of the board hits the topmost layer that is shown there', () => {
  const layers = [box('a', 50, 50, 40, 40), box('b', 60, 50, 20, 20), box('c', 60, 50, 20, 20, { hidden: true })];
  expect(layerAt(layers, 60, 50)?.id).toBe('b');
  expect(layerAt(layers, 35, 50)?.id).toBe('a');
  expect(layerAt(layers, 5, 5)).toBeNull();
  expect(layerHas(box('a', 0, 0, 40, 2, { turn: 90 }), 0, 15)).toBe(true);
  expect(layerHas(box('a', 0, 0, 40, 2, { turn: 90 }), 15, 0)).toBe(false);
});

test('snapping: middles to middles, edges to edges, equal margins, and nothing from further than the reach', () => {
  const others = [{ name: 'the board', bounds: { x0: 0, y0: 0, x1: 300, y1: 200 } }];
  const at = (x: number, y: number, w = 40, h = 20) => ({ x0: x - w / 2, x1: x + w / 2, y0: y - h / 2, y1: y + h / 2 });
  const middle = snapBox(at(151.5, 62), others, 3);
  expect(middle.dx).toBeCloseTo(-1.5, 9);
  expect(middle.dy).toBe(0);
  expect(middle.snaps).toEqual([{ axis: 'x', at: 150, with: 'the middle of the board' }]);
  const edge = snapBox(at(21, 60), others, 3);
  expect(edge.dx).toBeCloseTo(-1, 9);
  expect(edge.snaps[0].with).toBe('the left edge of the board');
  expect(snapBox(at(100, 60), others, 3)).toEqual({ dx: 0, dy: 0, snaps: [] });
  // Between two others, as far from one as from the other.
  const two = [
    { name: 'A', bounds: { x0: 0, y0: 0, x1: 50, y1: 300 } },
    { name: 'B', bounds: { x0: 190, y0: 0, x1: 300, y1: 300 } },
  ];
  const between = snapBox(at(121, 60), two, 3);
  expect(between.dx).toBeCloseTo(-1, 9);
  expect(between.snaps[0].with).toBe('equal margins');
});

test('a snapped box lies where something is met, and moved no further than the reach', () => {
  const v = fc.integer({ min: 0, max: 300 });
  const any = fc.tuple(v, v, v, v).map(([a, b, c, d]) => ({
    x0: Math.min(a, b),
    x1: Math.max(a, b) + 1,
    y0: Math.min(c, d),
    y1: Math.max(c, d) + 1,
  }));
  fc.assert(
    fc.property(any, fc.array(any, { minLength: 1, maxLength: 4 }), fc.integer({ min: 1, max: 9 }), (b, all, reach) => {
      const others = all.map((bounds, i) => ({ name: `L${i}`, bounds }));
      const s = snapBox(b, others, reach);
      expect(Math.abs(s.dx)).toBeLessThanOrEqual(reach);
      expect(Math.abs(s.dy)).toBeLessThanOrEqual(reach);
      for (const snap of s.snaps) {
        const moved = { x0: b.x0 + s.dx, x1: b.x1 + s.dx, y0: b.y0 + s.dy, y1: b.y1 + s.dy };
        const sides = (['low', 'middle', 'high'] as const).map((side) =>
          Math.abs(sideOf(moved, snap.axis, side) - snap.at),
        );
        expect(Math.min(...sides)).toBeLessThan(1e-9);
      }
      // Snapped once it rests: nothing nearer is met by asking again.
      const again = snapBox({ x0: b.x0 + s.dx, x1: b.x1 + s.dx, y0: b.y0 + s.dy, y1: b.y1 + s.dy }, others, 0.001);
      expect(Math.abs(again.dx)).toBeLessThan(0.001);
    }),
    { numRuns: 200 },
  );
});

test('align lines up sides and middles, distribute makes equal spaces, locked ones stay', () => {
  const three = () => [box('a', 40, 20), box('b', 90, 50, 30), box('c', 200, 90, 10)];
  const left = three();
  alignLayers(left, 'x', 'low');
  expect(left.map((l) => boundsOf(l).x0)).toEqual([30, 30, 30]);
  const middle = three();
  middle[1].locked = true;
  alignLayers(middle, 'y', 'middle');
  expect(middle.map((l) => l.centre.y)).toEqual([55, 50, 55]);
  const spread = three();
  distributeLayers(spread, 'x');
  const b = spread.map(boundsOf);
  expect(b[1].x0 - b[0].x1).toBeCloseTo(b[2].x0 - b[1].x1, 6);
  expect([spread[0].centre.x, spread[2].centre.x]).toEqual([40, 200]);
  const two = three().slice(0, 2);
  distributeLayers(two, 'x');
  expect(two[1].centre.x).toBe(90);
  const l = box('a', 1, 1);
  moveLayer(l, 0.1, 0.2);
  expect(l.centre).toEqual({ x: 1.1, y: 1.2 });
});

const among = (layers: Layer[], gaps: Gap[]) => ({
  layers,
  gaps,
  board: { ...board, thickness: 30 },
  seat: { mode: 'sunk' as const, drop: 10, skin: 1 },
});

const gap = (of: string, from: string, distance: number, more: Partial<Gap> = {}): Gap => ({
  id: `${of}-${from}`,
  axis: 'y',
  of,
  ofSide: 'high',
  from,
  fromSide: 'low',
  distance,
  ...more,
});

test('a gap is kept when either end moves: the other follows, and what hangs on it', () => {
  const layers = [box('dish', 150, 120), box('name', 150, 60), box('year', 150, 30)];
  // The name's far edge 25 mm below the dish's near one; the year 10 mm below the name.
  const gaps = [gap('name', 'dish', -25), gap('year', 'name', -10)];
  expect(keepGaps(among(layers, gaps), ['dish'])).toEqual([]);
  expect(layers.map((l) => l.centre.y)).toEqual([120, 85, 65]);
  layers[0].centre.y = 140;
  keepGaps(among(layers, gaps), ['dish']);
  expect(layers.map((l) => l.centre.y)).toEqual([140, 105, 85]);
  // Moved at the other end, the first follows.
  layers[2].centre.y = 40;
  keepGaps(among(layers, gaps), ['year']);
  expect(layers.map((l) => l.centre.y)).toEqual([95, 60, 40]);
  // Sized, its edge moves, and so does what hangs on the edge.
  layers[0].size.y = 30;
  keepGaps(among(layers, gaps), ['dish']);
  expect(boundsOf(layers[0]).y0 - boundsOf(layers[1]).y1).toBeCloseTo(25, 9);
});

test('a lock and the board hold: the other end gives way, and where both hold it is said', () => {
  const layers = [box('a', 150, 100, 20, 10, { locked: true }), box('b', 150, 50)];
  keepGaps(among(layers, [gap('b', 'a', -20)]), ['b']);
  expect(layers.map((l) => l.centre.y)).toEqual([100, 70]);
  const edge = [gap('b', THE_BOARD, 15, { ofSide: 'low' })];
  layers[1].centre.y = 90;
  keepGaps(among(layers, edge), ['b']);
  expect(boundsOf(layers[1]).y0).toBe(15);
  layers[1].locked = true;
  layers[1].centre.y = 90;
  expect(keepGaps(among(layers, edge), ['b'])).toEqual(['b-board']);
  expect(layers[1].centre.y).toBe(90);
  // An end that is gone asks for nothing.
  expect(keepGaps(among(layers, [gap('b', 'gone', 5)]), ['b'])).toEqual([]);
});

test('the distance between two sides as they lie', () => {
  const at = among([box('a', 20, 15), box('b', 70, 20, 40, 40)], []);
  const now = (sides: Pick<Gap, 'axis' | 'ofSide' | 'fromSide'>) => distanceNow({ of: 'b', from: 'a', ...sides }, at);
  expect(now({ axis: 'x', ofSide: 'low', fromSide: 'high' })).toBe(20);
  expect(now({ axis: 'y', ofSide: 'middle', fromSide: 'middle' })).toBe(5);
  expect(now({ axis: 'z', ofSide: 'high', fromSide: 'low' })).toBe(2);
  expect(distanceNow({ of: 'b', from: 'gone', axis: 'x', ofSide: 'low', fromSide: 'low' }, at)).toBeNull();
});

test('any chain of gaps between free layers is kept whatever is moved', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.integer({ min: 0, max: 300 }), fc.integer({ min: -40, max: 40 })), {
        minLength: 2,
        maxLength: 6,
      }),
      fc.nat(),
      (all, pick) => {
        const layers = all.map(([x], i) => box(`l${i}`, x, 50));
        const gaps = all
          .slice(1)
          .map(([, d], i) => gap(`l${i + 1}`, `l${i}`, d, { axis: 'x', ofSide: 'low', fromSide: 'high' }));
        const moved = layers[pick % layers.length];
        const was = moved.centre.x;
        expect(keepGaps(among(layers, gaps), [moved.id])).toEqual([]);
        expect(moved.centre.x).toBe(was);
        for (const g of gaps) {
          const find = (id: string) => boundsOf(layers.find((l) => l.id === id)!);
          expect(find(g.of).x0 - find(g.from).x1).toBeCloseTo(g.distance, 3);
        }
      },
    ),
    { numRuns: 100 },
  );
});

test('the flat field under a place: as far as it is level, with its box and area; none on a slope', () => {
  const grid = boardGrid(60, 40, 1);
  const s = emptySurface(grid);
  for (let j = 0; j < 40; j++) {
    for (let i = 0; i < 60; i++) {
      const k = j * 60 + i;
      s.cover[k] = 1;
      const inside = i >= 10 && i < 40 && j >= 8 && j < 30;
      s.z[k] = inside ? 4 + 0.01 * (i % 2) : 5 + 0.3 * i;
      // An island in the field does not break it.
      if (i >= 20 && i < 24 && j >= 15 && j < 18) s.z[k] = 9;
    }
  }
  const f = flatFieldAt(s, 30, 20)!;
  expect(f.bounds).toEqual({ x0: 10, x1: 40, y0: 8, y1: 30 });
  expect(f.area).toBe(30 * 22 - 12);
  expect(f.height).toBeCloseTo(4, 1);
  expect(flatFieldAt(s, 50, 20)).toBeNull();
  expect(flatFieldAt(s, -5, 20)).toBeNull();
});

test('a layer stands where its cells are, not where its box is', () => {
  const grid = boardGrid(60, 40, 1);
  const heights = new Float32Array(100).fill(AIR);
  heights[34] = 1;
  heights[56] = 2;
  const b = standingBounds({ window: { i: 10, j: 5, width: 10, height: 10 }, heights }, grid, AIR);
  expect(b).toEqual({ x0: 14, x1: 17, y0: 8, y1: 11 });
  expect(
    standingBounds({ window: { i: 0, j: 0, width: 1, height: 1 }, heights: Float32Array.of(AIR) }, grid, AIR),
  ).toBeNull();
});

test('round a drum what reaches over one edge of the sheet is taken hold of at the other', () => {
  const over = box('over', 50, 1, 20, 10);
  expect(layerAt([over], 50, 59, 0)).toBeNull();
  expect(layerAt([over], 50, 59, 60)?.id).toBe('over');
  expect(layerAt([over], 50, 50, 60)).toBeNull();
});
