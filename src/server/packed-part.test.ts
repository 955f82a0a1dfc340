import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import * as fc from 'fast-check';
import { afterAll, expect, test } from 'vitest';
import { thinly, thinOut } from '../core/field/thin';
import { packStage, unpackStage } from '../core/plan/pack';
import { sectionOf } from '../core/plan/view';
import { writeParts } from './files';
import { packedPart, packedSection } from './packed-part';

const folder = mkdtempSync(path.join(tmpdir(), 'packed-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const grid = { width: 61, height: 37, cell: 0.5, originX: 0.25, originY: 0.25 };
const cut = Float32Array.from({ length: 61 * 37 }, (_, k) => Math.sin(k));
const mask = Uint8Array.from({ length: 61 * 37 }, (_, k) => k % 3);
const file = path.join(folder, 'full-0.bin');
writeParts(file, packStage({ meta: { grid }, arrays: { cut, rough: new Float32Array(0), mask } }));

const place = fc.record({
  x0: fc.double({ min: -3, max: 34, noNaN: true }),
  y0: fc.double({ min: -3, max: 22, noNaN: true }),
  x1: fc.double({ min: -3, max: 34, noNaN: true }),
  y1: fc.double({ min: -3, max: 22, noNaN: true }),
});

test('a part that is read from a file is that part of its surfaces, and no more arrays than were asked for (property)', () => {
  fc.assert(
    fc.property(place, fc.integer({ min: 16, max: 64 }), (p, most) => {
      const box = {
        x0: Math.min(p.x0, p.x1),
        x1: Math.max(p.x0, p.x1),
        y0: Math.min(p.y0, p.y1),
        y1: Math.max(p.y0, p.y1),
      };
      const some = thinly(grid, most, box);
      const { meta, arrays } = unpackStage(Buffer.concat(packedPart(file, ['cut', 'mask', 'rough'], box, most)));
      expect(meta).toEqual({ grid: some.grid });
      expect(Object.keys(arrays)).toEqual(['cut', 'mask']);
      expect(arrays.cut).toEqual(thinOut(cut, grid, some));
      expect(arrays.mask).toEqual(thinOut(mask, grid, some));
    }),
  );
});

test('heights along a line are those of the cells that it runs through, whichever way it runs (property)', () => {
  fc.assert(
    fc.property(place, fc.integer({ min: 2, max: 200 }), (line, n) => {
      const got = packedSection(file, ['cut', 'rough'], line, n);
      expect(got).toEqual({ cut: Array.from(sectionOf({ ...grid, data: cut }, line, n)) });
    }),
  );
});
