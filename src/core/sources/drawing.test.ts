import { expect, test } from 'vitest';
import { ringArea } from '../field/contours';
import { flattenLines, flattenPath, readSvgPath } from '../outline/flatten';
import { type Polygon, polygonBounds } from '../outline/polygon';
import { outlinePolygon } from '../outline/shapes';
import { offsetPolygon } from '../outline/union';
import { writeDxf, writeSvg } from '../outline/write-outlines';
import { readDxf } from './dxf';
import { readSvg } from './svg';

/** All path data of a drawing. */
const dataOf = (d: { pieces: { d: string }[] }) => d.pieces.map((p) => p.d).join(' ');
const area = (p: Polygon) => Math.abs(p.reduce((s, r) => s + ringArea(r), 0));
const areaOf = (d: string) => area(flattenPath(readSvgPath(d), 0.001));
const svg = (inner: string, head = 'width="100mm" height="50mm" viewBox="0 0 100 50"') =>
  `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${head}>${inner}</svg>`;

test('shapes of an SVG drawing come with their transforms, in mm', () => {
  // A circle of radius 5 moved and doubled, and a rectangle with round corners of 2: areas in closed form.
  const { drawing, notes } = readSvg(
    svg(
      '<g transform="translate(20 10) scale(2)"><circle cx="1" cy="2" r="5"/></g><rect x="60" width="30" height="20" rx="2"/>',
    ),
    'a.svg',
  );
  expect(notes).toEqual([]);
  const [circle, rect] = flattenPath(readSvgPath(dataOf(drawing)), 0.0005);
  expect(Math.abs(ringArea(circle))).toBeCloseTo(Math.PI * 100, 0);
  const b = polygonBounds([circle]);
  expect(b.x0).toBeCloseTo(12, 3);
  expect(b.x1).toBeCloseTo(32, 3);
  expect(b.y1).toBeCloseTo(-4, 3);
  expect(Math.abs(ringArea(rect))).toBeCloseTo(600 - (4 - Math.PI) * 4, 1);
  expect(drawing.pieces.map((p) => p.pen)).toEqual([null]);
});

test('the size of an SVG drawing: units, viewBox, and pixels of 1/96 in where it says none (CSS Values)', () => {
  const width = (head: string) => readSvg(svg('<path d="M0 0H10V10H0Z"/>', head), 'a.svg').drawing.size.x;
  expect(width('width="100mm" height="50mm" viewBox="0 0 100 50"')).toBeCloseTo(10, 3);
  expect(width('width="1in" viewBox="0 0 10 10"')).toBeCloseTo(25.4, 3);
  expect(width('width="2cm" height="4cm" viewBox="0 0 10 10"')).toBeCloseTo(20, 3);
  expect(width('width="96" height="96"')).toBeCloseTo((10 * 25.4) / 96, 3);
  expect(readSvg(svg('<path d="M0 0H10V10H0Z"/>', ''), 'a.svg').notes).toEqual([
    'says no size; a pixel is taken as 1/96 in',
  ]);
});

test('open lines alone come as lines of their pen’s width; what is hidden or no line is left out', () => {
  const { drawing, notes } = readSvg(
    svg(
      '<defs><path d="M0 0H99V99Z"/></defs><text>no</text><g style="stroke-width:0.5"><polyline points="0,0 10,0 10,5"/><line x2="20" y2="8" stroke-width="2"/></g><path display="none" d="M0 0H99"/>',
    ),
    'a.svg',
  );
  // Each width by itself, lines in the order in which their widths are met.
  expect(drawing.pieces.map((p) => p.pen)).toEqual([0.5, 2]);
  expect(flattenLines(readSvgPath(dataOf(drawing)), 0.01).map((l) => [l.points.length / 2, l.closed])).toEqual([
    [3, false],
    [2, false],
  ]);
  expect(notes).toEqual(['what is not lines is left out: text']);
  // As an outline, what the pen covers: a bent line of 15 mm, 2 wide, with round ends, is about 30 mm2 and a circle.
  const drawn = outlinePolygon({ kind: 'strokes', d: 'M 0 0 H 10 V 5', width: 2 }, 12, 7);
  expect(polygonBounds(drawn).x1).toBeCloseTo(6, 2);
  expect(area(drawn)).toBeCloseTo(30 + Math.PI - (1 - Math.PI / 4), 1);
});

test.each([
  ['<svg><path d="M0 0L1', 'begins like an SVG drawing but is damaged or cut short'],
  [svg('<path d="M 0 0 L x"/>'), 'a path cannot be read'],
  [svg('<text>x</text>'), 'there are no lines in it'],
  [svg('<line x2="10"/><line x2="10"/>').replace(/10/g, '0'), 'there are no lines'],
  [svg(`${'<g>'.repeat(70)}<path d="M0 0H1V1Z"/>${'</g>'.repeat(70)}`), 'ungroup it'],
  [svg(`<path d="M0 0 ${'L 1.2345 6.789 '.repeat(9000)}Z"/>`), 'more than 100000'],
])('a bad SVG drawing is refused by name: %#', (text, message) => {
  expect(() => readSvg(text, 'bad.svg')).toThrow(message);
  expect(() => readSvg(text, 'bad.svg')).toThrow(/^bad\.svg: /);
});

const dxf = (entities: string, units = 4) =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n${units}\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const line = (x0: number, y0: number, x1: number, y1: number) =>
  `0\nLINE\n8\n0\n10\n${x0}\n20\n${y0}\n11\n${x1}\n21\n${y1}\n`;

test('lines of a DXF drawing whose ends meet are joined, arcs with them; inches become mm', () => {
  // A half disc of radius 2 in, drawn as a line and an arc.
  const half = `${line(2, 0, -2, 0)}0\nARC\n8\n0\n10\n0\n20\n0\n40\n2\n50\n0\n51\n180\n`;
  const { drawing } = readDxf(dxf(half, 1), 'a.dxf');
  expect(drawing.pieces.map((p) => p.pen)).toEqual([null]);
  expect(drawing.size.x).toBeCloseTo(101.6, 2);
  expect(areaOf(dataOf(drawing)) / ((Math.PI * 50.8 ** 2) / 2)).toBeCloseTo(1, 3);
  const square = readDxf(dxf(line(0, 0, 9, 0) + line(9, 9, 9, 0) + line(9, 9, 0, 9) + line(0, 0, 0, 9)), 'a.dxf');
  expect(areaOf(dataOf(square.drawing))).toBeCloseTo(81, 6);
  const open = readDxf(dxf(line(0, 0, 9, 0) + line(9, 0, 9, 5), 0), 'a.dxf');
  expect(open.drawing.pieces.map((p) => p.pen)).toEqual([1]);
  expect(open.drawing.unitKnown).toBe(false);
});

test('circles, ellipses, bulges and splines of a DXF drawing', () => {
  const circle = '0\nCIRCLE\n8\n0\n10\n5\n20\n5\n40\n3\n';
  expect(areaOf(dataOf(readDxf(dxf(circle), 'a.dxf').drawing)) / (9 * Math.PI)).toBeCloseTo(1, 2);
  const ellipse = '0\nELLIPSE\n8\n0\n10\n0\n20\n0\n11\n0\n21\n8\n40\n0.5\n41\n0\n42\n6.283185307\n';
  const e = readDxf(dxf(ellipse), 'a.dxf').drawing;
  expect(areaOf(dataOf(e))).toBeCloseTo(32 * Math.PI, 0);
  expect(e.size.y).toBeCloseTo(16, 2);
  // Two half circles of bulge 1 make a circle of 10 across.
  const poly = '0\nLWPOLYLINE\n8\n0\n90\n2\n70\n1\n10\n0\n20\n0\n42\n1\n10\n10\n20\n0\n42\n1\n';
  expect(areaOf(dataOf(readDxf(dxf(poly), 'a.dxf').drawing))).toBeCloseTo(25 * Math.PI, 0);
  // A cubic B-spline with its ends doubled is a Bezier curve: half way it is at (p0 + 3 p1 + 3 p2 + p3) / 8.
  const knots = [0, 0, 0, 0, 1, 1, 1, 1].map((k) => `40\n${k}\n`).join('');
  const control = [
    [0, 0],
    [0, 8],
    [12, 8],
    [12, 0],
  ]
    .map(([x, y]) => `10\n${x}\n20\n${y}\n`)
    .join('');
  const spline = `0\nSPLINE\n8\n0\n70\n8\n71\n3\n72\n8\n73\n4\n${knots}${control}`;
  const [s] = flattenLines(readSvgPath(dataOf(readDxf(dxf(spline), 'a.dxf').drawing)), 0.01);
  const b = polygonBounds([s.points]);
  expect(b.y1).toBeCloseTo(6, 2);
  expect(b.x1).toBeCloseTo(12, 3);
});

test.each([
  ['0\nSECTION\n2\nENTITIES\n0\nLINE\n10\nx', 'DXF'],
  [dxf('0\nTEXT\n8\n0\n10\n0\n20\n0\n40\n2\n1\nhello\n'), 'there are no lines in it'],
])('a bad DXF drawing is refused by name: %#', (text, message) => {
  expect(() => readDxf(text, 'bad.dxf')).toThrow(message);
  expect(() => readDxf(text, 'bad.dxf')).toThrow(/^bad\.dxf: /);
});

test('outlines go out as SVG and DXF with true arcs, and come back as they were', () => {
  const plate = outlinePolygon({ kind: 'rounded', radius: 10 }, 80, 50).map((r) =>
    r.map((v, i) => v + (i % 2 ? 40 : 60)),
  );
  const hole = offsetPolygon(plate, -15, 0.002).map((r) => r.slice().reverse());
  const outlines = [
    { name: 'plate & hole', polygon: [...plate, ...hole.map((r) => r.map((_, i) => r[i % 2 === 0 ? i + 1 : i - 1]))] },
  ];
  const out = writeSvg(outlines, { x: 120, y: 80 }, 0.012);
  expect(out.match(/ A /g)!.length).toBeLessThan(24);
  const back = readSvg(out, 'out.svg').drawing;
  expect(back.size.x).toBeCloseTo(80, 2);
  const b = polygonBounds(flattenPath(readSvgPath(dataOf(back)), 0.01));
  expect([b.x0, b.x1, b.y1].map((v) => Math.round(v))).toEqual([20, 100, -15]);
  const sum = (d: string) => flattenPath(readSvgPath(d), 0.001).map((r) => Math.abs(ringArea(r)));
  const [outer, inner] = sum(dataOf(back));
  expect(outer).toBeCloseTo(80 * 50 - (4 - Math.PI) * 100, 0);
  const again = sum(dataOf(readDxf(writeDxf(outlines, 0.012), 'out.dxf').drawing));
  expect(again[0] / outer).toBeCloseTo(1, 3);
  expect(again[1] / inner).toBeCloseTo(1, 3);
});

test('a rounded plate goes out as four lines and four arcs of its own radius', () => {
  const plate = outlinePolygon({ kind: 'rounded', radius: 10 }, 80, 50);
  const out = writeSvg([{ name: 'plate', polygon: plate }], { x: 80, y: 50 }, 0.012);
  const d = / d="([^"]+)"/.exec(out)![1];
  expect(d.match(/[LA]/g)!.sort().join('')).toBe('AAAALLLL');
  expect(d.match(/ A 10 10 /g)).toHaveLength(4);
});
