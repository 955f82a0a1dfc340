import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { packStage, unpackStage } from '../core/plan/pack';
import type { PlanEnvironment, StageResult } from '../core/plan/stage';

/** Bytes of stored results that are kept; the ones used longest ago go first. */
const CACHE_LIMIT = 3 * 1024 ** 3;

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

/** Results of stages on disk, by the hash of their input. A file is written aside and renamed, so that none is ever half. */
export class StageCache {
  constructor(private readonly folder: string) {
    mkdirSync(folder, { recursive: true });
  }

  private file(key: string): string {
    return path.join(this.folder, `${key}.bin`);
  }

  get(key: string): StageResult | undefined {
    try {
      const bytes = readFileSync(this.file(key));
      const result = unpackStage(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength));
      utimesSync(this.file(key), new Date(), new Date());
      return result;
    } catch {
      return undefined;
    }
  }

  put(key: string, result: StageResult): void {
    const aside = path.join(this.folder, `${key}.${process.pid}.${Date.now()}.part`);
    writeFileSync(aside, '');
    for (const b of packStage(result)) writeFileSync(aside, b, { flag: 'a' });
    renameSync(aside, this.file(key));
    this.prune();
  }

  private prune(): void {
    const files = readdirSync(this.folder).map((name) => {
      const full = path.join(this.folder, name);
      const s = statSync(full, { throwIfNoEntry: false });
      return { full, size: s?.size ?? 0, time: s?.mtimeMs ?? 0 };
    });
    let total = files.reduce((n, f) => n + f.size, 0);
    for (const f of files.sort((a, b) => a.time - b.time)) {
      if (total <= CACHE_LIMIT) return;
      rmSync(f.full, { force: true });
      total -= f.size;
    }
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
