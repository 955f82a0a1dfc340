import { createHash } from 'node:crypto';
import { readFileSync, renameSync, utimesSync } from 'node:fs';
import path from 'node:path';
import { packStage, unpackStage } from '../core/plan/pack';
import type { PlanEnvironment, StageResult } from '../core/plan/stage';
import { isDiskFull } from './disk';
import { asideOf, contentsOf, keepWithin, makeFolder, removeFile, sweepLeavings, writeParts } from './files';

/** Bytes of stored results that are kept; the ones used longest ago go first. */
const CACHE_LIMIT = 3 * 1024 ** 3;

/** Bytes of the checksum that each stored result begins with. */
const SUM = 32;

/** SHA-256 of a file's content, by which it is known. */
export function contentHash(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

/** Key of a stored result: the hash of its name, of who made it, and of all it depends on. */
export function stageKey(name: string, planner: string, input: unknown): string {
  return createHash('sha256')
    .update(`${name}\0${planner}\0${JSON.stringify(input)}`)
    .digest('hex');
}

/** Results of stages on disk, by the hash of their input: written aside and renamed, and checked when they are read. */
export class StageCache {
  constructor(private readonly folder: string) {
    makeFolder(folder);
  }

  /** Removes what a crash left half written. */
  sweep(): void {
    sweepLeavings(this.folder);
  }

  private file(key: string): string {
    return path.join(this.folder, `${key}.bin`);
  }

  get(key: string): StageResult | undefined {
    try {
      const bytes = readFileSync(this.file(key));
      const body = bytes.subarray(SUM);
      if (!createHash('sha256').update(body).digest().equals(bytes.subarray(0, SUM))) return undefined;
      const result = unpackStage(body);
      utimesSync(this.file(key), new Date(), new Date());
      return result;
    } catch {
      return undefined;
    }
  }

  /** Keeps a result where there is room for it: on a full disk the work goes on, and is done again another time. */
  put(key: string, result: StageResult): void {
    const aside = asideOf(this.file(key));
    try {
      const parts = packStage(result);
      const hash = createHash('sha256');
      for (const p of parts) hash.update(p);
      writeParts(aside, [hash.digest(), ...parts], false);
      renameSync(aside, this.file(key));
    } catch (e) {
      removeFile(aside);
      if (!isDiskFull(e)) throw e;
    }
    this.prune();
  }

  private prune(): void {
    keepWithin(contentsOf(this.folder), CACHE_LIMIT);
  }
}

/**
 * The stage runner of a plan: takes stored results of the same planner where there is a cache, and keeps the seconds of each stage.
 */
export function stageRunner(
  cache: StageCache | null,
  planner: string,
  seconds: Record<string, number>,
): PlanEnvironment['stage'] {
  return async (name, input, run) => {
    const key = stageKey(name, planner, input);
    const start = performance.now();
    type R = Awaited<ReturnType<typeof run>>;
    let result = cache?.get(key) as R | undefined;
    if (!result) {
      result = await run();
      cache?.put(key, result);
    }
    seconds[name] = (seconds[name] ?? 0) + (performance.now() - start) / 1000;
    return { key, result };
  };
}
