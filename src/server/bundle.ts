import { strToU8, unzipSync, type Zippable, zipSync } from 'fflate';
import type { Kysely } from 'kysely';
import { describeIssues, type Job, jobSchema, setupsOf } from '../core/doc/job';
import { SourceError } from '../core/sources/source-error';
import { looksLikeZip, staysInside } from '../core/sources/three-mf';
import type { AssetStore } from './assets';
import type { Schema } from './database';
import { getAsset, putAsset } from './jobs';
import { contentHash } from './stage-cache';

/** Most that a job's archive may hold, bytes. */
export const MAX_BUNDLE = 1024 ** 3;
const FORMAT = 'zealous-grain-job';

const layersOf = (job: Job) => setupsOf(job).flatMap((p) => p.setup.layers);

/** Hashes of the files that a job is made of. */
export function filesOf(job: Job): string[] {
  const out = new Set<string>();
  for (const l of layersOf(job)) {
    if (l.source.kind === 'mesh' || l.source.kind === 'image') out.add(l.source.hash);
    if (l.source.kind === 'words' && /^[0-9a-f]{64}$/.test(l.source.words.font)) out.add(l.source.words.font);
  }
  return [...out];
}

const safeName = (file: string) => file.replace(/[^\w.-]+/g, '_').slice(-80);

/**
 * A job with its files as one archive: job.json as docs/job-file.md describes it, and the files under assets/, each with
 * its SHA-256 before its name.
 * @throws SourceError when the files are too large for one archive
 */
export async function packJob(db: Kysely<Schema>, assets: AssetStore, job: Job): Promise<Uint8Array> {
  const files: Zippable = {
    'manifest.json': strToU8(`${JSON.stringify({ format: FORMAT, version: 1 }, null, 2)}\n`),
    'job.json': strToU8(`${JSON.stringify(job, null, 2)}\n`),
  };
  let total = 0;
  for (const hash of filesOf(job)) {
    const { file } = await getAsset(db, hash);
    total += assets.size(hash);
    if (total > MAX_BUNDLE)
      throw new SourceError(`${job.name}: its files are larger than 1 GB together; reduce its models`);
    // Models shrink well; pictures are packed already.
    files[`assets/${hash}-${safeName(file)}`] = [
      assets.read(hash, file),
      { level: /\.(png|jpe?g|webp|3mf)$/i.test(file) ? 0 : 3 },
    ];
  }
  return zipSync(files);
}

/**
 * Reads an archive of packJob: its job, its files stored. Nothing is kept when any of it is wrong.
 * @throws SourceError
 */
export async function unpackJob(db: Kysely<Schema>, assets: AssetStore, bytes: Uint8Array, file: string): Promise<Job> {
  if (!looksLikeZip(bytes)) throw new SourceError(`${file}: is not an archive; choose a job that was exported here`);
  let total = 0;
  let entries: Record<string, Uint8Array>;
  try {
    entries = unzipSync(bytes, {
      filter: (e) => {
        if (!staysInside(e.name))
          throw new SourceError(
            `${file}: holds an entry "${e.name.slice(0, 60)}" outside its own folder; it is refused`,
          );
        total += e.originalSize;
        if (total > MAX_BUNDLE) throw new SourceError(`${file}: unpacks to more than 1 GB; it is refused`);
        return e.name === 'manifest.json' || e.name === 'job.json' || e.name.startsWith('assets/');
      },
    });
  } catch (e) {
    if (e instanceof SourceError) throw e;
    throw new SourceError(`${file}: is a broken archive: its content does not unpack; export the job again`);
  }
  const json = (name: string): unknown => {
    const entry = entries[name];
    if (!entry)
      throw new SourceError(`${file}: holds no ${name}, so it is no job that was exported here; choose another`);
    try {
      return JSON.parse(new TextDecoder().decode(entry));
    } catch {
      throw new SourceError(`${file}: its ${name} is not JSON; export the job again`);
    }
  };
  if ((json('manifest.json') as { format?: unknown } | null)?.format !== FORMAT)
    throw new SourceError(`${file}: is an archive of something else; choose a job that was exported here`);
  const raw = json('job.json');
  const parsed = jobSchema.safeParse(raw);
  if (!parsed.success) throw new SourceError(`${file}: ${describeIssues(parsed.error, raw)}`);
  const job = parsed.data;
  const found = new Map<string, { name: string; bytes: Uint8Array }>();
  for (const [name, data] of Object.entries(entries)) {
    const m = /^assets\/([0-9a-f]{64})-(.*)$/.exec(name);
    if (m) found.set(m[1], { name: m[2], bytes: data });
  }
  for (const hash of filesOf(job)) {
    const f = found.get(hash);
    if (!f) {
      if (assets.has(hash)) continue;
      throw new SourceError(`${file}: the file ${hash.slice(0, 12)}... of its job is not in it; export the job again`);
    }
    if (contentHash(f.bytes) !== hash)
      throw new SourceError(`${file}: ${f.name} is not the file that the job was made with; export the job again`);
  }
  for (const hash of filesOf(job)) {
    const f = found.get(hash);
    if (!f) continue;
    const own = layersOf(job).flatMap((l) => ('hash' in l.source && l.source.hash === hash ? [l.source.file] : []))[0];
    const name = own ?? f.name;
    const taken = await assets.take(new Blob([f.bytes as Uint8Array<ArrayBuffer>]).stream() as never, name);
    await putAsset(db, { ...taken, file: name });
  }
  return job;
}
