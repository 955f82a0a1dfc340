import { existsSync, readFileSync, utimesSync } from 'node:fs';
import path from 'node:path';
import { asideOf, contentsOf, keepWithin, makeFolder, moveFile, sweepLeavings, writeParts } from './files';

/** Bytes of small pictures that are kept; the ones looked at longest ago go first. */
const LIMIT = 200 * 1024 ** 2;

/** Small pictures in a folder, by the hash of what they are of. */
export class PictureStore {
  constructor(private readonly folder: string) {
    makeFolder(folder);
    sweepLeavings(folder);
  }

  get(key: string): Buffer | null {
    const file = path.join(this.folder, key);
    if (!existsSync(file)) return null;
    const now = new Date();
    utimesSync(file, now, now);
    return readFileSync(file);
  }

  put(key: string, bytes: Uint8Array): void {
    const file = path.join(this.folder, key);
    const aside = asideOf(file);
    writeParts(aside, [bytes], false);
    moveFile(aside, file);
    keepWithin(contentsOf(this.folder), LIMIT);
  }

  /** A file beside the pictures for what is still being worked out. */
  aside(key: string): string {
    return asideOf(path.join(this.folder, key));
  }
}
