import type { Kysely } from 'kysely';
import { type Job, setupsOf } from '../core/doc/job';
import { SourceError } from '../core/sources/source-error';
import type { UnpackNews, UnpackOrder } from '../workers/unpack.worker';
import type { AssetStore } from './assets';
import { BUNDLE_LIMIT, filesOf } from './bundle';
import type { Schema } from './database';
import { removeFile } from './files';
import { putAsset } from './jobs';
import { OneShot } from './one-shot';

/** Archives unpacked at once, in threads of their own. */
const UNPACKING = 2;
const threads = new OneShot<UnpackOrder, UnpackNews>('unpack', UNPACKING);

/** The name of a file as the job's layers say it. */
function nameIn(job: Job, hash: string): string | undefined {
  for (const { source } of setupsOf(job).flatMap((p) => p.setup.layers))
    if ('hash' in source && source.hash === hash) return source.file;
  return undefined;
}

/**
 * Takes an archive of packJob in: streamed to disk, unpacked in a thread, and the files that its job names stored. Nothing is kept
 * when any of it is wrong.
 * @throws SourceError
 */
export async function importJob(
  db: Kysely<Schema>,
  assets: AssetStore,
  body: ReadableStream<Uint8Array>,
  file: string,
  signal?: AbortSignal,
): Promise<Job> {
  const { aside } = await assets.receive(body, file, BUNDLE_LIMIT);
  const places: string[] = [];
  try {
    const news = await threads.run({ path: aside, file, folder: assets.folder }, signal);
    if ('refused' in news) throw new SourceError(news.refused);
    const { job, files } = news;
    places.push(...files.map((f) => f.path));
    const found = new Set(files.map((f) => f.hash));
    const missing = filesOf(job).find((hash) => !found.has(hash) && !assets.has(hash));
    if (missing)
      throw new SourceError(
        `${file}: the file ${missing.slice(0, 12)}... of its job is not in it; export the job again`,
      );
    for (const f of files) {
      const name = nameIn(job, f.hash) ?? f.name;
      const info = await assets.keep(f.path, f.hash, name, signal);
      await putAsset(db, { hash: f.hash, file: name, size: assets.size(f.hash), info });
    }
    return job;
  } finally {
    removeFile(aside);
    for (const p of places) removeFile(p);
  }
}
