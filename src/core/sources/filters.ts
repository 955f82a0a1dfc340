/** Rounds of a 3 x 3 median: single specks go, edges stay. */
export function removeNoise(values: Float32Array, width: number, height: number, rounds: number): Float32Array {
  let from = values;
  const w = new Float64Array(9);
  for (let round = 0; round < rounds; round++) {
    const out = new Float32Array(from.length);
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        let n = 0;
        for (let dy = -1; dy <= 1; dy++) {
          const row = Math.min(height - 1, Math.max(0, y + dy)) * width;
          for (let dx = -1; dx <= 1; dx++) {
            const v = from[row + Math.min(width - 1, Math.max(0, x + dx))];
            // Kept in order as they come: nine values are few.
            let k = n++;
            while (k > 0 && w[k - 1] > v) w[k] = w[--k];
            w[k] = v;
          }
        }
        out[y * width + x] = w[4];
      }
    }
    from = out;
  }
  return from;
}

/** Mean over a square window of (2 r + 1) pixels a side, cut off at the edge, by running sums: no cost for r. */
export function boxMean(values: Float32Array, width: number, height: number, r: number): Float32Array {
  const across = new Float32Array(values.length);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    let sum = 0;
    for (let x = 0; x < Math.min(r, width); x++) sum += values[row + x];
    for (let x = 0; x < width; x++) {
      if (x + r < width) sum += values[row + x + r];
      if (x - r - 1 >= 0) sum -= values[row + x - r - 1];
      across[row + x] = sum / (Math.min(width - 1, x + r) - Math.max(0, x - r) + 1);
    }
  }
  const out = new Float32Array(values.length);
  const sums = new Float64Array(width);
  for (let y = 0; y < Math.min(r, height); y++) for (let x = 0; x < width; x++) sums[x] += across[y * width + x];
  for (let y = 0; y < height; y++) {
    const n = Math.min(height - 1, y + r) - Math.max(0, y - r) + 1;
    for (let x = 0; x < width; x++) {
      if (y + r < height) sums[x] += across[(y + r) * width + x];
      if (y - r - 1 >= 0) sums[x] -= across[(y - r - 1) * width + x];
      out[y * width + x] = sums[x] / n;
    }
  }
  return out;
}

/**
 * Guided filter with the image as its own guide (He, Sun and Tang, "Guided image filtering", 2010): within windows whose
 * spread is below `below` the mean is taken, edges higher than that stay.
 */
export function smoothKeepingEdges(
  values: Float32Array,
  width: number,
  height: number,
  radius: number,
  below: number,
): Float32Array {
  const r = Math.max(1, Math.round(radius));
  const mean = boxMean(values, width, height, r);
  const square = new Float32Array(values.length);
  for (let k = 0; k < square.length; k++) square[k] = values[k] * values[k];
  const mean2 = boxMean(square, width, height, r);
  const a = new Float32Array(values.length);
  const b = new Float32Array(values.length);
  const eps = below * below;
  for (let k = 0; k < a.length; k++) {
    const variance = Math.max(0, mean2[k] - mean[k] * mean[k]);
    a[k] = variance / (variance + eps);
    b[k] = mean[k] * (1 - a[k]);
  }
  const ma = boxMean(a, width, height, r);
  const mb = boxMean(b, width, height, r);
  const out = new Float32Array(values.length);
  for (let k = 0; k < out.length; k++) out[k] = Math.min(1, Math.max(0, ma[k] * values[k] + mb[k]));
  return out;
}
