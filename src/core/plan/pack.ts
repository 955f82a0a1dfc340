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

/** Where the head of a packed file ends that begins with these 8 bytes, bytes from its beginning. */
export const headEnd = (first: Uint8Array): number =>
  8 + new DataView(first.buffer, first.byteOffset).getUint32(0, true);

/** What a packed file holds, from its head: its arrays with the bytes at which they begin. @param bytes the file as far as headEnd at least */
export function packedIn(bytes: Uint8Array) {
  const end = headEnd(bytes);
  const head = JSON.parse(new TextDecoder().decode(bytes.subarray(8, end))) as Head;
  let at = Math.ceil(end / 8) * 8;
  const arrays = head.arrays.map(({ name, kind, length }) => {
    const make = ARRAYS[kind];
    const from = at;
    at += Math.ceil((length * make.BYTES_PER_ELEMENT) / 8) * 8;
    return { name, make, length, at: from };
  });
  return { meta: head.meta, arrays };
}

/** Reads what packStage wrote. The arrays are views on the bytes' own memory where those begin on a multiple of 8, as large files do. */
export function unpackStage(bytes: Uint8Array): StageResult {
  const { buffer, byteOffset: from } = bytes.byteOffset % 8 === 0 ? bytes : new Uint8Array(bytes);
  const { meta, arrays } = packedIn(new Uint8Array(buffer, from, bytes.byteLength));
  return {
    meta,
    arrays: Object.fromEntries(
      arrays.map(({ name, make, length, at }) => [name, new make(buffer as ArrayBuffer, from + at, length)]),
    ),
  };
}
