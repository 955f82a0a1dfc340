// What a segment meets: accumulated four lanes at a time while its rows are cut, given out as one row of floats.
// See ../engagement.ts for what each figure means.

export const PLAIN = 0, MEASURE = 1, RAPID = 2;

/** Heights that rounding leaves on ground that has been cut already, mm. */
const MET: f32 = 1e-4;

let sum: v128 = f32x4.splat(0), bite: v128 = f32x4.splat(0), met: v128 = f32x4.splat(0);
let left: v128 = f32x4.splat(0), right: v128 = f32x4.splat(0);
let high: v128 = f32x4.splat(0);
let mode: i32 = PLAIN;
let beyond: f32 = 0, limit: f32 = 0;

@inline
function greatest(v: v128): f32 {
  const a = f32x4.pmax(v, v128.shuffle<f32>(v, v, 2, 3, 0, 1));
  const b = f32x4.pmax(a, v128.shuffle<f32>(a, a, 1, 0, 3, 2));
  return f32x4.extract_lane(b, 0);
}

@inline
function total(v: v128): f32 {
  return f32x4.extract_lane(v, 0) + f32x4.extract_lane(v, 1) + f32x4.extract_lane(v, 2) + f32x4.extract_lane(v, 3);
}

/** Begins a segment of a cutter of radius R; wood that stands higher than `most` over the tip counts as high. */
export function begin(how: i32, R: f64, most: f64): void {
  const zero = f32x4.splat(0);
  sum = zero; bite = zero; met = zero; left = zero; right = zero; high = zero;
  mode = how;
  beyond = (R + 1) as f32;
  limit = most as f32;
}

/**
 * Lowers four cells from what stood to z, where z is lower, and notes what is met.
 * @param tip height of the tip at that moment; a, b: places of the cells along and across the segment
 */
@inline
export function take(at: usize, old: v128, z: v128, tip: v128, a: v128, b: v128): void {
  const zero = f32x4.splat(0);
  const cut = f32x4.pmax(zero, f32x4.sub(old, z));
  if (mode == RAPID) {
    bite = f32x4.pmax(bite, cut);
    return;
  }
  v128.store(at, f32x4.pmin(old, z));
  if (mode == PLAIN) return;
  const wood = f32x4.gt(cut, f32x4.splat(MET));
  if (!v128.any_true(wood)) return;
  sum = f32x4.add(sum, cut);
  met = f32x4.add(met, v128.and(wood, f32x4.splat(1)));
  bite = f32x4.pmax(bite, v128.and(wood, f32x4.sub(old, tip)));
  const top = f32x4.add(tip, f32x4.splat(limit));
  const tall = v128.and(wood, f32x4.gt(old, top));
  if (!v128.any_true(tall)) return;
  high = f32x4.add(high, v128.and(tall, f32x4.sub(old, f32x4.pmax(top, z))));
  const front = v128.and(tall, f32x4.ge(a, f32x4.splat(-1e-4)));
  const r = f32x4.splat(beyond);
  left = f32x4.pmax(left, v128.and(front, f32x4.add(r, b)));
  right = f32x4.pmax(right, v128.and(front, f32x4.sub(r, b)));
}

/** Writes what the segment met: volume, bite, the two offsets across of high wood with R + 1 added, area of the cells, volume of what is high. */
export function tell(out: usize, cell: f64): void {
  const area = (cell * cell) as f32;
  f32.store(out, total(sum) * area);
  f32.store(out, greatest(bite), 4);
  f32.store(out, greatest(left), 8);
  f32.store(out, greatest(right), 12);
  f32.store(out, total(met) * area, 16);
  f32.store(out, total(high) * area, 20);
}
