import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, expect, test } from 'vitest';
import { packStage, unpackStage } from '../core/plan/pack';
import { WayThinner } from '../core/proof/thin-ways';
import { WAY_ARRAYS, WAYS } from '../core/proof/way-parts';
import { writeParts } from './files';
import { MOST_PLACES, packedWays } from './packed-ways';

const folder = mkdtempSync(path.join(tmpdir(), 'packed-ways-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const N = 300_000;
const kind = Uint8Array.from({ length: N }, (_, i) => (i === 0 || i === 200_000 ? 0 : 1 + (Math.floor(i / 50) % 4)));
const places = Object.fromEntries(
  WAY_ARRAYS.map((a, k) => [
    a,
    Float32Array.from({ length: N }, (_, i) => (k < 2 ? ((i * (k + 1)) % 997) / 5 : i % (k + 9))),
  ]),
);
const passes = [
  { pass: 'rough', file: 'a', from: 0 },
  { pass: 'finish', file: 'b', from: 200_000 },
];
const file = path.join(folder, 'ways-0.bin');
writeParts(file, packStage({ meta: { passes }, arrays: { kind, ...places } }));

function plainly(from: number, to: number, box: ConstructorParameters<typeof WayThinner>[0], fine: number) {
  const t = new WayThinner(box, fine);
  for (let i = from; i < to; i++)
    t.put(
      i === from ? WAYS.indexOf('start') : kind[i],
      WAY_ARRAYS.map((a) => places[a][i]),
    );
  return t.finish();
}
const read = (...of: Parameters<typeof packedWays>) => unpackStage(Buffer.concat(packedWays(...of)));

test('a pass that is read chunk by chunk is that pass thinned at once, over chunks as within them', () => {
  const box = { x0: 20, y0: 20, x1: 60, y1: 60 };
  const plain = plainly(200_000, N, box, 1);
  const { meta, arrays } = read(file, 'finish', box, 1);
  expect(meta).toEqual({ fine: 1 });
  expect(arrays.kind).toEqual(plain.kind);
  for (const a of WAY_ARRAYS) expect(arrays[a]).toEqual(plain.places[a]);
  expect(read(file, 'gone', box, 1).arrays.kind).toHaveLength(0);
});

test('more places than are sent are thinned more, and say how much', () => {
  const box = { x0: -1, y0: -1, x1: 500, y1: 500 };
  const { meta, arrays } = read(file, undefined, box, 0.001);
  expect(arrays.kind.length).toBeLessThanOrEqual(MOST_PLACES);
  expect(arrays.kind.length).toBeGreaterThan(1000);
  expect((meta as { fine: number }).fine).toBeGreaterThan(0.001);
});
