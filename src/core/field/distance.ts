/** Two passes of the lower envelope of parabolas (Felzenszwalb and Huttenlocher, "Distance transforms of sampled functions", 2012). */
function plainDistance(inside: Uint8Array, width: number, height: number): Float32Array {
  const g = new Float32Array(width * height);
  // Distance along y only, by a sweep up and one down, row by row so that memory is read in order.
  for (let k = 0; k < g.length; k++) g[k] = inside[k] ? (k < width ? FAR : g[k - width] + 1) : 0;
  for (let k = g.length - width - 1; k >= 0; k--) {
    const d = g[k + width] + 1;
    if (d < g[k]) g[k] = d;
  }
  const envelope: Envelope = {
    v: new Int32Array(width),
    z: new Float64Array(width + 1),
    f: new Float64Array(width),
  };
  for (let y = 0; y < height; y++) {
    const row = y * width;
    for (let end = 0; end < width; ) {
      let from = end;
      while (from < width && g[row + from] === 0) from++;
      end = from;
      while (end < width && g[row + end] > 0) end++;
      // Nothing beyond the 0 at either end of a run is nearer than that.
      if (end > from) alongRun(g.subarray(row, row + width), from, end, envelope);
    }
  }
  return g;
}

/** Farther than any cell: there is none in its column. */
const FAR = 1e9;

/** Parabolas of a row's lower envelope: whose they are, from where each is the lowest, and how high it lies at its own place. */
interface Envelope {
  v: Int32Array;
  z: Float64Array;
  f: Float64Array;
}

/** Brings the distances along y of a row's cells from..end to distances to any cell. */
function alongRun(g: Float32Array, from: number, end: number, { v, z, f }: Envelope): void {
  let n = -1;
  const last = Math.min(g.length, end + 1);
  for (let x = Math.max(0, from - 1); x < last; x++) {
    const d = g[x];
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
    g.fill(Infinity, from, end);
    return;
  }
  for (let x = from, k = 0; x < end; x++) {
    while (z[k + 1] < x) k++;
    const e = x - v[k];
    g[x] = Math.sqrt(e * e + f[v[k]]);
  }
}

/**
 * Exact Euclidean distance, in cells, from each cell's centre to the nearest cell where `inside` is 0; 0 there, and Infinity when there is none.
 * @param round whether the last row lies beside the first, as around a drum: then measured on its sheet
 */
export function distanceInside(inside: Uint8Array, width: number, height: number, round = false): Float32Array {
  if (!round) return plainDistance(inside, width, height);
  // Half a turn on either side: nothing further round is nearer than what lies on this side.
  const beyond = Math.ceil(height / 2) * width;
  const wound = new Uint8Array(inside.length + 2 * beyond);
  wound.set(inside.subarray(inside.length - beyond));
  wound.set(inside, beyond);
  wound.set(inside.subarray(0, beyond), beyond + inside.length);
  return plainDistance(wound, width, wound.length / width).slice(beyond, beyond + inside.length);
}

/** Distance in cells to the nearest cell where `inside` is not 0; 0 there. @param round as for distanceInside */
export function distanceOutside(inside: Uint8Array, width: number, height: number, round = false): Float32Array {
  const flipped = new Uint8Array(inside.length);
  for (let i = 0; i < inside.length; i++) flipped[i] = inside[i] ? 0 : 1;
  return distanceInside(flipped, width, height, round);
}
