/** Arrays of numbers that planning works with. */
const TYPED = [Float32Array, Float64Array, Uint8Array, Uint16Array, Int32Array, Uint32Array];

/** Plain data with its arrays of numbers in shared memory, so that every thread that it is sent to reads the same ones. */
export function inSharedMemory<T>(value: T, made = new Map<object, unknown>()): T {
  if (typeof value !== 'object' || value === null) return value;
  const had = made.get(value);
  if (had !== undefined) return had as T;
  const keep = <V>(v: V): T => {
    made.set(value, v);
    return v as unknown as T;
  };
  for (const Typed of TYPED) {
    if (!(value instanceof Typed)) continue;
    // Typed arrays are declared over plain buffers throughout; what reads them does not ask.
    const shared = new Typed(new SharedArrayBuffer(value.byteLength) as unknown as ArrayBuffer);
    shared.set(value);
    return keep(shared);
  }
  if (value instanceof Map) {
    const out = keep(new Map());
    for (const [k, v] of value) (out as Map<unknown, unknown>).set(k, inSharedMemory(v, made));
    return out;
  }
  if (Array.isArray(value)) return keep(value.map((v) => inSharedMemory(v, made)));
  const out = keep({} as Record<string, unknown>) as Record<string, unknown>;
  for (const [k, v] of Object.entries(value)) out[k] = inSharedMemory(v, made);
  return out as T;
}
