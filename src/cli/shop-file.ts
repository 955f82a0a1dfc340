import { createReadStream, createWriteStream, existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { writeBackup } from '../server/backup';
import { dataFolder, openDatabase } from '../server/database';
import { asideOf, moveFile, removeFile } from '../server/files';
import { hasShop, restoreShop } from '../server/restore';
import { UsageError } from './options';

/** Writes the whole shop of ZG_DATA (or data/) into a file, while it may be running. */
export async function backup(file: string): Promise<number> {
  const folder = dataFolder();
  if (!hasShop(folder)) throw new UsageError(`${folder}: there is no shop in it; set ZG_DATA to the folder of one`);
  if (existsSync(file)) throw new UsageError(`${file}: is there already; choose another name`);
  if (!statSync(path.dirname(file), { throwIfNoEntry: false })?.isDirectory())
    throw new UsageError(`${path.dirname(file)}: there is no such folder`);
  const db = await openDatabase(folder, { running: true });
  const aside = asideOf(file);
  try {
    await writeBackup(db, folder, createWriteStream(aside, { flush: true }));
    moveFile(aside, file);
  } finally {
    removeFile(aside);
    await db.destroy();
  }
  console.log(`${file}: the shop of ${folder}, ${(statSync(file).size / 1e6).toFixed(1)} MB`);
  return 0;
}

/** Puts a backup in the place of the shop of ZG_DATA (or data/), which must not be running. */
export async function restore(file: string, replace: boolean): Promise<number> {
  if (!statSync(file, { throwIfNoEntry: false })?.isFile()) throw new UsageError(`${file}: there is no such file`);
  const folder = dataFolder();
  const { jobs, files, before } = await restoreShop(createReadStream(file), folder, replace);
  console.log(`${folder}: ${jobs} ${jobs === 1 ? 'job' : 'jobs'} and ${files} ${files === 1 ? 'file' : 'files'}`);
  if (before) console.log(`the shop that was there is kept in ${before}`);
  return 0;
}
