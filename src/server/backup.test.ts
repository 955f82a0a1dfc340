import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { gunzipSync, gzipSync } from 'node:zlib';
import { extract, pack } from 'tar-stream';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { loaf, shapeMesh } from '../../demo/shapes';
import { jobSchema } from '../core/doc/job';
import { writeStl } from '../core/sources/stl';
import { packShop, writeBackup } from './backup';
import { createJob, getJob, nameVersion, putAsset } from './jobs';
import { hasShop, restoreShop } from './restore';
import { openShop, type Shop } from './shop';

const root = mkdtempSync(path.join(tmpdir(), 'zg-backup-'));
const folder = path.join(root, 'shop');
const job = jobSchema.parse(JSON.parse(readFileSync('src/core/doc/upgrade/fixtures/v2-skimmed-face.json', 'utf8')));
let shop: Shop;
let id: string;
let hash: string;
let archive: Buffer;

beforeAll(async () => {
  shop = await openShop(folder);
  const made = await createJob(shop.db, job);
  id = made.id;
  await nameVersion(shop.db, id, made.revision, 'as ordered');
  const bytes = writeStl(shapeMesh(loaf, 3), 'loaf') as Uint8Array<ArrayBuffer>;
  const taken = await shop.assets.take(new Blob([bytes]).stream() as never, 'loaf.stl');
  hash = taken.hash;
  await putAsset(shop.db, { ...taken, file: 'loaf.stl' });
  archive = await buffer(packShop(shop.db, folder));
});

afterAll(async () => {
  await shop.plans.close();
  await shop.db.destroy();
  rmSync(root, { recursive: true, force: true });
});

test('a shop goes into one archive while it runs, and comes back whole in an empty place', async () => {
  const file = path.join(root, 'b.tar.gz');
  await writeBackup(shop.db, folder, createWriteStream(file));
  const other = path.join(root, 'other');
  expect(await restoreShop(createReadStream(file), other, false)).toEqual({ jobs: 1, files: 1, before: null });
  const back = await openShop(other);
  expect((await getJob(back.db, id)).document).toEqual(job);
  expect(createHash('sha256').update(back.assets.read(hash, 'loaf.stl')).digest('hex')).toBe(hash);
  await back.plans.close();
  await back.db.destroy();
  // Nothing is left beside them.
  expect(readdirSync(folder).filter((n) => n.includes('.part'))).toEqual([]);
  expect(readdirSync(root).sort()).toEqual(['b.tar.gz', 'other', 'shop']);
});

test('a shop that is there gives way only when that is said, and is kept beside', async () => {
  const place = path.join(root, 'there');
  const there = await openShop(place);
  await createJob(there.db, { ...job, name: 'Mine' });
  await there.plans.close();
  await there.db.destroy();
  await expect(restoreShop(Readable.from(archive), place, false)).rejects.toThrow('there is a shop in');
  const { before } = await restoreShop(Readable.from(archive), place, true);
  const kept = await openShop(before!);
  expect((await kept.rack.list()).map((r) => r.name)).toEqual(['Mine']);
  await kept.plans.close();
  await kept.db.destroy();
  expect(hasShop(place)).toBe(true);
});

/** The archive with its entries changed, by hand. */
async function changed(change: (name: string, bytes: Buffer) => [string, Buffer] | null): Promise<Readable> {
  const out = pack();
  const inTar = extract();
  const reading = pipeline(Readable.from(gunzipSync(archive)), inTar);
  for await (const e of inTar) {
    const made = change(e.header.name, await buffer(e));
    if (made) out.entry({ name: made[0] }, made[1]);
  }
  await reading;
  out.finalize();
  return Readable.from(gzipSync(await buffer(out)));
}

test('what is no whole backup is refused, and what was there stays as it was', async () => {
  const place = path.join(root, 'refused');
  const refused = async (from: Readable, words: string) => {
    await expect(restoreShop(from, place, true)).rejects.toThrow(words);
    expect(readdirSync(root).filter((n) => n.startsWith('refused'))).toEqual([]);
  };
  await refused(Readable.from(Buffer.from('no archive')), 'it does not unpack');
  await refused(Readable.from(archive.subarray(0, archive.length >> 1)), 'this is no whole backup');
  await refused(await changed((n, b) => (n === 'manifest.json' ? null : [n, b])), 'does not begin with its manifest');
  await refused(await changed((n, b) => (n.startsWith('assets/') ? null : [n, b])), 'it ends before assets/');
  await refused(
    await changed((n, b) =>
      n.startsWith('assets/') ? [n, Buffer.from(b.map((v, i) => (i === 90 ? v ^ 1 : v)))] : [n, b],
    ),
    'is not what was backed up',
  );
  await refused(await changed((n, b) => (n.startsWith('assets/') ? [`../${n}`, b] : [n, b])), 'does not belong there');
  const version = (n: string, b: Buffer): [string, Buffer] =>
    n === 'manifest.json' ? [n, Buffer.from(b.toString().replace('"version": 1', '"version": 7'))] : [n, b];
  await refused(await changed(version), 'it is of version 7');
});
