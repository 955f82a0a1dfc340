import type { Mesh } from './mesh';

/** Buckets along a side of the plan. */
const SIDE = 128;

/** The triangles of a mesh by where they lie in its plan. */
interface Index {
  u0: number;
  v0: number;
  /** Buckets a unit of the file. */
  perU: number;
  perV: number;
  /** Where each bucket's triangles begin in `ids`. */
  starts: Int32Array;
  ids: Int32Array;
}

/** Indices that were made, by mesh and by the two file axes that make the plan. */
const MADE = new WeakMap<Float32Array, Map<string, Index>>();

const bucketOf = (v: number, from: number, per: number) =>
  Math.max(0, Math.min(SIDE - 1, Math.floor((v - from) * per)));

/** Calls for every bucket that the box of a triangle touches in the plan. */
function eachBucket(
  v: Float32Array,
  t: number,
  [a, b]: [number, number],
  x: Omit<Index, 'starts' | 'ids'>,
  call: (bucket: number) => void,
) {
  const [u0, u1, u2] = [v[t + a], v[t + 3 + a], v[t + 6 + a]];
  const [w0, w1, w2] = [v[t + b], v[t + 3 + b], v[t + 6 + b]];
  const i1 = bucketOf(Math.max(u0, u1, u2), x.u0, x.perU);
  const j1 = bucketOf(Math.max(w0, w1, w2), x.v0, x.perV);
  const i0 = bucketOf(Math.min(u0, u1, u2), x.u0, x.perU);
  for (let j = bucketOf(Math.min(w0, w1, w2), x.v0, x.perV); j <= j1; j++)
    for (let i = i0; i <= i1; i++) call(j * SIDE + i);
}

function indexOf(mesh: Mesh, plan: [number, number]): Index {
  const all = MADE.get(mesh.triangles) ?? new Map<string, Index>();
  MADE.set(mesh.triangles, all);
  const had = all.get(plan.join());
  if (had) return had;
  const v = mesh.triangles;
  const [a, b] = plan;
  let [u0, u1, v0, v1] = [Infinity, -Infinity, Infinity, -Infinity];
  for (let q = 0; q < v.length; q += 3) {
    u0 = Math.min(u0, v[q + a]);
    u1 = Math.max(u1, v[q + a]);
    v0 = Math.min(v0, v[q + b]);
    v1 = Math.max(v1, v[q + b]);
  }
  const per = (from: number, to: number) => SIDE / Math.max(to - from, 1e-9);
  const x = { u0, v0, perU: per(u0, u1), perV: per(v0, v1) };
  const starts = new Int32Array(SIDE * SIDE + 1);
  for (let t = 0; t < v.length; t += 9) eachBucket(v, t, plan, x, (k) => starts[k + 1]++);
  for (let k = 0; k < SIDE * SIDE; k++) starts[k + 1] += starts[k];
  const ids = new Int32Array(starts[SIDE * SIDE]);
  const next = starts.slice(0, -1);
  for (let t = 0; t < v.length; t += 9) eachBucket(v, t, plan, x, (k) => (ids[next[k]++] = t));
  const made = { ...x, starts, ids };
  all.set(plan.join(), made);
  return made;
}

/**
 * The triangles of a mesh over a box of its plan, each once, as places of their first number in `triangles`; a few beside it are among
 * them. Its index, 4 bytes a triangle and bucket that it lies in, is made once.
 * @param plan the file's axes along which the plan runs
 * @param box in the file's own coordinates along these
 */
export function trianglesOver(
  mesh: Mesh,
  plan: [number, number],
  box: { u0: number; u1: number; v0: number; v1: number },
): Int32Array {
  const x = indexOf(mesh, plan);
  const out = new Set<number>();
  const i1 = bucketOf(box.u1, x.u0, x.perU);
  const j1 = bucketOf(box.v1, x.v0, x.perV);
  const i0 = bucketOf(box.u0, x.u0, x.perU);
  for (let j = bucketOf(box.v0, x.v0, x.perV); j <= j1; j++) {
    for (let i = i0; i <= i1; i++) {
      const k = j * SIDE + i;
      for (let q = x.starts[k]; q < x.starts[k + 1]; q++) out.add(x.ids[q]);
    }
  }
  return Int32Array.from(out);
}
