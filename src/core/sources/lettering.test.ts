import { readFileSync } from 'node:fs';
import path from 'node:path';
import { Glyph, Font as OtFont, Path } from 'opentype.js';
import { beforeAll, expect, test } from 'vitest';
import { type Words, wordsSchema } from '../doc/words';
import { crossings, type Polygon, polygonBounds } from '../outline/polygon';
import { CURVE_TOLERANCE } from '../outline/shapes';
import { FONTS } from './fonts';
import { capitalShare, type Font, layWords, readFont } from './lettering';
import { SourceError } from './source-error';

const bytesOf = (id: string) =>
  new Uint8Array(readFileSync(path.resolve('node_modules', FONTS.find((f) => f.id === id)!.file)));
let slab: Font;
let script: Font;
beforeAll(() => {
  slab = readFont(bytesOf('slab-bold'), 'slab');
  script = readFont(bytesOf('script'), 'script');
});

const words = (w: Partial<Words>): Words => ({
  text: 'Mill',
  font: 'slab-bold',
  fontName: 'Slab, bold',
  height: 20,
  stretch: 1,
  spacing: 0,
  kerning: true,
  nudges: {},
  lineGap: 1.6,
  align: 'middle',
  line: { kind: 'straight' },
  ...w,
});
const areaOf = (p: Polygon) => {
  let a = 0;
  for (const r of p)
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) a += (r[q] * r[i + 1] - r[i] * r[q + 1]) / 2;
  return a;
};

test('a letter is as large as opentype.js says its outline is, at the height asked for', () => {
  for (const [font, text] of [
    [slab, 'H'],
    [slab, 'O'],
    [slab, 'g'],
    [script, 'M'],
    [script, 'f'],
  ] as const) {
    const { size } = layWords(words({ text }), font);
    const em = 20 / capitalShare(font);
    const box = font.charToGlyph(text).getPath(0, 0, em).getBoundingBox();
    expect(Math.abs(size.x - (box.x2 - box.x1)), text).toBeLessThan(2 * CURVE_TOLERANCE);
    expect(Math.abs(size.y - (box.y2 - box.y1)), text).toBeLessThan(2 * CURVE_TOLERANCE);
  }
  // A capital without a curve is as high as was asked.
  expect(layWords(words({ text: 'H' }), slab).size.y).toBeCloseTo(20, 1);
});

test('a word is as long as opentype.js sets it, kerned and not', () => {
  for (const kerning of [true, false]) {
    const { size } = layWords(words({ text: 'AVATAR To', kerning }), slab);
    const em = 20 / capitalShare(slab);
    const box = slab
      .getPath('AVATAR To', 0, 0, em, { kerning, features: { liga: false, rlig: false } })
      .getBoundingBox();
    expect(Math.abs(size.x - (box.x2 - box.x1))).toBeLessThan(3 * CURVE_TOLERANCE);
  }
  const [kerned, plain] = [true, false].map((kerning) => layWords(words({ text: 'AVA', kerning }), slab).size.x);
  expect(kerned).toBeLessThan(plain);
});

test('counters are holes, and letters of a script that run into each other are one outline', () => {
  const { polygon } = layWords(words({ text: 'O' }), slab);
  expect(polygon).toHaveLength(2);
  expect(crossings(polygon, 0).filter((c) => c <= 0)).toHaveLength(2);
  const outer = (p: Polygon) => p.filter((r) => areaOf([r]) > 0).length;
  expect(outer(layWords(words({ text: 'mimi' }), script).polygon)).toBeLessThan(6);
  expect(outer(layWords(words({ text: 'mimi' }), slab).polygon)).toBe(6);
});

test('spaces by hand, between all letters and stretch move what comes after', () => {
  const wide = (w: Partial<Words>) => layWords(words({ text: 'HHHH', kerning: false, ...w }), slab).size.x;
  const plain = wide({});
  expect(wide({ spacing: 3 })).toBeCloseTo(plain + 9, 2);
  expect(wide({ nudges: { '2': 5 } })).toBeCloseTo(plain + 5, 2);
  expect(wide({ stretch: 1.5 })).toBeCloseTo(plain * 1.5, 1);
});

test('lines stand apart by their distance, and begin where they are aligned', () => {
  const one = layWords(words({ text: 'HH' }), slab);
  const two = layWords(words({ text: 'HH\nHHHH', lineGap: 2 }), slab);
  expect(two.size.y).toBeCloseTo(one.size.y + 40, 1);
  const left = (align: Words['align']) => {
    const { polygon } = layWords(words({ text: 'HH\nHHHH', align }), slab);
    const upper = polygon.filter((r) => r[1] > 0);
    return polygonBounds(upper).x0 - polygonBounds(polygon).x0;
  };
  expect(left('left')).toBeCloseTo(0, 2);
  expect(left('right')).toBeGreaterThan(2 * left('middle') - 0.1);
});

test('on an arc the feet stand on the circle, over it and under it', () => {
  const radius = 80;
  for (const under of [false, true]) {
    const { polygon, origin } = layWords(words({ text: 'HHHHHHH', line: { kind: 'arc', radius, under } }), slab);
    let [near, far] = [Infinity, 0];
    for (const r of polygon) {
      for (let i = 0; i < r.length; i += 2) {
        const d = Math.hypot(r[i] - origin.x, r[i + 1] - origin.y);
        near = Math.min(near, d);
        far = Math.max(far, d);
      }
    }
    // A letter is straight: the middle of its foot stands on the circle, its corners a little off it.
    if (under) {
      expect(far).toBeGreaterThan(radius - 0.2);
      expect(far).toBeLessThan(radius + 1.2);
      expect(near).toBeLessThan(radius - 19);
    } else {
      expect(Math.abs(near - radius)).toBeLessThan(1.2);
      expect(far).toBeGreaterThan(radius + 19.5);
    }
    expect(Math.sign(origin.y)).toBe(under ? 1 : -1);
  }
});

test('along a free curve letters turn with it, in its middle, at its start or its end', () => {
  const line = { kind: 'curve', d: 'M 0 0 H 200' } as const;
  const straight = layWords(words({ text: 'Mill' }), slab);
  const level = layWords(words({ text: 'Mill', line }), slab);
  expect(level.size.x).toBeCloseTo(straight.size.x, 2);
  const upright = layWords(words({ text: 'Mill', line: { kind: 'curve', d: 'M 0 0 V -200' } }), slab);
  expect(upright.size.y).toBeCloseTo(straight.size.x, 2);
  expect(areaOf(upright.polygon)).toBeCloseTo(areaOf(straight.polygon), 1);
  // The layout's origin is the curve's start: words at the start begin there, in the middle they lie half way.
  const start = layWords(words({ text: 'Mill', line, align: 'left' }), slab);
  expect(Math.abs(start.origin.x + start.size.x / 2)).toBeLessThan(1.5);
  expect(Math.abs(level.origin.x + 100)).toBeLessThan(1);
  expect(() => layWords(words({ line: { kind: 'curve', d: 'M 0 0' } }), slab)).toThrow(
    "the words' curve: the stroke has no length",
  );
});

test('letters that the font has not are named; a font without any of them is refused', () => {
  expect(layWords(words({ text: 'Mill 水' }), slab).missing).toEqual(['水']);
  expect(() => layWords(words({ text: '   ' }), slab)).toThrow(SourceError);
  expect(wordsSchema.safeParse(words({ text: '  \n ' })).success).toBe(false);
  expect(wordsSchema.safeParse(words({ height: 0 })).success).toBe(false);
  expect(wordsSchema.safeParse(words({ nudges: { a: 1 } })).success).toBe(false);
});

test('what is no font, or has no outlines, is refused by name', () => {
  expect(() => readFont(new Uint8Array(64), 'x.ttf')).toThrow('x.ttf: begins like a font but cannot be read');
  expect(() => readFont(bytesOf('slab').slice(0, 900), 'cut.woff')).toThrow(SourceError);
  // A font whose letters are all empty, as one of pictures only is.
  const letter = (name: string, unicode: number) => new Glyph({ name, unicode, advanceWidth: 600, path: new Path() });
  const empty = new OtFont({
    familyName: 'Empty',
    styleName: 'Regular',
    unitsPerEm: 1000,
    ascender: 800,
    descender: -200,
    glyphs: [letter('.notdef', 0), letter('A', 65)],
  });
  expect(() => readFont(new Uint8Array(empty.toArrayBuffer()), 'empty.otf')).toThrow(
    'empty.otf: has no outlines, only pictures of letters',
  );
});

test('all fonts that come along can be read and have the letters of a carved board', () => {
  for (const f of FONTS) {
    const font = readFont(bytesOf(f.id), f.name);
    const laid = layWords(words({ text: 'Est. 1924 & Sons, Ævar Öz' }), font);
    expect(laid.missing, f.id).toEqual([]);
    expect(laid.size.x).toBeGreaterThan(50);
  }
});
