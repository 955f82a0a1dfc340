import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { Arrangement } from '../arrange/engine';
import { NEW_WORDS, newShape, newWords } from '../arrange/new-layer';
import { boundsOf } from '../arrange/place';
import {
  boundsOfWhole,
  centreWhole,
  scaleInPlace,
  scaleLayers,
  scaleToMiddle,
  scaleWhole,
  timesToFit,
} from '../arrange/scale-whole';
import type { Layer } from '../doc/layer';
import { boardGrid } from '../field/height-field';
import { placeThrough } from '../setup/frame';
import { setupView } from '../setup/view';
import { dishes } from './plan-test-kit';

const board = { x: 120, y: 80 };
const ABOUT = { x: 0, y: 0 };
const SEAT = { mode: 'sunk' as const, skin: 0, drop: 9, press: null };
const among = (layers: Layer[]) => ({ layers, gaps: [], seat: SEAT, board: { ...board, thickness: 20 } });

/** Everything that a layer can have a length of. */
function manyKinds(): Layer[] {
  const shape = (id: string, more: Partial<Layer>, ...[outline, relief, edge]: Kinds): Layer => ({
    ...newShape({ id, name: id }, outline, relief, board, { share: 0.4, edge: edge ?? { kind: 'plain' } }),
    ...more,
  });
  type Kinds = [
    Parameters<typeof newShape>[1],
    Parameters<typeof newShape>[2],
    NonNullable<Parameters<typeof newShape>[4]>['edge']?,
  ];
  return [
    shape('plate', { rise: 3 }, { kind: 'rounded', radius: 6 }, { kind: 'ogee', width: 5, band: false }),
    shape(
      'leaf',
      { join: 'highest', rise: 6, lift: 1, slope: { x: 6, y: 0 }, thin: 4 },
      { kind: 'oval' },
      { kind: 'dome' },
      { kind: 'notched', count: 9, width: 4, depth: 2 },
    ),
    shape(
      'studs',
      { size: { x: 6, y: 6 }, copies: { kind: 'ring', count: 5, radius: 18, turning: true } },
      { kind: 'circle' },
      { kind: 'dome' },
    ),
    shape(
      'line',
      { join: 'carve', rise: 2, lift: 0.5, turn: 20 },
      { kind: 'strokes', d: 'M 0 0 C 20 40 50 40 70 0', width: 3 },
      { kind: 'vee', angle: 60 },
    ),
    shape(
      'rope',
      {
        rise: 2,
        mask: { kind: 'outline', outline: { kind: 'rounded', radius: 3 }, x: 30, y: 50, dx: 2, dy: 1, outside: true },
      },
      { kind: 'oval' },
      { kind: 'rope', width: 4, pitch: 6, band: true },
    ),
  ];
}

function heightsOn(layers: Layer[], k: number): Float32Array {
  const a = new Arrangement(boardGrid(board.x * k, board.y * k, 0.5 * k), () => ({}));
  a.update(layers, { mode: 'sunk', skin: 0, drop: 9 * k, press: { above: 7 * k, factor: 0.5 } });
  return a.surface.z;
}

/** How far the surfaces of one arrangement and of a scaled one lie from each other, by the same cells, mm of the first. */
function apart(k: number, heights: boolean): number[] {
  const view = among(manyKinds());
  const was = heightsOn(structuredClone(view.layers), 1);
  scaleLayers(
    view,
    view.layers.map((l) => l.id),
    { times: k, about: ABOUT, to: ABOUT, heights },
  );
  const now = heightsOn(view.layers, k);
  return Array.from(was, (z, i) => Math.abs(now[i] / k - z)).sort((a, b) => a - b);
}

test('scaled with its heights a piece is the same piece on larger cells: gaps, borders, edges, copies, pens and masks too', () => {
  for (const k of [0.5, 1.7]) {
    const off = apart(k, true);
    // Curves are drawn within 0.01 mm whatever their size, which steep edges show.
    expect(off[Math.floor(off.length * 0.98)]).toBeLessThan(0.02);
  }
  // The check sees it where one length is left behind.
  const view = among(manyKinds());
  const was = heightsOn(structuredClone(view.layers), 1);
  scaleLayers(
    view,
    view.layers.map((l) => l.id),
    { times: 1.7, about: ABOUT, to: ABOUT, heights: true },
  );
  view.layers[0].source = {
    ...view.layers[0].source,
    relief: { kind: 'ogee', width: 5, band: false },
  } as Layer['source'];
  const off = Array.from(heightsOn(view.layers, 1.7), (z, i) => Math.abs(z / 1.7 - was[i])).sort((a, b) => a - b);
  expect(off[Math.floor(off.length * 0.98)]).toBeGreaterThan(0.05);
});

test('letters follow: height, spaces and the line that they stand on', () => {
  const view = among([
    newWords(
      'w',
      { ...NEW_WORDS, spacing: 1, line: { kind: 'arc', radius: 40, under: false } },
      { x: 40, y: 12 },
      board,
    ),
  ]);
  scaleLayers(view, ['w'], { times: 0.5, about: ABOUT, to: { x: 10, y: 0 }, heights: false });
  const l = view.layers[0];
  expect(l.source).toMatchObject({ words: { height: 6, spacing: 0.5, line: { radius: 20 } } });
  expect([l.size, l.rise, l.centre]).toEqual([{ x: 20, y: 6 }, 2, { x: 40, y: 20 }]);
});

describe('a piece on both faces', () => {
  const both = () => {
    const { face, back } = dishes();
    const doc = face.document;
    face.passes.push({
      ...structuredClone(holes),
      places: [{ x: 5, y: 6 }],
    });
    return { doc, face, back };
  };
  const holes = {
    id: 'h',
    kind: 'hole' as const,
    cutter: 'x',
    places: [{ x: 0, y: 0 }],
    diameter: 3,
    depth: null,
    into: 0,
    peck: 1,
    rampAngle: 3,
    dowel: null,
  };

  test('is scaled as one: places of both faces keep lying over each other, and what finds the board again stays', () => {
    const { doc, face, back } = both();
    face.passes.push({ ...structuredClone(holes), id: 'pins', dowel: 3, places: [{ x: 50, y: 40 }] });
    face.board.openings = [{ x: 20, y: 20 }];
    const over = () => {
      const [a, b] = [face.layers[0].centre, back.layers[0].centre];
      const seen = placeThrough({ turned: { about: face.board.flip, over: face.board.x }, thickness: 1 }, b);
      return { x: seen.x - a.x, y: seen.y - a.y };
    };
    const before = over();
    scaleWhole(face, { times: 1.5, about: { x: 10, y: 10 }, to: { x: 12, y: 9 }, heights: true });
    const after = over();
    expect(after.x).toBeCloseTo(1.5 * before.x, 3);
    expect(after.y).toBeCloseTo(1.5 * before.y, 3);
    const [hole, pins] = face.passes.filter((p) => p.kind === 'hole');
    expect(hole.places).toEqual([{ x: 4.5, y: 3 }]);
    expect(hole.diameter).toBe(3);
    expect(pins.places).toEqual([{ x: 50, y: 40 }]);
    expect(face.board.openings).toEqual([{ x: 27, y: 24 }]);
    expect(setupView(doc, back.setup.id).layers[0].rise).toBe(back.layers[0].rise);
  });

  test('fills its board up to a margin, in the middle; nothing moves a second time', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 12 }), fc.integer({ min: -15, max: 15 }), (margin, off) => {
        const { face } = both();
        for (const l of face.layers) l.centre.x += off;
        scaleToMiddle(face, { times: timesToFit(face, margin)!, heights: false });
        const b = boundsOfWhole(face)!;
        const rims = [b.x0, face.board.x - b.x1, b.y0, face.board.y - b.y1];
        for (const r of rims) expect(r).toBeGreaterThan(margin - 0.01);
        expect(Math.min(...rims)).toBeCloseTo(margin, 2);
        const was = structuredClone(face.layers);
        centreWhole(face);
        expect(face.layers.map((l) => boundsOf(l).x0)[0]).toBeCloseTo(boundsOf(was[0]).x0, 3);
        expect(timesToFit(face, margin)).toBeCloseTo(1, 3);
      }),
      { numRuns: 25 },
    );
    const { face } = both();
    expect(timesToFit(face, 40)).toBeNull();
    for (const s of face.board.setups) s.layers = [];
    expect(timesToFit(face, 0)).toBeNull();
    scaleInPlace(face, { times: 2, heights: true });
    expect(face.layers).toEqual([]);
  });
});
