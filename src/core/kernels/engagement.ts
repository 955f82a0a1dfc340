import { type Profile, profileHeight } from '../cutter/cutter';
import { SEGMENT } from './segment';

/**
 * What every move of a bit meets, `ENGAGED` numbers a move: VOLUME removed, mm3; BITE, the height over the tip of the highest wood met
 * under the whole cutter, mm (of a rapid: how deep it reaches into wood); AREA of the cells met, seen from above, mm2. Of wood that stands
 * higher over the tip than a limit: LEFT and RIGHT, how far across the move it is met in front of the start, mm from the axis, with R + 1
 * added and 0 where none is; HIGH, the volume taken above the limit, mm3.
 */
export const ENGAGED = 6;
export const VOLUME = 0;
export const BITE = 1;
export const LEFT = 2;
export const RIGHT = 3;
export const AREA = 4;
export const HIGH = 5;

/** Joins what parts of a field tell of the same moves: volumes and areas add up, of the others the largest counts. */
export function joinEngaged(into: Float32Array, part: Float32Array): void {
  for (let k = 0; k < into.length; k += ENGAGED) {
    into[k + VOLUME] += part[k + VOLUME];
    into[k + AREA] += part[k + AREA];
    into[k + HIGH] += part[k + HIGH];
    for (let f = BITE; f <= RIGHT; f++) if (part[k + f] > into[k + f]) into[k + f] = part[k + f];
  }
}

/** Width across move i in which wood higher than the limit is met in front, mm. */
export function sideOf(engaged: Float32Array, i: number, R: number): number {
  const k = i * ENGAGED;
  if (engaged[k + LEFT] === 0) return 0;
  return Math.max(0, Math.min(2 * R, engaged[k + LEFT] + engaged[k + RIGHT] - 2 * (R + 1)));
}

/** Length of move i, mm, seen from above. */
export function lengthOf(segments: Float64Array, i: number): number {
  const s = i * SEGMENT;
  return Math.hypot(segments[s + 3] - segments[s], segments[s + 4] - segments[s + 1]);
}

/** Whether move i goes on from the one before it without a turn, both at feed. */
function goesOn(segments: Float64Array, i: number): boolean {
  const [p, s] = [(i - 1) * SEGMENT, i * SEGMENT];
  if (segments[p + 6] !== 0 || segments[s + 6] !== 0) return false;
  for (let k = 0; k < 3; k++) if (segments[p + 3 + k] !== segments[s + k]) return false;
  const [ax, ay] = [segments[p + 3] - segments[p], segments[p + 4] - segments[p + 1]];
  const [bx, by] = [segments[s + 3] - segments[s], segments[s + 4] - segments[s + 1]];
  const [la, lb] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
  return la > 1e-9 && lb > 1e-9 && ax * bx + ay * by > 0 && Math.abs(ax * by - ay * bx) <= 3e-3 * la * lb;
}

/**
 * The bite of every move, in a straight chain that of the whole cutter. The removal leaves the cells ahead of a short move to those that follow
 * it, so that its own bite falls short: wood that a following move meets within R counts where it stands over this move's cutter too.
 * @param engaged as the removal tells it; no bite that comes back is less than in it
 */
export function bitesOf(profile: Profile, segments: Float64Array, engaged: Float32Array): Float32Array {
  const n = engaged.length / ENGAGED;
  const bites = Float32Array.from({ length: n }, (_, i) => engaged[i * ENGAGED + BITE]);
  const out = bites.slice();
  const inChain = Uint8Array.from({ length: n }, (_, i) => (i > 0 && goesOn(segments, i) ? 1 : 0));
  for (let i = 0; i < n; i++) {
    const own = i * SEGMENT;
    let ahead = 0;
    for (let j = i + 1; j < n && inChain[j]; j++) {
      const tip = Math.min(segments[j * SEGMENT + 2], segments[j * SEGMENT + 5]);
      const over = bites[j] + tip - segments[own + 5];
      // It lies somewhere under the following move, no nearer than that move's start.
      if (bites[j] > 0 && over > profileHeight(profile, ahead) && over > out[i]) out[i] = over;
      ahead += lengthOf(segments, j);
      if (ahead >= profile.R) break;
    }
  }
  return out;
}

/** Cells over which what is taken is meant: fewer tell their own edges. */
const MEANT = 4;

/** Length over which what a bit takes is meant, mm. @param cell of the field that is cut */
export const meantOver = (diameter: number, cell: number): number => Math.max(diameter / 4, MEANT * cell);

/**
 * Wood taken a mm of way around every move, mm3, meant over a stretch of at least `span` mm of the cut that it belongs to: a move shorter
 * than a cell meets one cell whole, or none. 0 for rapids.
 * @param what VOLUME, or HIGH for that above the limit
 */
export function chipAreas(segments: Float64Array, engaged: Float32Array, span: number, what: number): Float32Array {
  const n = engaged.length / ENGAGED;
  const way = new Float64Array(n + 1);
  const volume = new Float64Array(n + 1);
  for (let i = 0; i < n; i++) {
    const s = i * SEGMENT;
    way[i + 1] = way[i] + Math.hypot(lengthOf(segments, i), segments[s + 5] - segments[s + 2]);
    volume[i + 1] = volume[i] + engaged[i * ENGAGED + what];
  }
  const out = new Float32Array(n);
  const rapid = (i: number) => segments[i * SEGMENT + 6] === 1;
  let [from, to] = [0, 0];
  for (let i = 0; i < n; i++) {
    if (rapid(i)) continue;
    if (i === 0 || rapid(i - 1)) [from, to] = [i, i];
    const middle = (way[i] + way[i + 1]) / 2;
    while (from < i && way[from + 1] <= middle - span / 2) from++;
    while (to < n && !rapid(to) && (to <= i || way[to] < middle + span / 2)) to++;
    const long = way[to] - way[from];
    out[i] = long > 0 ? (volume[to] - volume[from]) / long : 0;
  }
  return out;
}
