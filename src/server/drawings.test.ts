import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { demoJobOf } from '../../demo/shop';
import type { Job } from '../core/doc/job';
import { ringArea } from '../core/field/contours';
import { flattenPath, readSvgPath } from '../core/outline/flatten';
import { readDxf } from '../core/sources/dxf';
import { inspectSource } from '../core/sources/inspect';
import { readSvg } from '../core/sources/svg';
import { readSource } from './read-source';
import { openShop, type Shop } from './shop';

const folder = mkdtempSync(path.join(tmpdir(), 'zg-drawings-'));
let shop: Shop;
let bracket: Job;
beforeAll(async () => {
  shop = await openShop(folder);
  bracket = (await demoJobOf('OE-104')).job;
});
afterAll(async () => {
  await shop.plans.close();
  await shop.db.destroy();
  rmSync(folder, { recursive: true, force: true });
});
const bytes = (text: string) => new TextEncoder().encode(text);
const areas = (d: string) => flattenPath(readSvgPath(d), 0.001).map((r) => Math.abs(ringArea(r)));

test('a file is a drawing by its content, whatever its name', async () => {
  const svg =
    '<!-- made by hand -->\n<svg xmlns="http://www.w3.org/2000/svg" width="20mm" height="10mm" viewBox="0 0 20 10"><circle cx="5" cy="5" r="4"/></svg>';
  const info = inspectSource(await readSource(bytes(svg), 'circle.txt'));
  expect(info).toMatchObject({ kind: 'drawing', unit: 'mm', triangles: 0, pixels: null });
  expect(info.size.x).toBeCloseTo(8, 3);
  expect(info.drawing!.pieces.map((p) => p.pen)).toEqual([null]);
  const dxf = '0\nSECTION\n2\nENTITIES\n0\nCIRCLE\n8\n0\n10\n0\n20\n0\n40\n4\n0\nENDSEC\n0\nEOF\n';
  const other = inspectSource(await readSource(bytes(dxf), 'circle.bin'));
  expect(other.kind).toBe('drawing');
  expect(other.size.y).toBeCloseTo(8, 2);
  expect(other.drawing!.unitKnown).toBe(false);
  // A comment in front of the first section is no obstacle.
  expect(inspectSource(await readSource(bytes(`999\nby hand\n${dxf}`), 'c.dxf')).kind).toBe('drawing');
  await expect(readSource(bytes('<html><body>no</body></html>'), 'page.svg')).rejects.toThrow(/^page\.svg: /);
});

test('outlines go out as SVG and DXF: the same piece in both, each shape under its name', async () => {
  const svg = (await shop.exports.make(bracket, null, 'outline-svg')).bytes.toString();
  const dxf = (await shop.exports.make(bracket, null, 'outline-dxf')).bytes.toString();
  expect(svg).toContain('width="280mm"');
  expect(svg.match(/<g id="[^"]*"/g)).toEqual(['<g id="piece"', '<g id="Scroll"']);
  expect(svg.match(/ A /g)!.length).toBeGreaterThan(60);
  const [a, b] = [readSvg(svg, 'a.svg').drawing, readDxf(dxf, 'b.dxf').drawing];
  expect(Math.abs(a.size.x - 240)).toBeLessThan(0.1);
  expect(Math.abs(b.size.x - 240)).toBeLessThan(0.1);
  const [one, two] = [a, b]
    .map((d) => areas(d.pieces.map((p) => p.d).join(' ')))
    .map((list) => list.sort((x, y) => y - x));
  expect(one.length).toBe(two.length);
  for (const [i, v] of one.entries()) expect(two[i] / v).toBeCloseTo(1, 2);
});
