import { createHash } from 'node:crypto';
import { closeSync, fsyncSync, openSync, readSync, writeSync } from 'node:fs';
import path from 'node:path';
import { Unzip, type UnzipFile, UnzipInflate } from 'fflate';
import { type Job, jobSchema } from '../core/doc/job';
import { describeIssues } from '../core/doc/refusal';
import { SourceError } from '../core/sources/source-error';
import { looksLikeZip, staysInside } from '../core/sources/three-mf';
import { BUNDLE_FORMAT, BUNDLE_LIMIT, BUNDLE_VERSION, filesOf } from './bundle';
import { asideOf, removeFile } from './files';
import { JSON_LIMIT, readJson } from './json';

/** Bytes of the archive that are read at once. Packed a thousandfold they come to 64 MB, which bounds what is held. */
const PIECE = 1 << 16;

/** A file that an archive held, on disk under a name aside. */
export interface UnpackedFile {
  hash: string;
  name: string;
  path: string;
}

interface Archive {
  path: string;
  file: string;
}

/** Takes an entry's pieces as they are unpacked; `done` when it is whole. */
interface Taker {
  piece(data: Uint8Array): void;
  done(): void;
}

/** Goes through an archive once, piece by piece; entries that nobody takes are passed over. */
function goThrough({ path: place, file }: Archive, takerOf: (name: string) => Taker | null): void {
  let failure: unknown = null;
  let unpacked = 0;
  const take = (entry: UnzipFile) => {
    if (!staysInside(entry.name))
      throw new SourceError(
        `${file}: holds an entry "${entry.name.slice(0, 60)}" outside its own folder; it is refused`,
      );
    const taker = takerOf(entry.name);
    if (!taker) return;
    entry.ondata = (error, data, final) => {
      if (failure) return;
      try {
        if (error) throw error;
        unpacked += data.length;
        if (unpacked > BUNDLE_LIMIT.bytes)
          throw new SourceError(`${file}: unpacks to more than ${BUNDLE_LIMIT.said}; ${BUNDLE_LIMIT.remedy}`);
        taker.piece(data);
        if (final) taker.done();
      } catch (e) {
        failure = e;
      }
    };
    entry.start();
  };
  const unzip = new Unzip(take);
  unzip.register(UnzipInflate);
  const fd = openSync(place, 'r');
  try {
    for (let first = true; !failure; first = false) {
      const piece = new Uint8Array(PIECE);
      const n = readSync(fd, piece, 0, PIECE, null);
      if (first && !looksLikeZip(piece.subarray(0, n)))
        throw new SourceError(`${file}: is not an archive; choose a job that was exported here`);
      unzip.push(piece.subarray(0, n), n === 0);
      if (n === 0) break;
    }
  } catch (e) {
    failure ??= e;
  } finally {
    closeSync(fd);
  }
  if (failure instanceof SourceError || (failure as NodeJS.ErrnoException | null)?.syscall) throw failure;
  if (failure) throw new SourceError(`${file}: is a broken archive: its content does not unpack; export the job again`);
}

/** The text entries of an archive that were asked for. */
function readTexts(archive: Archive, names: string[]): Map<string, string> {
  const out = new Map<string, string>();
  goThrough(archive, (name) => {
    if (!names.includes(name)) return null;
    const parts: Uint8Array[] = [];
    let size = 0;
    return {
      piece(data) {
        size += data.length;
        if (size > JSON_LIMIT)
          throw new SourceError(`${archive.file}: its ${name} is larger than ${JSON_LIMIT / 1e6} MB; it is refused`);
        parts.push(data);
      },
      done: () => out.set(name, Buffer.concat(parts).toString('utf8')),
    };
  });
  return out;
}

/** The job of an archive, when it is one that this program understands. @throws SourceError */
function readJob(archive: Archive): Job {
  const { file } = archive;
  const texts = readTexts(archive, ['manifest.json', 'job.json']);
  const json = (name: string): unknown => {
    const text = texts.get(name);
    if (text === undefined)
      throw new SourceError(`${file}: holds no ${name}, so it is no job that was exported here; choose another`);
    return readJson(text, (why) => new SourceError(`${file}: its ${name} ${why}; export the job again`));
  };
  const { format, version } = (json('manifest.json') ?? {}) as { format?: unknown; version?: unknown };
  if (format !== BUNDLE_FORMAT)
    throw new SourceError(`${file}: is an archive of something else; choose a job that was exported here`);
  if (version !== BUNDLE_VERSION)
    throw new SourceError(
      `${file}: is an archive of version ${JSON.stringify(version)?.slice(0, 20)}, and this program reads version ${BUNDLE_VERSION}; open it with the program that made it`,
    );
  const raw = json('job.json');
  const parsed = jobSchema.safeParse(raw);
  if (!parsed.success) throw new SourceError(`${file}: ${describeIssues(parsed.error, raw)}`);
  return parsed.data;
}

/** Unpacks the named files of an archive to disk, each checked against its hash; all are told of in `out` as soon as they are begun. */
function unpackFiles(archive: Archive, wanted: Set<string>, folder: string, out: UnpackedFile[]): void {
  const open = new Set<number>();
  try {
    goThrough(archive, (entry) => {
      const m = /^assets\/([0-9a-f]{64})-(.*)$/.exec(entry);
      if (!m || !wanted.delete(m[1])) return null;
      const found = { hash: m[1], name: m[2], path: asideOf(path.join(folder, 'incoming')) };
      out.push(found);
      const sum = createHash('sha256');
      const fd = openSync(found.path, 'w');
      open.add(fd);
      return {
        piece(data) {
          sum.update(data);
          for (let at = 0; at < data.length; ) at += writeSync(fd, data, at);
        },
        done() {
          if (sum.digest('hex') !== found.hash)
            throw new SourceError(
              `${archive.file}: ${found.name} is not the file that the job was made with; export the job again`,
            );
          fsyncSync(fd);
        },
      };
    });
  } finally {
    for (const fd of open) closeSync(fd);
  }
}

/**
 * Reads an archive of packJob: its job, and the files that the job names, unpacked aside in a folder. Memory: a piece of the archive,
 * and its job.
 * @throws SourceError; nothing is left behind then
 */
export function unpackArchive({ folder, ...archive }: Archive & { folder: string }): {
  job: Job;
  files: UnpackedFile[];
} {
  const job = readJob(archive);
  const files: UnpackedFile[] = [];
  try {
    unpackFiles(archive, new Set(filesOf(job)), folder, files);
    return { job, files };
  } catch (e) {
    for (const f of files) removeFile(f.path);
    throw e;
  }
}
