import { expect, test } from 'vitest';
import { readSource } from '../../server/read-source';
import { knownAs, looksLikeText } from './known-files';
import { readMesh } from './read-mesh';
import { writeStl } from './stl';

const bytes = (s: string) => Uint8Array.from(s, (c) => c.charCodeAt(0));

// Beginnings from memory of the formats' published descriptions.
test.each([
  ['BM\x36\x00\x00\x00\x00\x00\x00\x00\x36', 'is a BMP picture; save it as PNG'],
  ['\0\0\0\x20ftypavif\0\0\0\0', 'is an AVIF picture; save it as PNG'],
  ['\0\0\0\x20ftypheic\0\0\0\0', 'is an HEIC photo; save it as JPEG or PNG'],
  ['%PDF-1.7\n', 'is a PDF page; save its drawing as SVG, or its picture as PNG'],
  ['ISO-10303-21;\nHEADER;', 'is a STEP model of surfaces; export it as STL or 3MF'],
  ['AC1032\0\0', 'is a DWG drawing; save it as DXF'],
  ['<!DOCTYPE html><html>', 'is a web page; fetch the file itself, not the page about it'],
])('a file that is no relief is called what it is: %j', async (text, said) => {
  expect(knownAs(bytes(text))).toBe(said);
  await expect(readSource(bytes(text), 'plaque.stl')).rejects.toThrow(`plaque.stl: ${said}`);
});

test('text is told from other bytes', () => {
  expect(looksLikeText(bytes('a text\nwith lines'))).toBe(true);
  expect(looksLikeText(bytes('a text\0'))).toBe(false);
  expect(looksLikeText(Uint8Array.from({ length: 60 }, () => 7))).toBe(false);
});

test('a model without thickness is refused, a thin one is not', () => {
  const flat = Float32Array.from([0, 0, 2, 10, 0, 2, 0, 10, 2, 10, 0, 2, 10, 10, 2, 0, 10, 2]);
  expect(() => readMesh(writeStl(flat, 'flat'), 'flat.stl')).toThrow('flat.stl: all of it lies in one plane');
  flat[2] = 2.01;
  expect(readMesh(writeStl(flat, 'thin'), 'thin.stl').mesh?.triangles.length).toBe(18);
});
