import { BoxGeometry, type BufferAttribute, type BufferGeometry, Mesh as ThreeMesh } from 'three';
import { STLExporter } from 'three/examples/jsm/exporters/STLExporter.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { expect, test } from 'vitest';
import { parseStl, writeStl } from './stl';

// STL written by another library (three's STLExporter) and read by ours, and the other way round (STLLoader).
const box = new ThreeMesh(new BoxGeometry(30, 20, 5));
const corners = (a: ArrayLike<number>) => Array.from(a, (v) => Math.round(v * 1e4) / 1e4);

function expected(): number[] {
  const g = box.geometry.toNonIndexed();
  return corners(g.getAttribute('position').array);
}

test('binary STL of another library is read to the last corner', () => {
  const data = new STLExporter().parse(box, { binary: true }) as unknown as DataView;
  expect(corners(parseStl(new Uint8Array(data.buffer), 'box.stl').triangles)).toEqual(expected());
});

test('ASCII STL of another library is read to the last corner', () => {
  const text = new STLExporter().parse(box, { binary: false }) as unknown as string;
  expect(corners(parseStl(new TextEncoder().encode(text), 'box.stl').triangles)).toEqual(expected());
});

test('our STL is read by another library', () => {
  const bytes = writeStl(Float32Array.from(expected()), 'box');
  const g = new STLLoader().parse(bytes.buffer as ArrayBuffer);
  expect(corners(g.getAttribute('position').array)).toEqual(expected());
});

test('a long ASCII file is read across the pieces it is decoded in', () => {
  const facet =
    'facet normal 0 0 1\nouter loop\nvertex 0 0 1.5\nvertex 1e1 0 1.5\nvertex 0 10 1.5\nendloop\nendfacet\n';
  const text = `solid long\n${facet.repeat(60_000)}endsolid`;
  expect(parseStl(new TextEncoder().encode(text), 'long.stl').triangles.length).toBe(60_000 * 9);
});

const binary = (count: number, records: number, fill = 1) => {
  const bytes = new Uint8Array(84 + 50 * records);
  new DataView(bytes.buffer).setUint32(80, count, true);
  const view = new DataView(bytes.buffer);
  for (let i = 0; i < records * 9; i++) view.setFloat32(84 + 50 * Math.floor(i / 9) + 12 + 4 * (i % 9), fill, true);
  return bytes;
};
const text = (s: string) => new TextEncoder().encode(s);

test.each([
  ['an empty file', new Uint8Array(0), /is empty \(0 bytes\)/],
  ['a few bytes', text('abc'), /is a text that no model/],
  ['text that is no STL', text('hello world, this is not a mesh at all. '.repeat(20)), /is a text that no model/],
  ['a count that lies', binary(1000, 3), /declares 1000 triangles but has room for 3/],
  ['a count that is too low', binary(5, 20), /declares 5 triangles but holds 20, so 75 % of the model would be lost/],
  ['bytes without sense', new Uint8Array(40), /40 bytes long, too short/],
  [
    'an ASCII file cut short between two triangles',
    text('solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\n'),
    /cut short after 1 triangles: it does not end with "endsolid"/,
  ],
  ['zero triangles', binary(0, 0), /holds 0 triangles/],
  ['an ASCII file without triangles', text('solid empty\nendsolid empty\n'), /holds 0 triangles/],
  ['corners that are not a number', binary(2, 2, Number.NaN), /triangle 1 has a corner at NaN/],
  ['corners at infinity', binary(2, 2, Infinity), /triangle 1 has a corner at Infinity/],
  [
    'an ASCII file cut short',
    text('solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\n'),
    /in the middle of triangle 1/,
  ],
  ['a word for a number', text('solid a\nvertex 0 0 zero\nvertex 1 0 0\nvertex 1 1 0\n'), /reads "zero"/],
  ['too many triangles', binary(6_000_000, 0).slice(0, 84), /declares 6000000/],
])('refuses %s in one sentence that names the file', (_, bytes, message) => {
  expect(() => parseStl(bytes, 'relief.stl')).toThrow(message);
  expect(() => parseStl(bytes, 'relief.stl')).toThrow(/^relief\.stl: /);
});

test('a geometry without normals is written with normals by the right-hand rule', () => {
  const bytes = writeStl(Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0]), 'one');
  const g = new STLLoader().parse(bytes.buffer as ArrayBuffer) as BufferGeometry;
  expect(Array.from((g.getAttribute('normal') as BufferAttribute).array.slice(0, 3))).toEqual([0, 0, 1]);
});
