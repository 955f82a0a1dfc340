export interface Terraces {
  /** How many different heights there are. */
  levels: number;
  /** The step between neighbouring levels that is met most often, as a share of white. */
  step: number;
}

/** More levels than this do not show as steps. */
const MOST_LEVELS = 1024;

/**
 * The steps of an image that has few levels, or null when it is smooth or a drawing of a few flat tones: levels are
 * counted, and most neighbours on different levels must be exactly one step apart.
 */
export function findTerraces(values: Float32Array, width: number): Terraces | null {
  const seen = new Set<number>();
  for (let k = 0; k < values.length; k++) {
    seen.add(values[k]);
    if (seen.size > MOST_LEVELS) return null;
  }
  if (seen.size < 12) return null;
  const sorted = [...seen].sort((a, b) => a - b);
  const index = new Map(sorted.map((v, i) => [v, i]));
  let one = 0;
  let more = 0;
  for (let k = 1; k < values.length; k++) {
    if (k % width === 0 || values[k] === values[k - 1]) continue;
    if (Math.abs(index.get(values[k])! - index.get(values[k - 1])!) === 1) one++;
    else more++;
  }
  if (one < more) return null;
  const steps = sorted.slice(1).map((v, i) => v - sorted[i]);
  steps.sort((a, b) => a - b);
  return { levels: sorted.length, step: steps[steps.length >> 1] };
}

/** Rounds of smoothing, widest first: how far a place looks to either side, in pixels. */
const RADII = [12, 8, 5, 3, 2, 1, 1];

/** Directions in which a place looks to both sides. */
const DIRECTIONS = [
  [1, 0],
  [0, 1],
  [1, 1],
  [1, -1],
];

/**
 * One round: each place goes to the mean of what stands on both sides of it. Two opposite places count together or not at all: on a
 * slope they cancel out, and beside a cliff neither counts, so that nothing is drawn up or down by what is no step of rounding.
 * @param most furthest that the mean of two opposite places may lie from the place itself
 */
function evened(values: Float32Array, width: number, height: number, radius: number, most: number): Float32Array {
  const out = new Float32Array(values.length);
  const reaches = [...new Set([radius, Math.ceil(radius / 2)])];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const k = y * width + x;
      const v = values[k];
      let sum = v;
      let count = 1;
      for (const r of reaches)
        for (const [dx, dy] of DIRECTIONS) {
          const [ax, ay] = [dx * r, dy * r];
          if (x < Math.abs(ax) || x + Math.abs(ax) >= width || y < Math.abs(ay) || y + Math.abs(ay) >= height) continue;
          const mean = (values[k + ay * width + ax] + values[k - ay * width - ax]) / 2;
          if (mean - v > most || v - mean > most) continue;
          sum += 2 * mean;
          count += 2;
        }
      out[k] = sum / count;
    }
  }
  return out;
}

/**
 * Takes the steps out: the image is evened again and again, and after each round brought back to within half a step of what it was,
 * so that no place moves further than what rounding had moved it. Evening alone lowers what bulges and lifts what is hollow; what it
 * took is evened too and given back (twicing, any text on smoothing), so that the surface as a whole stays where it is.
 */
export function smoothTerraces(values: Float32Array, width: number, height: number): Float32Array {
  const found = findTerraces(values, width);
  if (!found) return values;
  const half = found.step / 2;
  let out = values;
  for (const r of RADII) {
    const once = evened(out, width, height, r, found.step);
    const rest = out.map((v, k) => v - once[k]);
    const again = evened(rest, width, height, r, found.step);
    for (let k = 0; k < out.length; k++) once[k] += again[k];
    out = once;
    for (let k = 0; k < out.length; k++) out[k] = Math.min(values[k] + half, Math.max(values[k] - half, out[k]));
  }
  return out;
}
