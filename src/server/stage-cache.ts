import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, renameSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import type { PlanEnvironment, StageResult } from '../core/plan/stage';

/** Bytes of stored results that are kept; the ones used longest ago go first. */
const CACHE_LIMIT = 3 * 1024 ** 3;

const ARRAYS = { f32: Float32Array, f64: Float64Array, u8: Uint8Array } as const;
type Kind = keyof typeof ARRAYS;

interface Head {
  meta: unknown;
  arrays: { name: string; kind: Kind; length: number }[];
}

/** One file: length of the head, the head as JSON, then the arrays, each on a multiple of 8 bytes. */
export function packStage(result: StageResult): Uint8Array[] {
  const entries = Object.entries(result.arrays);
  const kindOf = (a: unknown): Kind => (a instanceof Float32Array ? 'f32' : a instanceof Float64Array ? 'f64' : 'u8');
  const head: Head = { meta: result.meta, arrays: entries.map(([name, a]) => ({ name, kind: kindOf(a), length: a.length })) };
  const json = Buffer.from(JSON.stringify(head));
  const pad = (n: number) => Buffer.alloc((8 - (n % 8)) % 8);
  const size = Buffer.alloc(8);
  size.writeUInt32LE(json.length);
  const out: Uint8Array[] = [size, json, pad(json.length)];
  for (const [, a] of entries) out.push(Buffer.from(a.buffer, a.byteOffset, a.byteLength), pad(a.byteLength));
  return out;
}

export function unpackStage(bytes: Uint8Array): StageResult {
  const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength);
  const size = new DataView(buffer).getUint32(0, true);
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 8, size))) as Head;
  let at = 8 + Math.ceil(size / 8) * 8;
  const arrays: StageResult['arrays'] = {};
  for (const { name, kind, length } of head.arrays) {
    const make = ARRAYS[kind];
    arrays[name] = new make(buffer as ArrayBuffer, at, length);
    at += Math.ceil((length * make.BYTES_PER_ELEMENT) / 8) * 8;
  }
  return { meta: head.meta, arrays };
}

/** SHA-256 of a file's content, by which it is known. */
export function contentHash(bytes: Uint8Array): string {
  return createHash('sha256').update(bytes).digest('hex');
}

/** Key of a stage's result: the hash of its name and of all it depends on. */
export function stageKey(name: string, input: unknown): string {
  return createHash('sha256').update(`${name}\0${JSON.stringify(input)}`).digest('hex');
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
      const result = unpackStage(readFileSync(this.file(key)));
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
 * The stage runner of a plan: takes stored results where there is a cache, and keeps the seconds of each stage.
 */
export function stageRunner(cache: StageCache | null, seconds: Record<string, number>): PlanEnvironment['stage'] {
  return async (name, input, run) => {
    const key = stageKey(name, input);
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
