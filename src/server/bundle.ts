import { strToU8, type Zippable, zipSync } from 'fflate';
import type { Kysely } from 'kysely';
import { sourceKind } from '../core/arrange/kinds/registry';
import { type Job, setupsOf } from '../core/doc/job';
import { SourceError } from '../core/sources/source-error';
import type { AssetStore, Limit } from './assets';
import type { Schema } from './database';
import { getAsset } from './jobs';

/** Most that a job's archive may hold, packed and unpacked. */
export const BUNDLE_LIMIT: Limit = { bytes: 1024 ** 3, said: '1 GB', remedy: 'export the job with smaller models' };
export const BUNDLE_FORMAT = 'zealous-grain-job';
/** Version of the archive's own arrangement; the job in it has its own. */
export const BUNDLE_VERSION = 1;

const layersOf = (job: Job) => setupsOf(job).flatMap((p) => p.setup.layers);

/** Hashes of the files that a job is made of. */
export function filesOf(job: Job): string[] {
  return [...new Set(layersOf(job).flatMap((l) => sourceKind(l).files(l)))];
}

const safeName = (file: string) => file.replace(/[^\w.-]+/g, '_').slice(-80);

/**
 * A job with its files as one archive: job.json as docs/job-file.md describes it, and the files under assets/, each with
 * its SHA-256 before its name.
 * @throws SourceError when the files are too large for one archive
 */
export async function packJob(db: Kysely<Schema>, assets: AssetStore, job: Job): Promise<Uint8Array> {
  const files: Zippable = {
    'manifest.json': strToU8(`${JSON.stringify({ format: BUNDLE_FORMAT, version: BUNDLE_VERSION }, null, 2)}\n`),
    'job.json': strToU8(`${JSON.stringify(job, null, 2)}\n`),
  };
  let total = 0;
  for (const hash of filesOf(job)) {
    const { file } = await getAsset(db, hash);
    total += assets.size(hash);
    if (total > BUNDLE_LIMIT.bytes)
      throw new SourceError(`${job.name}: its files are larger than 1 GB together; reduce its models`);
    // Models shrink well; pictures are packed already.
    files[`assets/${hash}-${safeName(file)}`] = [
      assets.read(hash, file),
      { level: /\.(png|jpe?g|webp|3mf)$/i.test(file) ? 0 : 3 },
    ];
  }
  return zipSync(files);
}
