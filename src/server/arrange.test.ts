import { mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { strToU8, unzipSync, zipSync } from 'fflate';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { demoJobOf } from '../../demo/shop';
import { Arrangement } from '../core/arrange/engine';
import { type Job, jobSchema } from '../core/doc/job';
import type { Layer } from '../core/doc/layer';
import { boardGrid } from '../core/field/height-field';
import { textOf } from '../core/findings/texts/text-of';
import { composeJob } from '../core/plan/compose-job';
import { changed, wrongIn } from '../core/plan/plan-test-kit';
import { type SetupView, setupView } from '../core/setup/view';
import { meshHealth } from '../core/sources/health';
import { parseStl } from '../core/sources/stl';
import { filesOf, packJob } from './bundle';
import { contentLoader } from './content';
import { StaleSave } from './errors';
import { importJob } from './import';
import {
  createJob,
  getHistory,
  getJob,
  listVersions,
  moveHead,
  nameVersion,
  putAsset,
  removeVersion,
  saveJob,
} from './jobs';
import { describePattern, listPatterns, putPattern, removePattern, replacePattern } from './patterns';
import { openShop, type Shop } from './shop';
import { contentHash, stageRunner } from './stage-cache';

const folder = mkdtempSync(path.join(tmpdir(), 'zg-arrange-'));
let shop: Shop;
let job: SetupView;
let files: Map<string, { name: string; bytes: Uint8Array }>;

beforeAll(async () => {
  shop = await openShop(folder);
  const demo = await demoJobOf('OE-100');
  files = demo.files;
  // A coarse grid is enough here.
  job = setupView({ ...demo.job, cell: 0.5 });
  for (const f of files.values()) {
    const taken = await shop.assets.take(new Blob([f.bytes as Uint8Array<ArrayBuffer>]).stream() as never, f.name);
    await putAsset(shop.db, { ...taken, file: f.name });
  }
});
afterAll(async () => {
  await shop.plans.close();
  await shop.db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

const renamed = (name: string): Job => ({ ...job.document, name });

test('undo and redo go along the line of versions, over a restart, and a new change leaves the old branch', async () => {
  const one = await createJob(shop.db, renamed('1'));
  const two = await saveJob(shop.db, one.id, one.revision, renamed('2'));
  const three = await saveJob(shop.db, one.id, two.revision, renamed('3'));
  const names = async () => {
    const h = await getHistory(shop.db, one.id);
    return [h.chain.map((e) => e.document.name).join(), h.at] as const;
  };
  expect(await names()).toEqual(['1,2,3', 2]);
  await moveHead(shop.db, one.id, three.revision, one.revision);
  expect((await getJob(shop.db, one.id)).document.name).toBe('1');
  // A second process sees the same line, with all of it to be redone.
  const other = await openShop(folder);
  const h = await getHistory(other.db, one.id);
  expect([h.chain.map((e) => e.document.name).join(), h.at]).toEqual(['1,2,3', 0]);
  await other.db.destroy();
  await moveHead(shop.db, one.id, one.revision, two.revision);
  expect(await names()).toEqual(['1,2,3', 1]);
  await saveJob(shop.db, one.id, two.revision, renamed('4'));
  expect(await names()).toEqual(['1,2,4', 2]);
  // Another page has been here: undo from a version that is no longer in force is refused.
  await expect(moveHead(shop.db, one.id, two.revision, one.revision)).rejects.toThrow(StaleSave);
  await expect(moveHead(shop.db, one.id, two.revision, 'none')).rejects.toThrow('no such version');
});

test('versions have names, one each, and stay when the job goes on', async () => {
  const one = await createJob(shop.db, renamed('sheaf'));
  await nameVersion(shop.db, one.id, one.revision, 'With the sheaf');
  const two = await saveJob(shop.db, one.id, one.revision, renamed('wheel'));
  await nameVersion(shop.db, one.id, two.revision, 'With the wheel');
  const list = await listVersions(shop.db, one.id);
  expect(list.map((v) => v.name)).toEqual(['With the sheaf', 'With the wheel']);
  const moved = await nameVersion(shop.db, one.id, two.revision, 'With the sheaf');
  expect(moved.map((v) => [v.name, v.revision])).toContainEqual(['With the sheaf', two.revision]);
  expect(moved).toHaveLength(2);
  expect(await removeVersion(shop.db, one.id, moved[0].id)).toHaveLength(1);
  await expect(nameVersion(shop.db, one.id, 'none', 'x')).rejects.toThrow('no such version');
});

test('patterns: one for a file, described, and taken out while its file stays', async () => {
  const [hash] = files.keys();
  const p = {
    hash,
    file: 'sheaf.stl',
    name: 'Sheaf',
    tags: ['wheat'],
    from: 'made here',
    size: { x: 10, y: 20 },
    rise: 3,
    price: null,
    licence: '',
  };
  await putPattern(shop.db, p);
  await putPattern(shop.db, { ...p, name: 'Wheat sheaf' });
  const [kept] = await listPatterns(shop.db);
  expect(kept).toMatchObject({
    name: 'Wheat sheaf',
    tags: ['wheat'],
    from: 'made here',
    size: { x: 10, y: 20 },
    rise: 3,
  });
  expect(await listPatterns(shop.db)).toHaveLength(1);
  await describePattern(shop.db, kept.id, {
    name: 'Sheaf',
    tags: [],
    from: 'a friend',
    price: 4.5,
    licence: 'own use',
  });
  const described = { name: 'Sheaf', from: 'a friend', tags: [], price: 4.5, licence: 'own use' };
  expect((await listPatterns(shop.db))[0]).toMatchObject(described);
  // The same file come again with nothing said of it loses neither price nor licence.
  await putPattern(shop.db, p);
  expect((await listPatterns(shop.db))[0]).toMatchObject({ price: 4.5, licence: 'own use' });
  await expect(
    describePattern(shop.db, 'none', { name: 'x', tags: [], from: '', price: null, licence: '' }),
  ).rejects.toThrow('no such pattern');
  // Another version takes its place, and one file is in the drawer once.
  const [, other] = files.keys();
  const newer = { hash: other, size: null, rise: null };
  await replacePattern(shop.db, kept.id, newer);
  expect(await listPatterns(shop.db)).toMatchObject([{ id: kept.id, hash: other, size: null, licence: 'own use' }]);
  await putPattern(shop.db, { ...p, name: 'The old one' });
  await expect(replacePattern(shop.db, kept.id, p)).rejects.toThrow('in the drawer already, as The old one');
  await expect(replacePattern(shop.db, kept.id, { ...newer, hash: '0'.repeat(64) })).rejects.toThrow('not stored here');
  await expect(replacePattern(shop.db, 'none', newer)).rejects.toThrow();
  for (const { id } of await listPatterns(shop.db)) await removePattern(shop.db, id);
  expect(await listPatterns(shop.db)).toEqual([]);
  expect(shop.assets.has(hash)).toBe(true);
});

const streamOf = (bytes: Uint8Array) => new Blob([bytes as Uint8Array<ArrayBuffer>]).stream() as never;

test('a job goes out as one archive and comes back equal, in a shop that has none of its files', async () => {
  const zip = await packJob(shop.db, shop.assets, job.document);
  const names = Object.keys(unzipSync(zip));
  expect(names.slice(0, 2)).toEqual(['manifest.json', 'job.json']);
  expect(names).toHaveLength(2 + filesOf(job.document).length);
  const empty = mkdtempSync(path.join(tmpdir(), 'zg-other-'));
  const other = await openShop(empty);
  try {
    expect(await importJob(other.db, other.assets, streamOf(zip), 'job.zip')).toEqual(job.document);
    for (const hash of filesOf(job.document)) expect(contentHash(other.assets.read(hash, 'a file'))).toBe(hash);
    // Packed once more it is the same again, byte for byte but for the archive's dates.
    const again = unzipSync(await packJob(other.db, other.assets, job.document));
    for (const [name, bytes] of Object.entries(unzipSync(zip)))
      expect(contentHash(again[name]), name).toBe(contentHash(bytes));
  } finally {
    await other.plans.close();
    await other.db.destroy();
    rmSync(empty, { recursive: true, force: true });
  }
});

test('archives that are not ours, or not whole, are refused by name, and leave nothing behind', async () => {
  const zip = unzipSync(await packJob(shop.db, shop.assets, job.document));
  const before = readdirSync(shop.assets.folder);
  const refuse = (entries: Record<string, Uint8Array>, words: string) =>
    expect(importJob(shop.db, shop.assets, streamOf(zipSync(entries, { level: 0 })), 'x.zip')).rejects.toThrow(words);
  const { 'job.json': doc, 'manifest.json': manifest, ...rest } = zip;
  await expect(importJob(shop.db, shop.assets, streamOf(strToU8('no zip at all')), 'x.zip')).rejects.toThrow(
    'x.zip: is not an archive',
  );
  await refuse({ 'readme.txt': strToU8('hello') }, 'x.zip: holds no manifest.json');
  await refuse({ 'manifest.json': strToU8('{"format":"other"}'), 'job.json': doc }, 'an archive of something else');
  await refuse({ 'manifest.json': manifest, 'job.json': strToU8('{') }, 'its job.json is not JSON');
  await refuse(
    { 'manifest.json': strToU8('{"format":"zealous-grain-job","version":9}'), 'job.json': doc },
    'an archive of version 9, and this program reads version 1',
  );
  const deep = strToU8(`${'['.repeat(9000)}${']'.repeat(9000)}`);
  await refuse({ 'manifest.json': manifest, 'job.json': deep }, 'its job.json nests more than 64 levels deep');
  // What the job does not name is passed over, whatever it unpacks to; what it names counts.
  const bomb = { [`assets/${'0'.repeat(64)}-bomb.stl`]: new Uint8Array(30_000_000) };
  await expect(
    importJob(shop.db, shop.assets, streamOf(zipSync({ ...zip, ...bomb }, { level: 1 })), 'x.zip'),
  ).resolves.toBeTruthy();
  await refuse({ ...zip, '../evil': strToU8('x') }, 'outside its own folder');
  const bad = structuredClone(job.document);
  Object.assign(bad.boards[0], { thickness: 'thick' });
  await refuse(
    { 'manifest.json': manifest, 'job.json': strToU8(JSON.stringify(bad)), ...rest },
    'thickness (boards.0.thickness) is "thick"',
  );
  const [asset] = Object.keys(rest);
  await refuse({ ...zip, [asset]: strToU8('another file') }, 'is not the file that the job was made with');
  expect(readdirSync(shop.assets.folder)).toEqual(before);
});

test('exports: 16-bit PNG and TIFF hold the composite, the model is closed, the picture is a picture', async () => {
  const grid = boardGrid(job.board.x, job.board.y, 0.5);
  const made = await composeJob(
    job,
    grid,
    contentLoader((h, f) => shop.assets.read(h, f)),
    stageRunner(null, 'test', {}),
  );
  for (const kind of ['heights-png', 'heights-tiff'] as const) {
    const { bytes, low, high } = await shop.exports.make(job.document, null, kind);
    const { data, info } = await sharp(bytes)
      .toColourspace('grey16')
      .raw({ depth: 'ushort' })
      .toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([grid.width, grid.height]);
    const levels = new Uint16Array(data.buffer, data.byteOffset, info.width * info.height);
    let worst = 0;
    for (let j = 0; j < grid.height; j++) {
      for (let i = 0; i < grid.width; i++) {
        const h = low + (levels[j * grid.width + i] / 65535) * (high - low);
        worst = Math.max(worst, Math.abs(h - made.z[(grid.height - 1 - j) * grid.width + i]));
      }
    }
    expect(worst, kind).toBeLessThan((1.01 * (high - low)) / 65535);
  }
  const stl = parseStl(new Uint8Array((await shop.exports.make(job.document, null, 'stl')).bytes), 'out.stl');
  const health = meshHealth(stl);
  expect(health.edges).toEqual({ open: 0, shared: 0 });
  // The surface over the whole plan, and the backing under it.
  let volume = 0;
  let covered = 0;
  for (let k = 0; k < made.z.length; k++) {
    if (!made.cover[k]) continue;
    covered++;
    volume += made.z[k] * 0.25;
  }
  const backing = job.board.thickness - job.seat.skin - made.facts.peak;
  expect(Math.abs(health.volume / (volume + backing * covered * 0.25) - 1)).toBeLessThan(0.01);
  const picture = await sharp((await shop.exports.make(job.document, null, 'picture')).bytes).metadata();
  expect(picture).toMatchObject({ format: 'png', width: 1800, channels: 3 });
});

test('an export of an empty board says that there is nothing on it', async () => {
  await expect(shop.exports.make(changed(job, { layers: [] }).document, null, 'stl')).rejects.toThrow(
    'nothing on the board to make a model of',
  );
});

test('what the plan composes is what the page composes', async () => {
  const grid = boardGrid(job.board.x, job.board.y, 1);
  const load = contentLoader((h, f) => shop.assets.read(h, f));
  const made = await composeJob(job, grid, load, stageRunner(null, 'test', {}));
  const contents = new Map<string, Awaited<ReturnType<typeof load>>['content']>();
  for (const l of job.layers) contents.set(l.id, (await load(l)).content);
  const page = new Arrangement(grid, (l: Layer) => contents.get(l.id)!);
  page.update(job.layers, job.seat);
  expect(page.surface.z).toEqual(made.z);
  expect(page.facts()).toEqual(made.facts);
  // Panel 8, field 4 deep in it, sheaf 5.6 on the field; a cell of 1 mm misses its very top.
  expect(made.facts.peak).toBeLessThanOrEqual(8 - 4 + 5.6 + 1e-6);
  expect(made.facts.peak).toBeGreaterThan(8 - 4 + 5.6 - 0.25);
});

test('a plan reads several layers, and its findings name them', async () => {
  const words: Layer = { ...job.layers[6], id: 'w2', name: 'Odd letters' };
  if (words.source.kind === 'words')
    words.source = { ...words.source, words: { ...words.source.words, text: 'Mill 水' } };
  const dug: Layer = {
    ...job.layers[1],
    id: 'deep',
    name: 'Too deep',
    rise: 12,
    size: { x: 30, y: 20 },
    centre: { x: 60, y: 160 },
  };
  const { id } = await createJob(
    shop.db,
    changed(job, {
      name: 'Findings',
      layers: [...job.layers, words, dug],
      passes: job.passes.filter((p) => p.kind === 'rough'),
    }).document,
  );
  const started = await shop.plans.start(id);
  for (;;) {
    const s = await shop.plans.state(started.id);
    if (s.status === 'queued' || s.status === 'running') {
      await new Promise((r) => setTimeout(r, 100));
      continue;
    }
    expect(s.status).toBe('done');
    const text = s.summary!.findings.map((f) => `${f.rule} ${textOf(f).message}`).join('\n');
    expect(text).toContain('missing-letters');
    expect(text).toContain('水');
    break;
  }
});

test('a job of the first version, with one relief, is read as one of layers and cuts the same', () => {
  const layer = job.layers[2];
  if (layer.source.kind !== 'mesh') throw new Error('the sheaf is a mesh');
  const { origin, z: zZero } = job.setup.zero;
  const { x, y, thickness, grain, face } = job.board;
  const board = {
    x,
    y,
    thickness,
    grain,
    face,
    material: 'maple',
    origin,
    zZero,
    spoilboard: true,
    place: job.setup.place,
  };
  const { machine, cutters, passes, output, cell } = job;
  const rest = { name: 'Old', order: '', board, machine, cutters, passes, output, cell };
  const relief = {
    kind: 'mesh',
    file: layer.source.file,
    hash: layer.source.hash,
    unit: 'mm',
    turns: [0, 0, 0],
    mirror: false,
    base: 0.1,
    size: layer.size,
    rise: 5,
    centre: layer.centre,
    invert: false,
  };
  const old = { ...rest, version: 1, relief, seat: { mode: 'raised', skin: 0.5 } };
  const read = (raw: unknown) => setupView(jobSchema.parse(raw));
  const raised = read(old);
  expect(raised.document.version).toBe(10);
  expect(raised.gaps).toEqual([]);
  expect(raised.seat).toEqual({ mode: 'raised', skin: 0.5, drop: 0, press: null });
  expect(raised.layers).toHaveLength(1);
  expect(raised.layers[0]).toMatchObject({
    join: 'stack',
    rise: 5,
    size: layer.size,
    centre: layer.centre,
    invert: false,
  });
  const sunk = read({ ...old, seat: { mode: 'sunk', skin: 0 } });
  expect(sunk.seat.drop).toBe(5);
  const mould = read({ ...old, relief: { ...relief, invert: true }, seat: { mode: 'sunk', skin: 0 } });
  expect(mould.layers[0]).toMatchObject({ join: 'carve', invert: false });
  expect(mould.seat.drop).toBe(0);
  const image = read({ ...old, relief: { ...relief, kind: 'image', file: 'h.png' } });
  expect(image.layers[0].source).toMatchObject({ kind: 'image', blackIsGround: true });
  expect(jobSchema.safeParse({ ...old, relief: null }).success).toBe(false);
  expect(jobSchema.safeParse({ ...old, version: 10 }).success).toBe(false);
});

test('a document whose layers name what is not there is read, and told by name', () => {
  expect(wrongIn(changed(job, { layers: [...job.layers, job.layers[0]] }))).toContain(
    'the layer "panel" is there twice',
  );
  const mask = { kind: 'layer', layer: 'gone', grow: 0, outside: false } as const;
  expect(wrongIn(changed(job, { layers: [{ ...job.layers[0], mask }] }))).toContain(
    '"gone", which is not on this board',
  );
  const gap = { id: 'g', axis: 'x', of: 'panel', ofSide: 'low', from: 'gone', fromSide: 'high', distance: 3 } as const;
  expect(wrongIn(changed(job, { gaps: [gap] }))).toContain('"gone", which is not on this board');
});
