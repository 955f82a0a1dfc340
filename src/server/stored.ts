import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { SourceError } from '../core/sources/source-error';

/** A file's SHA-256, by which it is stored. */
export const HASH = /^[0-9a-f]{64}$/;

/**
 * Reads a file of the store, which lies under its content's hash, or one that is still coming in.
 * @param file the name that the person knows it by
 * @throws SourceError when it is missing or is no longer what was taken in; choosing the same file again puts it back
 */
export function readStored(stored: string, file: string): Buffer {
  const hash = path.basename(stored);
  let bytes: Buffer;
  try {
    bytes = readFileSync(stored);
  } catch (e) {
    if ((e as NodeJS.ErrnoException).code !== 'ENOENT') throw e;
    throw new SourceError(`${file}: is missing from the shop's files; choose the same file again to put it back`);
  }
  if (HASH.test(hash) && createHash('sha256').update(bytes).digest('hex') !== hash)
    throw new SourceError(
      `${file}: its stored copy of ${bytes.length} bytes is damaged; choose the same file again to put it back`,
    );
  return bytes;
}
