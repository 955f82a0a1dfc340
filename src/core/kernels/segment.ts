/** Numbers a segment: x0 y0 z0 x1 y1 z1 and 1 for a rapid. */
export const SEGMENT = 7;

/**
 * Segments round a drum with their true lengths: y goes on by the way round at the radius halfway along each, so that what is reckoned a mm of way is
 * reckoned by what the tip goes over the wood.
 * @param radius from which heights count, mm
 */
export function trueWays(segments: Float64Array, radius: number): Float64Array {
  const out = segments.slice();
  let y = 0;
  for (let s = 0; s < out.length; s += SEGMENT) {
    const middle = Math.max(0, radius + (segments[s + 2] + segments[s + 5]) / 2);
    out[s + 1] = y;
    y += ((segments[s + 4] - segments[s + 1]) * middle) / radius;
    out[s + 4] = y;
  }
  return out;
}
