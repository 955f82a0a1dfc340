import { boxMean } from './filters';

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

/** Rounds of smoothing, widest first. */
const RADII = [12, 8, 5, 3, 2, 1, 1];

/**
 * Takes the steps out: the image is smoothed again and again, and after each round brought back to within half a step
 * of what it was, so that no place moves further than what rounding had moved it.
 */
export function smoothTerraces(values: Float32Array, width: number, height: number): Float32Array {
  const found = findTerraces(values, width);
  if (!found) return values;
  const half = found.step / 2;
  let out = values;
  for (const r of RADII) {
    out = boxMean(out, width, height, r);
    for (let k = 0; k < out.length; k++) out[k] = Math.min(values[k] + half, Math.max(values[k] - half, out[k]));
  }
  return out;
}
