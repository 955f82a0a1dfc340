import { createHash } from 'node:crypto';
import { createWriteStream, existsSync } from 'node:fs';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGunzip } from 'node:zlib';
import { sql } from 'kysely';
import { type Entry, extract } from 'tar-stream';
import type { Restored } from '../contract/shop';
import { BACKUP_FORMAT, BACKUP_VERSION, type BackupManifest, MANIFEST } from './backup';
import { DATABASE_FILE, openDatabase } from './database';
import { BadRequest } from './errors';
import { asideOf, makeFolder, moveFile, removeFile, syncFolder } from './files';
import { carryAccess } from './gate/devices';
import { JSON_LIMIT, readJson } from './json';

const refuse = (why: string) => new BadRequest(`this is no whole backup of a shop: ${why}`);

async function textOf(entry: Entry): Promise<string> {
  const parts: Buffer[] = [];
  let size = 0;
  for await (const piece of entry) {
    size += (piece as Buffer).length;
    if (size > JSON_LIMIT) throw refuse(`its ${MANIFEST} is larger than ${JSON_LIMIT / 1e6} MB`);
    parts.push(piece as Buffer);
  }
  return Buffer.concat(parts).toString('utf8');
}

async function readManifest(entry: Entry): Promise<BackupManifest> {
  const m = readJson(await textOf(entry), (why) => refuse(`its ${MANIFEST} ${why}`)) as Partial<BackupManifest> | null;
  if (m?.format !== BACKUP_FORMAT || typeof m.files !== 'object' || m.files === null)
    throw refuse('it is an archive of something else');
  if (m.version !== BACKUP_VERSION)
    throw refuse(`it is of version ${m.version}, and this program reads version ${BACKUP_VERSION}`);
  return m as BackupManifest;
}

/** Unpacks an entry that the manifest names, checked against what it says. */
async function takeEntry(entry: Entry, manifest: BackupManifest, into: string): Promise<void> {
  const { name } = entry.header;
  const told = Object.hasOwn(manifest.files, name) ? manifest.files[name] : undefined;
  const known = name === DATABASE_FILE || /^assets\/[0-9a-f]{64}$/.test(name);
  if (!told || !known) throw refuse(`it holds "${name.slice(0, 80)}", which does not belong there`);
  const hash = createHash('sha256');
  let bytes = 0;
  const meter = new Transform({
    transform(piece: Buffer, _encoding, done) {
      bytes += piece.length;
      hash.update(piece);
      done(bytes > told.bytes ? refuse(`${name} is longer than it says`) : null, piece);
    },
  });
  await pipeline(entry, meter, createWriteStream(path.join(into, name), { flush: true }));
  if (bytes !== told.bytes || hash.digest('hex') !== told.sha256) throw refuse(`${name} is not what was backed up`);
}

/** Unpacks a backup into a folder of its own. @returns its manifest */
async function unpack(from: Readable, into: string): Promise<BackupManifest> {
  makeFolder(path.join(into, 'assets'));
  const tar = extract();
  let manifest: BackupManifest | null = null;
  const missing = new Set<string>();
  const reading = pipeline(from, createGunzip(), tar).catch((e) => {
    tar.destroy(e as Error);
  });
  try {
    for await (const entry of tar) {
      if (!manifest) {
        if (entry.header.name !== MANIFEST) throw refuse(`it does not begin with its ${MANIFEST}`);
        manifest = await readManifest(entry);
        for (const name of Object.keys(manifest.files)) missing.add(name);
        continue;
      }
      await takeEntry(entry, manifest, into);
      missing.delete(entry.header.name);
    }
  } catch (e) {
    if (e instanceof BadRequest || (e as NodeJS.ErrnoException).syscall) throw e;
    throw refuse('it does not unpack');
  } finally {
    tar.destroy();
    await reading;
  }
  if (!manifest) throw refuse('it is empty');
  const [gone] = missing;
  if (gone) throw refuse(`it ends before ${gone}`);
  syncFolder(path.join(into, 'assets'));
  return manifest;
}

/** Brings the database of a backup up to date, and looks it through. @throws NewerShop */
async function checkDatabase(folder: string): Promise<void> {
  const db = await openDatabase(folder);
  try {
    const { rows } = await sql<{ integrity_check: string }>`pragma integrity_check`.execute(db);
    if (rows[0]?.integrity_check !== 'ok') throw refuse('its database is damaged');
  } finally {
    await db.destroy();
  }
}

/** Whether a folder holds a shop. */
export const hasShop = (folder: string): boolean => existsSync(path.join(folder, DATABASE_FILE));

/**
 * Puts a backup in the place of a shop, which nobody may have open. All of it is unpacked and checked aside first; the shop that was
 * there stays beside it under another name.
 * @param replace whether a shop that is there may give way
 * @param swap runs what changes the folders, once the backup is known to be whole; where this process has the shop open, it is closed
 * for that long
 * @throws BadRequest, NewerShop; what was there is as it was
 */
export async function restoreShop(
  from: Readable,
  folder: string,
  replace: boolean,
  swap: (change: () => void) => Promise<void> = async (change) => change(),
): Promise<Restored> {
  const had = hasShop(folder);
  if (had && !replace)
    throw new BadRequest(
      `there is a shop in ${folder}; say that it is to be replaced, and it is kept beside under another name`,
    );
  const aside = asideOf(folder);
  try {
    const manifest = await unpack(from, aside);
    await checkDatabase(aside);
    const before = existsSync(folder) ? `${folder}-before-${new Date().toISOString().replace(/[:.]/g, '-')}` : null;
    await swap(() => {
      if (before) moveFile(folder, before);
      moveFile(aside, folder);
      if (before) carryAccess(before, folder);
    });
    return { jobs: manifest.jobs, files: Object.keys(manifest.files).length - 1, before: had ? before : null };
  } finally {
    removeFile(aside);
  }
}
