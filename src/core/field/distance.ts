/**
 * Exact Euclidean distance, in cells, from each cell's centre to the nearest cell where `inside` is 0; 0 there, and
 * Infinity when there is none. Two passes of the lower envelope of parabolas (Felzenszwalb and Huttenlocher, "Distance
 * transforms of sampled functions", 2012).
 */
export function distanceInside(inside: Uint8Array, width: number, height: number): Float32Array {
  const FAR = 1e9;
  const g = new Float32Array(width * height);
  // Distance along y only, by a sweep up and one down, row by row so that memory is read in order.
  for (let k = 0; k < g.length; k++) g[k] = inside[k] ? (k < width ? FAR : g[k - width] + 1) : 0;
  for (let k = g.length - width - 1; k >= 0; k--) {
    const d = g[k + width] + 1;
    if (d < g[k]) g[k] = d;
  }
  const v = new Int32Array(width);
  const z = new Float64Array(width + 1);
  const f = new Float64Array(width);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let any = false;
    for (let x = 0; x < width && !any; x++) any = g[row + x] > 0;
    if (!any) continue;
    let n = -1;
    for (let x = 0; x < width; x++) {
      const d = g[row + x];
      if (d >= FAR / 2) continue;
      f[x] = d * d;
      let s = -Infinity;
      while (n >= 0) {
        const p = v[n];
        s = (f[x] + x * x - f[p] - p * p) / (2 * (x - p));
        if (s > z[n]) break;
        n--;
      }
      n++;
      v[n] = x;
      z[n] = n === 0 ? -Infinity : s;
      z[n + 1] = Infinity;
    }
    if (n < 0) {
      g.fill(Infinity, row, row + width);
      continue;
    }
    for (let x = 0, k = 0; x < width; x++) {
      while (z[k + 1] < x) k++;
      const e = x - v[k];
      g[row + x] = Math.sqrt(e * e + f[v[k]]);
    }
  }
  return g;
}

/** Distance in cells to the nearest cell where `inside` is not 0; 0 there. */
export function distanceOutside(inside: Uint8Array, width: number, height: number): Float32Array {
  const flipped = new Uint8Array(inside.length);
  for (let i = 0; i < inside.length; i++) flipped[i] = inside[i] ? 0 : 1;
  return distanceInside(flipped, width, height);
}
