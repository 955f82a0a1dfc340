/**
 * Heights to rough at, from the top down. Flats are found as the heights that at least `share` of the area has in common;
 * each gets a level of its own, so that the stock left on it is exact, and the gaps between are divided evenly into
 * steps of at most `stepdown`.
 * @param heights lowest allowed tip heights of the area's cells, mm
 * @param top height of the stock
 */
export function roughLevels(heights: Float32Array, top: number, stepdown: number, share = 0.015): number[] {
  const STEP = 0.005;
  const counts = new Map<number, number>();
  let total = 0;
  let lowest = Infinity;
  for (const h of heights) {
    if (!(h < top - 0.02)) continue;
    const bin = Math.round(h / STEP);
    counts.set(bin, (counts.get(bin) ?? 0) + 1);
    total++;
    if (h < lowest) lowest = h;
  }
  if (total === 0) return [];
  const stops: number[] = [];
  for (const [bin, count] of [...counts].sort((a, b) => b[1] - a[1])) {
    if (count < share * total) break;
    const z = bin * STEP + STEP / 2;
    // Two flats closer than a fifth of a step are served by the upper one.
    if (z < top - 0.1 && stops.every((s) => Math.abs(s - z) > stepdown / 5)) stops.push(z);
  }
  const bottom = Math.ceil(lowest / STEP) * STEP;
  if (stops.every((s) => Math.abs(s - bottom) > stepdown / 5)) stops.push(bottom);
  stops.sort((a, b) => b - a);
  const levels: number[] = [];
  let above = top;
  for (const z of stops) {
    const n = Math.max(1, Math.ceil((above - z) / stepdown - 1e-6));
    for (let i = 1; i <= n; i++) levels.push(above + ((z - above) * i) / n);
    above = z;
  }
  return levels;
}
