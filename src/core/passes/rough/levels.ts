/** A height that this share of the area has in common gets a level of its own at any price. */
const LARGE = 0.1;
/** One that this share has gets it when no more levels are needed for it. */
const NOTABLE = 0.015;
const BIN = 0.005;

/** Levels from `top` through every stop, the gaps divided evenly into steps of at most `stepdown`. */
function divide(top: number, stops: number[], stepdown: number): number[] {
  const levels: number[] = [];
  let above = top;
  for (const z of [...stops].sort((a, b) => b - a)) {
    const n = Math.max(1, Math.ceil((above - z) / stepdown - 1e-6));
    for (let i = 1; i <= n; i++) levels.push(above + ((z - above) * i) / n);
    above = z;
  }
  return levels;
}

/**
 * Heights to rough at, from the top down. Flats of the target are found as heights at which the bit would sit flat on
 * many cells; a large one gets a level of its own, so that the stock left on it is exact, a smaller one when it costs no
 * further level.
 * @param heights lowest allowed tip heights of the area's cells, mm
 * @param surface the target grown by the stock to leave, mm
 * @param top height of the stock
 */
export function roughLevels(heights: Float32Array, surface: Float32Array, top: number, stepdown: number): number[] {
  const counts = new Map<number, number>();
  let total = 0;
  let lowest = Infinity;
  for (let k = 0; k < heights.length; k++) {
    const h = heights[k];
    if (!(h < top - 0.02)) continue;
    total++;
    if (h < lowest) lowest = h;
    if (h - surface[k] > 0.01) continue;
    const bin = Math.round(h / BIN);
    counts.set(bin, (counts.get(bin) ?? 0) + 1);
  }
  if (total === 0) return [];
  const stops = [Math.ceil(lowest / BIN) * BIN];
  let levels = divide(top, stops, stepdown);
  for (const [bin, count] of [...counts].sort((a, b) => b[1] - a[1])) {
    if (count < NOTABLE * total) break;
    const z = bin * BIN + BIN / 2;
    // Two flats closer than a fifth of a step are served by the upper one.
    if (z > top - 0.1 || stops.some((s) => Math.abs(s - z) <= stepdown / 5)) continue;
    const more = divide(top, [...stops, z], stepdown);
    if (more.length > levels.length && count < LARGE * total) continue;
    stops.push(z);
    levels = more;
  }
  return levels;
}
