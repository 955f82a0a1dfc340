import { createHash } from 'node:crypto';
import { createReadStream, readdirSync, statSync } from 'node:fs';
import path from 'node:path';
import type { Readable, Writable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { createGzip } from 'node:zlib';
import { type Kysely, sql } from 'kysely';
import { type Pack, pack } from 'tar-stream';
import { DATABASE_FILE, type Schema } from './database';
import { asideOf, removeFile } from './files';
import { HASH } from './stored';

export const BACKUP_FORMAT = 'zealous-grain-shop';
export const BACKUP_VERSION = 1;
export const MANIFEST = 'manifest.json';

/** What is in a backup, by name: its bytes and their SHA-256. It is the first entry. */
export interface BackupManifest {
  format: typeof BACKUP_FORMAT;
  version: number;
  made: string;
  jobs: number;
  files: Record<string, { bytes: number; sha256: string }>;
}

async function sumOf(file: string): Promise<string> {
  const hash = createHash('sha256');
  for await (const piece of createReadStream(file)) hash.update(piece as Buffer);
  return hash.digest('hex');
}

async function entry(tar: Pack, name: string, size: number, content: Readable): Promise<void> {
  const into = tar.entry({ name, size });
  await pipeline(content, into);
}

/**
 * The whole shop as one archive (tar, gzip): a consistent copy of its database, taken while it runs, and its files, each under its
 * hash. Results, pictures and what is worked out again are left out. Memory: a piece of a file.
 * @returns the archive as it is made; whoever reads it gets what goes wrong on the way
 */
export function packShop(db: Kysely<Schema>, folder: string): Readable {
  const tar = pack();
  const out = createGzip({ level: 3 });
  void fill(tar, db, folder).catch((e) => tar.destroy(e as Error));
  tar.on('error', (e) => out.destroy(e));
  return tar.pipe(out);
}

async function fill(tar: Pack, db: Kysely<Schema>, folder: string): Promise<void> {
  const copy = asideOf(path.join(folder, 'backup'));
  try {
    await sql`vacuum into ${copy}`.execute(db);
    const assets = path.join(folder, 'assets');
    const names = readdirSync(assets).filter((n) => HASH.test(n));
    const { jobs } = await db
      .selectFrom('jobs')
      .select((e) => e.fn.countAll<number>().as('jobs'))
      .executeTakeFirstOrThrow();
    const files: BackupManifest['files'] = {
      [DATABASE_FILE]: { bytes: statSync(copy).size, sha256: await sumOf(copy) },
    };
    for (const n of names) files[`assets/${n}`] = { bytes: statSync(path.join(assets, n)).size, sha256: n };
    const manifest: BackupManifest = {
      format: BACKUP_FORMAT,
      version: BACKUP_VERSION,
      made: new Date().toISOString(),
      jobs: Number(jobs),
      files,
    };
    tar.entry({ name: MANIFEST }, `${JSON.stringify(manifest, null, 1)}\n`);
    await entry(tar, DATABASE_FILE, files[DATABASE_FILE].bytes, createReadStream(copy));
    for (const n of names)
      await entry(tar, `assets/${n}`, files[`assets/${n}`].bytes, createReadStream(path.join(assets, n)));
    tar.finalize();
  } finally {
    removeFile(copy);
  }
}

/** Writes a backup of a shop that may be open elsewhere. */
export async function writeBackup(db: Kysely<Schema>, folder: string, into: Writable): Promise<void> {
  await pipeline(packShop(db, folder), into);
}
