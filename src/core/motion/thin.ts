/** Slopes tried at each vertex, as shares of what the corridor allows; the one that reaches furthest is taken. */
const TRIALS = [0.5, 0.1, 0.9];

/**
 * Thins a line of heights at equal spacing to few vertices whose polyline lies, at every sample, in [z, z + tolerance]:
 * never below the surface. From a vertex the slopes that keep within the corridor are an interval that only shrinks; when
 * it empties, the next vertex is set at the sample before, on the slope of the interval from which the following stretch
 * reaches furthest. The vertices are free, not samples, which is what makes the corridor pay.
 * @param z heights, n of them
 * @param step spacing
 * @param positions receives the vertex positions (index times step); length at least n
 * @param heights receives the vertex heights; length at least n
 * @returns number of vertices
 */
export function thinLine(
  z: Float64Array,
  n: number,
  step: number,
  tolerance: number,
  positions: Float64Array,
  heights: Float64Array,
): number {
  let count = 0;
  let at = 0;
  let h = z[0] + tolerance / 2;
  positions[count] = 0;
  heights[count++] = h;
  if (n === 1) return count;
  // The stretch from (at, h): the first sample that it cannot keep, and its slopes a sample just before.
  let end = 0;
  let lo = 0;
  let hi = 0;
  const follow = (from: number, height: number) => {
    let l = -Infinity;
    let u = Infinity;
    let i = from + 1;
    for (; i < n; i++) {
      const d = i - from;
      const a = (z[i] - height) / d;
      const b = (z[i] + tolerance - height) / d;
      const nl = a > l ? a : l;
      const nu = b < u ? b : u;
      if (nl > nu) break;
      l = nl;
      u = nu;
    }
    end = i;
    lo = l;
    hi = u;
  };
  follow(0, h);
  for (;;) {
    const next = end - 1;
    const span = next - at;
    if (end >= n) {
      positions[count] = next * step;
      heights[count++] = h + ((lo + hi) / 2) * span;
      return count;
    }
    const [l, u] = [lo, hi];
    let bestEnd = -1;
    let bestLo = 0;
    let bestHi = 0;
    let bestH = 0;
    for (const share of TRIALS) {
      const height = h + (l + (u - l) * share) * span;
      follow(next, height);
      if (end > bestEnd) {
        bestEnd = end;
        bestLo = lo;
        bestHi = hi;
        bestH = height;
      }
    }
    at = next;
    h = bestH;
    end = bestEnd;
    lo = bestLo;
    hi = bestHi;
    positions[count] = at * step;
    heights[count++] = h;
  }
}

/** Pieces of a polyline one after the other, as one. */
export function joinedPoints(pieces: Float64Array[]): Float64Array {
  const out = new Float64Array(pieces.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const p of pieces) {
    out.set(p, at);
    at += p.length;
  }
  return out;
}
