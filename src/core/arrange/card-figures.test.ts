import { expect, test } from 'vitest';
import { DRAWER } from '../doc/defaults';
import { isOf, type Layer, layerSchema, PLAIN_LAYER } from '../doc/layer';
import { reliefOfSchema } from '../doc/relief-of';
import { curvePoints, movePoint } from '../outline/curve-points';
import { applyPoint } from '../outline/polygon';
import { trueSize } from '../sources/true-size';
import { centring } from './flat-field';
import { freshCopies, freshEdge, freshLine, freshOutline, freshRelief } from './fresh';
import { isGroove, makeGroove } from './grooves';
import { layOtherwise, takeUnit, turnedOnce } from './kinds/mesh/orient';
import { sourceKind } from './kinds/registry';
import { drawStrokes, strokesFrame, strokesOf } from './kinds/shape/strokes';
import { bendWords, boardToCurve, curveToBoard } from './kinds/words/curve';
import { setWords } from './kinds/words/set';
import { dropFor, fitWhole, proposedDepth, skinFor } from './ledger';
import { NEW_WORDS, newShape, newWords, resizeLayer } from './new-layer';
import { aroundOf } from './place';

const board = { x: 300, y: 200 };
const circle = () => newShape({ id: 'c', name: 'c' }, { kind: 'circle' }, { kind: 'flat' }, board);
const strokes = (d: string) =>
  newShape({ id: 's', name: 's' }, { kind: 'strokes', d, width: 3 }, { kind: 'flat' }, board);
const words = () => newWords('w', NEW_WORDS, { x: 40, y: 12 }, board);
const mesh = (): Layer => ({
  ...PLAIN_LAYER,
  id: 'm',
  name: 'm',
  source: { kind: 'mesh', file: 'm.stl', hash: 'a'.repeat(64), unit: 'mm', turns: [0, 0, 0], flip: false, base: 0 },
  size: { x: 60, y: 30 },
  rise: 5,
  centre: { x: 100, y: 100 },
});

test('whatever a layer is made, it begins with figures that a document takes', () => {
  const l = circle();
  if (!isOf(l, 'shape')) throw new Error('no shape');
  for (const kind of [
    'rectangle',
    'rounded',
    'oval',
    'circle',
    'arch',
    'scalloped',
    'cartouche',
    'polygon',
    'path',
    'strokes',
  ] as const) {
    l.source.outline = freshOutline(kind, l);
    expect(layerSchema.safeParse(l).error, kind).toBeUndefined();
  }
  for (const { shape } of reliefOfSchema.options) {
    const kind = shape.kind.value;
    l.source.relief = freshRelief(kind, l, l.source.relief);
    expect(layerSchema.safeParse(l).error, kind).toBeUndefined();
  }
  for (const kind of ['plain', 'waney', 'notched'] as const) {
    l.source.edge = freshEdge(kind);
    expect(layerSchema.safeParse(l).error, kind).toBeUndefined();
  }
  for (const kind of ['one', 'rows', 'ring', 'path'] as const) {
    l.copies = freshCopies(kind, l);
    expect(layerSchema.safeParse(l).error, kind).toBeUndefined();
  }
  const w = words();
  for (const kind of ['straight', 'arc', 'curve'] as const) {
    w.source.words = { ...w.source.words, line: freshLine(kind, w, board) };
    expect(layerSchema.safeParse(w).error, kind).toBeUndefined();
  }
});

test('another form keeps the width that it had', () => {
  const cove = freshRelief('cove', circle(), { kind: 'bevel', width: 7, band: true });
  expect(cove).toEqual({ kind: 'cove', width: 7, band: true });
  expect(freshRelief('rope', circle(), cove)).toEqual({ kind: 'rope', width: 7, pitch: 7, band: true });
});

test('a model in inches is 25.4 times as large, and back again what it was', () => {
  const l = mesh();
  if (!isOf(l, 'mesh')) throw new Error('no mesh');
  takeUnit(l, 'in');
  expect(l.size).toEqual({ x: 1524, y: 762 });
  takeUnit(l, 'in');
  expect(l.size).toEqual({ x: 1524, y: 762 });
  takeUnit(l, 'mm');
  expect(l.size).toEqual({ x: 60, y: 30 });
});

test('a model laid another way keeps its scale and takes the base that is proposed', () => {
  const l = mesh();
  if (!isOf(l, 'mesh')) throw new Error('no mesh');
  const turns = turnedOnce(l.source.turns, 0);
  expect(turns).toEqual([1, 0, 0]);
  expect(turnedOnce([0, 3, 0], 1)).toEqual([0, 0, 0]);
  // The file measures 20 x 10 x 4: the layer is three times as large.
  layOtherwise(l, { turns, flip: true }, { size: { x: 20, y: 10, z: 4 } }, { size: { x: 20, y: 4, z: 10 }, base: 0.2 });
  expect(l.size).toEqual({ x: 60, y: 12 });
  expect(l.source).toMatchObject({ turns: [1, 0, 0], flip: true, base: 0.2 });
});

test('words are given with the size that they have, and the name that follows them', () => {
  const l = words();
  setWords(l, { ...NEW_WORDS, text: 'Flour\nand bread' }, { x: 50.00004, y: 30 });
  expect(l).toMatchObject({ name: 'Flour', size: { x: 50, y: 30 } });
  l.name = 'Motto';
  setWords(l, { ...NEW_WORDS, text: 'Water' }, { x: 30, y: 12 });
  expect(l.name).toBe('Motto');
});

test('words keep their proportions, shapes go by each axis', () => {
  const w = words();
  resizeLayer(w, 2, 1.1);
  expect(w.size).toEqual({ x: 80, y: 24 });
  expect(w.source.words.height).toBe(24);
  const c = circle();
  resizeLayer(c, 2, 0.5);
  expect(c.size).toEqual({ x: 320, y: 80 });
});

test('a point of a curve goes to the board and back, turned and mirrored', () => {
  for (const mirror of [false, true]) {
    const l = { ...words(), mirror, turn: 37, centre: { x: 120, y: 80 } };
    const origin = { x: -20, y: 6 };
    const p = { x: 13, y: -4 };
    const back = boardToCurve(l, origin, curveToBoard(l, origin, p));
    expect(back.x).toBeCloseTo(p.x, 10);
    expect(back.y).toBeCloseTo(p.y, 10);
  }
  // Upright and at its middle: x runs to the right, and SVG's y down.
  const l = { ...words(), centre: { x: 100, y: 50 } };
  expect(curveToBoard(l, { x: 0, y: 0 }, { x: 3, y: 4 })).toEqual({ x: 103, y: 46 });
});

test('words on a bent curve: the curve stays where it is on the board', () => {
  const l = { ...words(), turn: 90, centre: { x: 100, y: 50 } };
  const [was, now] = [
    { x: -20, y: 6 },
    { x: -25, y: 8 },
  ];
  const before = curveToBoard(l, was, { x: 0, y: 0 });
  bendWords(l, { ...NEW_WORDS, text: 'x' }, was, { origin: now, size: { x: 50, y: 16 } });
  const after = curveToBoard(l, now, { x: 0, y: 0 });
  expect(after.x).toBeCloseTo(before.x, 3);
  expect(after.y).toBeCloseTo(before.y, 3);
  expect(l.size).toEqual({ x: 50, y: 16 });
});

test('drawn lines: the point goes where it is put, the others stay where they are on the board', () => {
  const l = strokes('M 0 0 L 40 0 L 40 20');
  expect(strokesOf(strokes('M 0 0 L 40 0 Z'))).toBe(null);
  expect(strokesOf(circle())).toBe(null);
  // Too many to be taken one by one.
  expect(strokesOf(strokes(`M 0 0 ${'L 1 1 L 2 0 '.repeat(30)}`))).toBe(null);
  const onBoard = () => curvePoints(strokesOf(l)!.d).map((p) => applyPoint(strokesFrame(l, strokesOf(l)!), p.x, -p.y));
  const before = onBoard();
  drawStrokes(l, movePoint(strokesOf(l)!.d, 2, 60, 30));
  const after = onBoard();
  for (const n of [0, 1]) {
    expect(after[n][0]).toBeCloseTo(before[n][0], 3);
    expect(after[n][1]).toBeCloseTo(before[n][1], 3);
  }
  expect(after[2][0]).toBeGreaterThan(before[2][0]);
});

test('a layer made a groove is carved by the bit, and one of a file stays as it is', () => {
  const v = DRAWER.find((c) => c.shape === 'v')!;
  const l = circle();
  makeGroove(l, v.includedAngle);
  expect(isGroove(l)).toBe(true);
  expect(l).toMatchObject({ join: 'carve', rise: 3, lift: 0, source: { relief: { kind: 'vee', angle: 60 } } });
  const m = mesh();
  makeGroove(m, 60);
  expect(m).toEqual(mesh());
});

test('the budget: what is proposed, scaled and left', () => {
  // 21.175 mm less 3 of skin less 3.175 of backing leaves 15: less than it stands.
  expect(proposedDepth(20, 21.175, 3)).toBe(15);
  expect(proposedDepth(8, 19, 2)).toBe(8);
  expect(proposedDepth(8, 3, 0)).toBe(0.5);
  expect(skinFor(19, 12, 5)).toBe(2);
  expect(skinFor(19, 12, 9)).toBe(0);
  expect(dropFor('sunk', 6.12345)).toBe(6.123);
  expect(dropFor('sunk', -1)).toBe(0);
  expect(dropFor('raised', 6)).toBe(0);
  const layers = [{ ...circle(), rise: 5, lift: 2 }];
  const seat = { mode: 'sunk' as const, skin: 0, drop: 10, press: null };
  fitWhole(layers, seat, 10, 5);
  expect(layers[0]).toMatchObject({ rise: 2.5, lift: 1 });
  expect(seat.drop).toBe(5);
  fitWhole(layers, seat, 0, 5);
  expect(layers[0].rise).toBe(2.5);
});

test('margins count from the field that a thing lies in', () => {
  const a = { x0: 10, y0: 10, x1: 30, y1: 20 };
  expect(aroundOf(a, { x0: 0, y0: 0, x1: 40, y1: 40 }, board)).toEqual({ x0: 0, y0: 0, x1: 40, y1: 40 });
  expect(aroundOf(a, { x0: 15, y0: 0, x1: 40, y1: 40 }, board)).toEqual({ x0: 0, y0: 0, x1: 300, y1: 200 });
  expect(centring({ x0: 0, y0: 0, x1: 100, y1: 50 }, a)).toEqual({ dx: 30, dy: 10, mx: 40, my: 20 });
});

test('a pattern has the size of its file, of what was said, or none', () => {
  const size = { x: 2, y: 1, z: 0.5 };
  const none = { size: null, rise: null };
  expect(trueSize({ kind: 'mesh', unit: 'in', size }, none)).toEqual({ x: 50.8, y: 25.4, z: 12.7 });
  expect(trueSize({ kind: 'image', unit: 'mm', size }, { size: { x: 80, y: 60 }, rise: 4 })).toEqual({
    x: 80,
    y: 60,
    z: 4,
  });
  expect(trueSize({ kind: 'image', unit: 'mm', size }, none)).toBe(null);
});

test('content is known by all that it depends on and by nothing else', () => {
  const key = (l: Layer) => sourceKind(l).contentKey(l);
  const m = mesh();
  if (!isOf(m, 'mesh')) throw new Error('no mesh');
  const base = key(m);
  expect(key({ ...m, rise: 9, centre: { x: 1, y: 1 } })).toBe(base);
  for (const part of [
    { base: 0.1 },
    { flip: true },
    { turns: [1, 0, 0] as [number, number, number] },
    { hash: 'b'.repeat(64) },
  ])
    expect(key({ ...m, source: { ...m.source, ...part } })).not.toBe(base);
  expect(sourceKind(m).files(m)).toEqual(['a'.repeat(64)]);
  const w = words();
  expect(sourceKind(w).files(w)).toEqual([]);
  expect(sourceKind(w).files({ ...w, source: { ...w.source, words: { ...NEW_WORDS, font: 'c'.repeat(64) } } })).toEqual(
    ['c'.repeat(64)],
  );
});
