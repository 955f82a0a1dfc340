import { expect, test } from 'vitest';
import type { Effect } from '@/core/arrange/compose';
import { newShape } from '@/core/arrange/new-layer';
import { DRAWER, HOBBY_MACHINE, materialNamed } from '@/core/doc/defaults';
import { asDrum } from '@/core/doc/drum';
import { WHOLE_PIECE } from '@/core/doc/outline-ref';
import { plainSetup, proposed, wrongIn } from '@/core/plan/plan-test-kit';
import type { SetupView } from '@/core/setup/view';
import type { SourceInfo } from '@/core/sources/inspect';
import {
  boundsAround,
  duplicateLayers,
  editLayers,
  halfTurned,
  mirrorLayers,
  moveLayers,
  placeDrawing,
  placeFile,
  removeLayers,
  shiftLayers,
} from './actions';
import { drawnFromFront } from './around-fold';
import { effectText } from './words-for';

const board = { x: 200, y: 100, thickness: 20, material: materialNamed('maple') };
const [rough, finish] = [DRAWER.find((c) => c.id === 'em6')!, DRAWER.find((c) => c.id === 'ball3')!];

function job(...ids: string[]): SetupView {
  const j = plainSetup({ name: 'Test', order: '', machine: HOBBY_MACHINE, rough, finish, board });
  j.layers = ids.map((id, i) => ({
    ...newShape({ id: id, name: id }, { kind: 'rectangle' }, { kind: 'flat' }, board, { share: 0.1 }),
    centre: { x: 20 + 30 * i, y: 50 },
  }));
  return j;
}
const order = (j: SetupView) => j.layers.map((l) => l.id).join('');

test('on a drum what is moved over one edge of the sheet comes back at the other, what belongs together together', () => {
  const j = job('a', 'b');
  Object.assign(j.board, asDrum(40));
  const around = j.board.y;
  j.layers[1].centre.y = 60;
  moveLayers(j, ['a', 'b'], 0, around - 50);
  // Their middle, at 55, has come to 5: half of the one lies beyond the edge.
  j.layers.forEach((l, i) => {
    expect(l.centre.y).toBeCloseTo(10 * i, 3);
  });
  moveLayers(j, ['a'], 0, -3);
  expect(j.layers[0].centre.y).toBeCloseTo(around - 3, 3);
  // On a board they go where they are moved.
  const flat = job('a');
  moveLayers(flat, ['a'], 0, -60);
  expect(flat.layers[0].centre.y).toBe(-10);
});

test('artwork seen from the front is made pi / 2 times as wide round a drum, however it is turned, and goes back', () => {
  const j = job('a');
  const [l] = j.layers;
  const { x, y } = l.size;
  drawnFromFront(l, true);
  expect(l.size.y / y).toBeCloseTo(1.5708, 3);
  expect(l.size.x).toBe(x);
  // It says so of itself: once more changes nothing.
  expect(l.fromFront).toBe(true);
  drawnFromFront(l, true);
  expect(l.size.y / y).toBeCloseTo(1.5708, 3);
  drawnFromFront(l, false);
  expect(l.size.y).toBeCloseTo(y, 3);
  l.turn = 90;
  drawnFromFront(l, true);
  expect(l.size.x / x).toBeCloseTo(1.5708, 3);
  l.turn = 30;
  drawnFromFront(l, false);
  expect(l.fromFront).toBe(true);
  expect(l.size.x / x).toBeCloseTo(1.5708, 3);
});

test('moving takes what hangs on it along, and leaves what is locked', () => {
  const j = job('a', 'b', 'c');
  j.layers[2].locked = true;
  j.gaps = [{ id: 'g', axis: 'x', of: 'b', ofSide: 'low', from: 'a', fromSide: 'high', distance: 10 }];
  moveLayers(j, ['a', 'c'], 5, 2);
  expect(j.layers.map((l) => [l.centre.x, l.centre.y])).toEqual([
    [25, 52],
    [55, 50],
    [80, 50],
  ]);
  editLayers(j, ['a'], (l) => (l.size.x = 40));
  expect(j.layers[1].centre.x).toBe(65);
});

test('what is removed takes its distances and masks with it', () => {
  const j = job('a', 'b', 'c');
  j.gaps = [{ id: 'g', axis: 'x', of: 'b', ofSide: 'low', from: 'a', fromSide: 'high', distance: 10 }];
  j.layers[2].mask = { kind: 'layer', layer: 'a', grow: 0, outside: false };
  removeLayers(j, ['a']);
  expect(order(j)).toBe('bc');
  expect(j.gaps).toEqual([]);
  expect(j.layers[1].mask).toEqual({ kind: 'none' });
  expect(wrongIn(j)).toBe('');
});

test('outlines of passes forget what is removed; one of which nothing is left becomes the whole piece', () => {
  const j = job('a', 'b', 'c');
  const [r, f] = j.passes;
  if (r.kind !== 'rough' || f.kind !== 'finish') throw new Error('the passes are others');
  r.area = { kind: 'outline', outline: { ...WHOLE_PIECE, of: ['a', 'b'], less: ['c'] } };
  const cutout = proposed('cutout', j, rough);
  cutout.outline.of = ['a'];
  j.passes.push(cutout);
  removeLayers(j, ['a', 'c']);
  expect(r.area.outline).toMatchObject({ of: ['b'], less: [] });
  expect(cutout.outline.of).toBeNull();
  expect(wrongIn(j)).toBe('');
});

test('a drawing lies in the middle of the board at its own size, or as large as fits', () => {
  const j = job();
  const piece = (d: string, pen: number | null, x: number, y: number, middle = { x: 0, y: 0 }) => ({
    d,
    pen,
    size: { x, y },
    middle,
  });
  const square = piece('M 0 0 H 50 V 30 H 0 Z', null, 50, 30);
  const [l] = placeDrawing(j, 'Plate.svg', { pieces: [square], size: square.size, unitKnown: true });
  expect(l).toMatchObject({ name: 'Plate', size: { x: 50, y: 30 }, centre: { x: 100, y: 50 }, group: null });
  expect(l.source).toMatchObject({ kind: 'shape', outline: { kind: 'path', d: square.d } });
  // Areas and lines of one drawing keep their places to each other, as a group.
  const both = placeDrawing(j, 'anchor.svg', {
    pieces: [square, piece('M 0 0 L 10 0', 2, 12, 2, { x: -19, y: 14 })],
    size: { x: 50, y: 30 },
    unitKnown: true,
  });
  expect(both.map((b) => b.centre)).toEqual([
    { x: 100, y: 50 },
    { x: 81, y: 64 },
  ]);
  expect(both.map((b) => b.name)).toEqual(['anchor, areas', 'anchor, lines of 2 mm']);
  expect(both[0].group).toBe(both[1].group);
  // What is changed of one is not changed of the other.
  both[0].slope.x = 12;
  expect(both[1].slope).toEqual({ x: 0, y: 0 });
  const lines = piece('M 0 0 L 400 300', 2, 402, 302);
  const [large] = placeDrawing(j, 'lines.dxf', { pieces: [lines], size: lines.size, unitKnown: true });
  expect(large.size.y).toBeCloseTo(95, 6);
  // The pen shrinks with its lines.
  expect(large.source).toMatchObject({ outline: { kind: 'strokes' } });
  if (large.source.kind === 'shape' && large.source.outline.kind === 'strokes')
    expect(large.source.outline.width).toBeCloseTo((2 * 95) / 302, 3);
  j.layers.push(l, large);
  expect(wrongIn(j)).toBe('');
});

test('copies and mirrors lie right over what they were made of', () => {
  const j = job('a', 'b', 'c');
  const made = duplicateLayers(j, ['a', 'b']);
  expect(made).toHaveLength(2);
  expect(j.layers.map((l) => l.name)).toEqual(['a', 'b', 'a copy', 'b copy', 'c']);
  const [mirrored] = mirrorLayers(j, ['a'], 'x');
  expect(j.layers.find((l) => l.id === mirrored)).toMatchObject({
    name: 'a, mirrored',
    mirror: true,
    centre: { x: 180, y: 50 },
  });
  expect(new Set(j.layers.map((l) => l.id)).size).toBe(j.layers.length);
});

test('the order is changed one place at a time, several together, and stops at its ends', () => {
  const j = job('a', 'b', 'c', 'd');
  shiftLayers(j, ['a', 'b'], true);
  expect(order(j)).toBe('cabd');
  shiftLayers(j, ['b', 'd'], true);
  expect(order(j)).toBe('cabd');
  shiftLayers(j, ['c', 'b'], false);
  expect(order(j)).toBe('cbad');
  expect(boundsAround(j, [])).toBeNull();
  expect(boundsAround(j, ['a', 'd'])!.x1).toBe(120);
});

const info: SourceInfo = {
  kind: 'mesh',
  unit: 'mm',
  turns: [0, 0, 0],
  mirror: false,
  base: 0,
  flatBack: true,
  size: { x: 80, y: 40, z: 6 },
  triangles: 10,
  pixels: null,
  terraces: null,
  recess: false,
  drawing: null,
  notes: [],
};
const file = { file: 'leaf.stl', hash: 'a'.repeat(64), info };

test('a file is placed in its true size, smaller where it would not fit, and a recess so that it digs', () => {
  const j = job();
  expect(placeFile(j, file, { x: 33, y: 44 })).toMatchObject({
    name: 'leaf',
    size: { x: 80, y: 40 },
    rise: 6,
    centre: { x: 33, y: 44 },
  });
  const inches = placeFile(j, { ...file, info: { ...info, unit: 'in', size: { x: 4, y: 2, z: 0.25 } } }, null);
  expect(inches).toMatchObject({ size: { x: 101.6, y: 50.8 }, rise: 6.35, centre: { x: 100, y: 50 } });
  const huge = placeFile(j, { ...file, info: { ...info, size: { x: 1600, y: 800, z: 400 } } }, null);
  expect(huge.size).toEqual({ x: 160, y: 80 });
  expect(huge.rise).toBe(12);
  const image = placeFile(
    j,
    { ...file, file: 'sun.png', info: { ...info, kind: 'image', size: { x: 400, y: 200, z: 1 } } },
    null,
  );
  expect(image).toMatchObject({ size: { x: 100, y: 50 }, rise: 4, source: { kind: 'image' } });
  const known = placeFile(j, { ...file, name: 'Leaf of the drawer', size: { x: 50, y: 25 }, rise: 3 }, null);
  expect(known).toMatchObject({ name: 'Leaf of the drawer', size: { x: 50, y: 25 }, rise: 3 });
  const dish = { ...file, info: { ...info, recess: true } };
  expect(placeFile(j, dish, null).join).toBe('stack');
  expect(placeFile(job('a'), dish, null)).toMatchObject({ join: 'carve', invert: true });
});

test('what a join does, in words', () => {
  const l = job('a').layers[0];
  const e: Effect = { covered: 100, changed: 100, up: 0, down: 0, mean: 0, lost: 0, lostMost: 0, sloping: false };
  expect(effectText(l, null, 'panel')).toBe('It does not lie on the board.');
  expect(effectText(l, { ...e, up: 6.2 }, 'panel')).toBe('It raises panel by up to 6.2 mm.');
  expect(effectText({ ...l, join: 'carve' }, { ...e, down: 6.2 }, 'panel')).toBe('It digs 6.2 mm into panel.');
  expect(effectText(l, { ...e, up: 1, down: 2, changed: 50 }, 'panel')).toBe(
    'It digs 2 mm into panel and raises it by up to 1 mm over 50 % of its plan.',
  );
  expect(effectText({ ...l, join: 'highest' }, { ...e, changed: 0 }, 'panel')).toBe(
    'It changes nothing: what lies beneath is higher everywhere.',
  );
  expect(effectText({ ...l, join: 'lowest' }, { ...e, changed: 0 }, 'panel')).toBe(
    'It changes nothing: what lies beneath is lower everywhere.',
  );
});

test('pieces of a drawing that are put in as the piece is seen turn together, about their middle; twice is as before', () => {
  const made = [
    { ...newShape({ id: 'a', name: 'A' }, { kind: 'rectangle' }, { kind: 'flat' }, board), size: { x: 10, y: 4 } },
    { ...newShape({ id: 'b', name: 'B' }, { kind: 'rectangle' }, { kind: 'flat' }, board), size: { x: 6, y: 6 } },
  ];
  made[0].centre = { x: 20, y: 30 };
  made[1].centre = { x: 40, y: 35 };
  const turned = halfTurned(made);
  expect(turned.map((l) => l.turn)).toEqual([180, 180]);
  // From 15 to 43 and from 28 to 38 mm: their middle is at 29, 33.
  expect(turned.map((l) => l.centre)).toEqual([
    { x: 38, y: 36 },
    { x: 18, y: 31 },
  ]);
  expect(halfTurned(turned)).toEqual(made);
  expect(halfTurned([])).toEqual([]);
});
