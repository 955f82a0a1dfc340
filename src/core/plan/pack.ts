import type { StageResult } from './stage';

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
  const head: Head = {
    meta: result.meta,
    arrays: entries.map(([name, a]) => ({ name, kind: kindOf(a), length: a.length })),
  };
  const json = new TextEncoder().encode(JSON.stringify(head));
  const pad = (n: number) => new Uint8Array((8 - (n % 8)) % 8);
  const size = new Uint8Array(8);
  new DataView(size.buffer).setUint32(0, json.length, true);
  const out: Uint8Array[] = [size, json, pad(json.length)];
  for (const [, a] of entries) out.push(new Uint8Array(a.buffer, a.byteOffset, a.byteLength), pad(a.byteLength));
  return out;
}

/** Reads what packStage wrote. The arrays are views on the bytes' own memory where those begin on a multiple of 8, as large files do. */
export function unpackStage(bytes: Uint8Array): StageResult {
  const { buffer, byteOffset: from } = bytes.byteOffset % 8 === 0 ? bytes : new Uint8Array(bytes);
  const size = new DataView(buffer).getUint32(from, true);
  const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, from + 8, size))) as Head;
  let at = from + 8 + Math.ceil(size / 8) * 8;
  const arrays: StageResult['arrays'] = {};
  for (const { name, kind, length } of head.arrays) {
    const make = ARRAYS[kind];
    arrays[name] = new make(buffer as ArrayBuffer, at, length);
    at += Math.ceil((length * make.BYTES_PER_ELEMENT) / 8) * 8;
  }
  return { meta: head.meta, arrays };
}
