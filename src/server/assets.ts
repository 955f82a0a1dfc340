import { createHash } from 'node:crypto';
import { createWriteStream, existsSync, statSync } from 'node:fs';
import path from 'node:path';
import { Readable, Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { SourceInfo } from '../core/sources/inspect';
import { MAX_SOURCE_BYTES, SourceError } from '../core/sources/source-error';
import { asideOf, makeFolder, moveFile, noteSynced, removeFile, sweepLeavings } from './files';
import type { Reader } from './reader';
import { HASH, readStored } from './stored';

/** Most bytes of a file, as they are said to a person, and what to do about more. */
export interface Limit {
  bytes: number;
  said: string;
  remedy: string;
}

export const SOURCE_LIMIT: Limit = { bytes: MAX_SOURCE_BYTES, said: '2 GB', remedy: 'reduce the model' };

/** What is said of a file that is over a limit. */
export const tooLarge = (file: string, limit: Limit) =>
  new SourceError(`${file}: is larger than ${limit.said}; ${limit.remedy}`);

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

  /**
   * Streams what comes in to a file aside, on the disk when this ends; whoever asked removes or keeps it.
   * @param limit of its bytes, and what to do about more
   * @throws SourceError
   */
  async receive(
    body: ReadableStream<Uint8Array>,
    file: string,
    limit: Limit,
  ): Promise<{ aside: string; hash: string; size: number }> {
    const aside = this.aside();
    const hash = createHash('sha256');
    let size = 0;
    const meter = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        size += chunk.length;
        if (size > limit.bytes) done(tooLarge(file, limit));
        else {
          hash.update(chunk);
          done(null, chunk);
        }
      },
    });
    try {
      await pipeline(Readable.fromWeb(body as never), meter, createWriteStream(aside, { flush: true }));
      if (size === 0) throw new SourceError(`${file}: is empty (0 bytes); choose the file again`);
      noteSynced(aside);
      return { aside, hash: hash.digest('hex'), size };
    } catch (e) {
      removeFile(aside);
      throw e;
    }
  }

  /** A name for a file that is still coming in. */
  aside(): string {
    return asideOf(path.join(this.folder, 'incoming'));
  }

  /**
   * Reads a file aside through and puts it under its hash, when it holds something that can be carved or written with.
   * @throws SourceError; the file aside is gone in any case
   */
  async keep(aside: string, hash: string, file: string, signal?: AbortSignal): Promise<SourceInfo> {
    try {
      if (!this.reader) throw new Error('this store takes nothing in');
      const info = await this.reader.inspect(aside, file, signal);
      moveFile(aside, this.path(hash));
      return info;
    } finally {
      removeFile(aside);
    }
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
    const { aside, hash, size } = await this.receive(body, file, SOURCE_LIMIT);
    return { hash, size, info: await this.keep(aside, hash, file, signal) };
  }
}
