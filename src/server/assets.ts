import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { SourceInfo } from '../core/sources/inspect';
import { MAX_SOURCE_BYTES, SourceError } from '../core/sources/source-error';
import { asideOf, makeFolder, moveFile, noteSynced, removeFile, sweepLeavings } from './files';
import type { Reader } from './reader';
import { HASH, readStored } from './stored';

/** Files stored once under their content's SHA-256; a name given by a person never becomes a path. */
export class AssetStore {
  /** @param reader looks at what is taken in; a store that only hands out needs none */
  constructor(
    readonly folder: string,
    private readonly reader?: Pick<Reader, 'inspect'>,
  ) {
    makeFolder(folder);
  }

  /** Removes uploads that a crash cut short. */
  sweep(): void {
    sweepLeavings(this.folder);
  }

  path(hash: string): string {
    if (!HASH.test(hash)) throw new SourceError(`"${hash.slice(0, 80)}" is not a file's hash`);
    return path.join(this.folder, hash);
  }

  has(hash: string): boolean {
    return existsSync(this.path(hash));
  }

  /** A file's bytes, as they were taken in. @throws SourceError naming the file when they are missing or no longer what they were */
  read(hash: string, file: string): Buffer {
    return readStored(this.path(hash), file);
  }

  size(hash: string): number {
    return statSync(this.path(hash)).size;
  }

  stream(hash: string): Readable {
    return createReadStream(this.path(hash));
  }

  /**
   * Streams a file to disk, reads it through, and keeps it only when it holds a relief.
   * @param signal stops the reading, as when the person has gone
   * @throws SourceError; nothing is left behind
   */
  async take(
    body: ReadableStream<Uint8Array>,
    file: string,
    signal?: AbortSignal,
  ): Promise<{ hash: string; size: number; info: SourceInfo }> {
    if (!this.reader) throw new Error('this store takes nothing in');
    const aside = asideOf(path.join(this.folder, 'incoming'));
    const hash = createHash('sha256');
    let size = 0;
    const meter = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        size += chunk.length;
        if (size > MAX_SOURCE_BYTES) done(new SourceError(`${file}: is larger than 2 GB; reduce the model`));
        else {
          hash.update(chunk);
          done(null, chunk);
        }
      },
    });
    try {
      await pipeline(Readable.fromWeb(body as never), meter, createWriteStream(aside, { flush: true }));
      if (size === 0) throw new SourceError(`${file}: is empty (0 bytes); choose the file again`);
      const info = await this.reader.inspect(aside, file, signal);
      const key = hash.digest('hex');
      noteSynced(aside);
      moveFile(aside, this.path(key));
      return { hash: key, size, info };
    } finally {
      removeFile(aside);
    }
  }
}
