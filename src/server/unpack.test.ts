import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { strToU8, zipSync } from 'fflate';
import { afterAll, expect, test } from 'vitest';
import { unpackArchive } from './unpack';

const folder = mkdtempSync(path.join(tmpdir(), 'zg-unpack-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const document = readFileSync('src/core/doc/upgrade/fixtures/v2-skimmed-face.json');
const order = (entries: Record<string, Uint8Array>) => {
  const archive = path.join(folder, 'job.zip');
  writeFileSync(archive, zipSync(entries));
  return { path: archive, file: 'job.zip', folder };
};
const manifest = (version: number) => strToU8(JSON.stringify({ format: 'zealous-grain-job', version }));

test('an archive of this version is read, one of another is refused by its number, and nothing is left behind', () => {
  const { job, files } = unpackArchive(order({ 'manifest.json': manifest(1), 'job.json': document }));
  expect(job.version).toBe(10);
  expect(files).toEqual([]);
  expect(() => unpackArchive(order({ 'manifest.json': manifest(2), 'job.json': document }))).toThrow(
    'job.zip: is an archive of version 2, and this program reads version 1',
  );
  expect(readdirSync(folder)).toEqual(['job.zip']);
});
