/**
 * Thins a line of heights at equal spacing to few vertices whose polyline lies, at every sample, in [z, z + tolerance]:
 * never below the surface. One pass: from the last vertex the slopes that keep within the corridor are an interval that
 * only shrinks; when it empties, a vertex is set on the middle slope at the sample before. The vertices are free, not
 * samples, which is what makes the corridor pay.
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
  let lo = -Infinity;
  let hi = Infinity;
  for (let i = 1; i < n; i++) {
    const d = (i - at) * step;
    const a = (z[i] - h) / d;
    const b = (z[i] + tolerance - h) / d;
    const l = a > lo ? a : lo;
    const u = b < hi ? b : hi;
    if (l <= u) {
      lo = l;
      hi = u;
      continue;
    }
    h += ((lo + hi) / 2) * (i - 1 - at) * step;
    at = i - 1;
    positions[count] = at * step;
    heights[count++] = h;
    lo = (z[i] - h) / step;
    hi = (z[i] + tolerance - h) / step;
  }
  if (n > 1) {
    positions[count] = (n - 1) * step;
    heights[count++] = h + ((lo + hi) / 2) * (n - 1 - at) * step;
  }
  return count;
}
