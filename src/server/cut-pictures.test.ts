import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { afterAll, expect, test } from 'vitest';
import { MASK } from '../core/arrange/target';
import { packStage } from '../core/plan/pack';
import { CutPictures, cutPicture } from './cut-pictures';
import { firstLook } from './first-look';
import { PictureStore } from './picture-store';
import type { PlanSurfaces } from './plan-surfaces';
import type { JobRow, Rack } from './rack';

const folder = mkdtempSync(path.join(tmpdir(), 'zg-pictures-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** A board of 40 by 20 cells: its south half is cut a millimetre deep, what lies north of that may remain. */
const grid = { width: 40, height: 20, cell: 1, originX: 0.5, originY: 0.5 };
const half = grid.width * 10;
const cut = Float32Array.from({ length: 2 * half }, (_, k) => (k < half ? -1 : 0));
const mask = Uint8Array.from({ length: 2 * half }, (_, k) => (k < half ? MASK.cut : MASK.waste));
const none = new Float32Array(0);

test('what is cut is there, and ground that may remain is clear but for its strokes', () => {
  const { data } = cutPicture({ grid, cut, mask });
  const opacity = (from: number, to: number) =>
    new Set(Array.from({ length: to - from }, (_, k) => data[4 * (from + k) + 3]));
  // The north row comes first.
  expect(opacity(half, 2 * half)).toEqual(new Set([255]));
  const waste = [...opacity(0, half)];
  expect(waste).toContain(0);
  expect(Math.max(...waste)).toBeLessThan(128);
});

test('a picture is worked out once for what was cut, and again where something else was', async () => {
  let sum = 'a';
  let read = 0;
  const packed = packStage({
    meta: { grid },
    arrays: { target: cut, rough: none, cut, deviation: cut, top: none, under: none, mask },
  });
  const surfaces = {
    viewSum: async () => sum,
    view: async () => {
      read++;
      return Buffer.concat(packed);
    },
  } as unknown as PlanSurfaces;
  const pictures = new CutPictures(surfaces, new PictureStore(folder), 'planner');
  const first = await pictures.of('p', 'face');
  const { width, height, channels } = await sharp(first).metadata();
  expect([width, height, channels]).toEqual([40, 20, 4]);
  expect(await pictures.of('p', 'face')).toEqual(first);
  expect(read).toBe(1);
  sum = 'b';
  await pictures.of('p', 'face');
  expect(read).toBe(2);
  expect(readdirSync(folder)).toHaveLength(2);
});

test('a job is shown at once by what is known of it: the cut of its newest version, else its layers', async () => {
  const job = { name: 'Plaque', revision: 'r2', setup: 'face', plan: { id: 'p', status: 'done', revision: 'r2' } };
  const look = (change: Partial<JobRow>, how: { setup?: string; layers?: boolean } = {}) =>
    firstLook({ rack: { one: async () => ({ ...job, ...change }) as JobRow } as unknown as Rack }, 'j', {
      setup: how.setup ?? null,
      layers: how.layers ?? false,
    });
  const proven = { name: 'Plaque', picture: '/api/plans/p/picture?setup=face' };
  const layers = { name: 'Plaque', picture: '/api/jobs/j/revisions/r2/picture' };
  expect(await look({})).toEqual(proven);
  expect(await look({}, { setup: 'back' })).toEqual({ ...proven, picture: '/api/plans/p/picture?setup=back' });
  expect(await look({}, { layers: true })).toEqual(layers);
  expect(await look({ plan: null })).toEqual(layers);
  expect(await look({ revision: 'r3' })).toEqual({ ...layers, picture: '/api/jobs/j/revisions/r3/picture' });
  // Of another setup than its own there is no picture before it is planned.
  expect(await look({ plan: null }, { setup: 'back' })).toEqual({ name: 'Plaque', picture: null });
  expect(
    await firstLook({ rack: { one: async () => null } as unknown as Rack }, 'gone', { setup: null, layers: false }),
  ).toBe(null);
});
