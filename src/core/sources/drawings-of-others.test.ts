import { icons } from 'lucide-react';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import sharp from 'sharp';
import { expect, test } from 'vitest';
import { flattenLines, flattenPath, readSvgPath } from '../outline/flatten';
import { polygonBounds } from '../outline/polygon';
import { type Drawing, inInches } from './drawing';
import { readDxf } from './dxf';
import { readSvg } from './svg';

const linesOf = (d: Drawing) => d.pieces.flatMap((p) => flattenLines(readSvgPath(p.d), 0.005));

/** Smallest frame around what a general-purpose renderer paints of a drawing, in its own units, to 1/40 of one. */
async function painted(svg: string): Promise<{ x0: number; x1: number; y0: number; y1: number }> {
  const white = await sharp(Buffer.from(svg), { density: 72 * 40 })
    .flatten({ background: '#ffffff' })
    .png()
    .toBuffer();
  const { width } = await sharp(white).metadata();
  const k = 24 / width;
  const { info } = await sharp(white)
    .trim({ background: '#ffffff', threshold: 20 })
    .toBuffer({ resolveWithObject: true });
  const [x0, y0] = [-(info.trimOffsetLeft ?? 0) * k, -(info.trimOffsetTop ?? 0) * k];
  return { x0, y0, x1: x0 + info.width * k, y1: y0 + info.height * k };
}

const ICONS = [
  'Anchor',
  'Apple',
  'Axe',
  'Beer',
  'Bird',
  'Bone',
  'Castle',
  'Church',
  'Crown',
  'Feather',
  'Fish',
  'Flower',
  'Hammer',
  'Heart',
  'Key',
  'Leaf',
  'Moon',
  'Star',
  'TreePine',
  'Wheat',
] as const;

// Twenty drawings of an icon package: lines of two units and closed rings mixed. Against a renderer of general purpose (librsvg).
test.each(ICONS)('icon %s: all of its lines come, open and closed, where a renderer paints them', async (name) => {
  const svg = renderToStaticMarkup(createElement(icons[name], { size: 24, strokeWidth: 0.1 }));
  const { drawing, notes } = readSvg(svg, 'icon.svg');
  expect(notes).toEqual([]);
  // A line begins wherever the file has a shape or moves its pen.
  const begun = svg.match(/<(?:line|circle|rect|ellipse|polyline|polygon) |\b[mM](?=[\d .-])/g)!.length;
  const lines = linesOf(drawing);
  expect(lines.length).toBe(begun);
  const unit = 25.4 / 96;
  const b = polygonBounds(lines.map((l) => l.points));
  const theirs = await painted(svg.replace('currentColor', '#000'));
  for (const [ours, other] of [
    [b.x0 / unit, theirs.x0],
    [b.x1 / unit, theirs.x1],
    [-b.y1 / unit, theirs.y0],
    [-b.y0 / unit, theirs.y1],
  ])
    expect(Math.abs(ours - other)).toBeLessThan(0.15);
});

test('an anchor keeps its shank beside its ring', () => {
  const { drawing } = readSvg(renderToStaticMarkup(createElement(icons.Anchor, { size: 24 })), 'anchor.svg');
  expect(drawing.pieces.map((p) => p.pen !== null).sort()).toEqual([false, true]);
  const open = drawing.pieces.find((p) => p.pen !== null)!;
  expect(open.pen).toBeCloseTo((2 * 25.4) / 96, 6);
  expect(open.size.y).toBeGreaterThan(2 * drawing.pieces.find((p) => p.pen === null)!.size.y);
});

const svg = (inner: string) =>
  `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="100mm" height="100mm" viewBox="0 0 100 100">${inner}</svg>`;
const boxOf = (text: string) => {
  const b = polygonBounds(linesOf(readSvg(text, 'a.svg').drawing).map((l) => l.points));
  return [b.x0, b.x1, -b.y1, -b.y0].map((v) => Math.round(v * 100) / 100);
};

test('uses, symbols and drawings within drawings come with all their transforms', () => {
  const rect = '<rect id="r" width="4" height="2"/>';
  expect(boxOf(svg(`<defs>${rect}</defs><use href="#r" x="10" y="20"/>`))).toEqual([10, 14, 20, 22]);
  expect(
    boxOf(svg(`<defs>${rect}</defs><g transform="translate(50 0) rotate(90)"><use xlink:href="#r" x="1"/></g>`)),
  ).toEqual([48, 50, 1, 5]);
  const symbol = '<symbol id="s" viewBox="0 0 10 10"><rect width="10" height="10"/></symbol>';
  expect(boxOf(svg(`${symbol}<use href="#s" x="30" y="40" width="20" height="20"/>`))).toEqual([30, 50, 40, 60]);
  expect(
    boxOf(svg('<svg x="10" y="10" width="20" height="40" viewBox="0 0 10 10"><rect width="10" height="10"/></svg>')),
  ).toEqual([10, 30, 20, 40]);
  // A use of a use, and what style sheets hide.
  expect(
    boxOf(
      svg(
        `<style>.no{display:none} .pen{stroke:#000;fill:none}</style><defs>${rect}<g id="g"><use href="#r" x="5"/></g></defs><use href="#g" transform="scale(2)"/><rect class="no" width="90" height="90"/>`,
      ),
    ),
  ).toEqual([10, 18, 0, 4]);
});

test('what is left out is listed; uses without end and too many things are refused', () => {
  const { notes } = readSvg(
    svg('<path d="M0 0H5V5Z"/><use href="#gone"/><text>no</text><path clip-path="url(#c)" d="M9 9h1v1z"/>'),
    'a.svg',
  );
  expect(notes).toEqual(['what is not lines is left out: use of gone, text, clipping']);
  expect(() => readSvg(svg('<g id="a"><use href="#a"/><path d="M0 0H1"/></g>'), 'a.svg')).toThrow('hold themselves');
  // Ten uses of ten uses of ten uses ...: counted while they are drawn.
  const nested = Array.from({ length: 8 }, (_, i) => `<g id="g${i + 1}">${`<use href="#g${i}"/>`.repeat(10)}</g>`).join(
    '',
  );
  expect(() => readSvg(svg(`<path id="g0" d="M0 0H1V1z"/>${nested}`), 'a.svg')).toThrow('more than 50000 things');
});

/** A DXF of a version, by hand after the published reference: header, layers, blocks, entities. */
const dxf = (version: string, entities: string, { layers = '', blocks = '', units = '' } = {}) =>
  [
    `0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\n${version}\n${units}0\nENDSEC\n`,
    `0\nSECTION\n2\nTABLES\n0\nTABLE\n2\nLAYER\n70\n9\n${layers}0\nENDTAB\n0\nENDSEC\n`,
    `0\nSECTION\n2\nBLOCKS\n${blocks}0\nENDSEC\n`,
    `0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`,
  ].join('');
const layer = (name: string, flags: number, colour: number) =>
  `0\nLAYER\n2\n${name}\n70\n${flags}\n62\n${colour}\n6\nCONTINUOUS\n`;
const circle = (x: number, r: number, on = '0') => `0\nCIRCLE\n8\n${on}\n10\n${x}\n20\n0\n40\n${r}\n`;
const MM = '9\n$INSUNITS\n70\n4\n';

test.each(['AC1009', 'AC1015', 'AC1018', 'AC1024', 'AC1032'])(
  'DXF %s: layers that are off or frozen are left out and listed',
  (version) => {
    const { drawing, notes } = readDxf(
      dxf(version, circle(0, 5) + circle(90, 5, 'OFF') + circle(200, 5, 'COLD') + circle(20, 5, 'ON'), {
        layers: layer('OFF', 0, -7) + layer('COLD', 1, 7) + layer('ON', 0, 3),
        units: MM,
      }),
      'plate.dxf',
    );
    expect(linesOf(drawing)).toHaveLength(2);
    expect(drawing.size.x).toBeCloseTo(30, 2);
    expect(drawing.unitKnown).toBe(true);
    expect(notes).toEqual(['layers that are off or frozen are left out: OFF, COLD']);
  },
);

test('blocks come where they are inserted, turned, scaled, and in rows; more than can be drawn are counted first', () => {
  const block = (name: string, inner: string) => `0\nBLOCK\n8\n0\n2\n${name}\n70\n0\n10\n1\n20\n0\n${inner}0\nENDBLK\n`;
  const insert = (name: string, more = '') => `0\nINSERT\n8\n0\n2\n${name}\n10\n10\n20\n0\n${more}`;
  const one = readDxf(
    dxf('AC1015', insert('B', '41\n2\n42\n2\n50\n90\n'), { blocks: block('B', circle(3, 1)), units: MM }),
    'a.dxf',
  );
  const b = polygonBounds(linesOf(one.drawing).map((l) => l.points));
  expect([b.x0, b.x1, b.y0, b.y1].map((v) => Math.round(v))).toEqual([8, 12, 2, 6]);
  const rows = readDxf(
    dxf('AC1015', insert('B', '70\n3\n71\n2\n44\n5\n45\n7\n'), { blocks: block('B', circle(1, 1)), units: MM }),
    'a.dxf',
  );
  expect(linesOf(rows.drawing)).toHaveLength(6);
  expect(rows.drawing.size.x).toBeCloseTo(12, 2);
  const deep = Array.from({ length: 7 }, (_, i) => block(`B${i + 1}`, insert(`B${i}`).repeat(12))).join('');
  expect(() => readDxf(dxf('AC1015', insert('B7'), { blocks: block('B0', circle(0, 1)) + deep }), 'a.dxf')).toThrow(
    'more than 50000 things',
  );
});

test('without a unit the numbers wait for a person, and round holes of an inch drawing are round', () => {
  const { drawing } = readDxf(dxf('AC1009', circle(0, 0.25)), 'hole.dxf');
  expect(drawing.unitKnown).toBe(false);
  const inch = inInches(drawing);
  expect(inch.size.x).toBeCloseTo(12.7, 2);
  const [ring] = flattenPath(readSvgPath(inch.pieces[0].d), 0.001);
  // No chord lies further than 0.005 mm inside the circle, whose radius is 6.35 mm.
  for (let i = 0; i < ring.length; i += 2) {
    const j = (i + 2) % ring.length;
    const middle = Math.hypot((ring[i] + ring[j]) / 2, (ring[i + 1] + ring[j + 1]) / 2);
    expect(Math.hypot(ring[i], ring[i + 1])).toBeCloseTo(6.35, 2);
    expect(6.35 - middle).toBeLessThan(0.007);
  }
});
