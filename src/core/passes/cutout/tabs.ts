import { ringLengths, ringPlace } from '../../outline/flatten';
import { NearestOutline } from '../../outline/nearest';
import { crossings, type Polygon, type Ring } from '../../outline/polygon';
import type { Tabs } from './schema';

/** At most so many places along a line are looked at for a tab. */
const STEPS = 720;
/** A bend of this much over a tab's length weighs as much as standing a whole gap from where it should be, radians. */
const BEND = 0.6;
/** Wood beside a tab that is narrower than this counts as a thin place, mm. */
const THIN = 10;
/** A place where a tab would stand on nothing weighs as much as this many gaps. */
const UNHELD = 20;
/** Rings are tried with their first tab at so many places. */
const TURNS = 24;

/**
 * How much every place bends over the length of a tab, radians: the sum of the turns at the corners that lie within it. A corner
 * counts in full as far as `reach` on both sides.
 */
function bends(r: Ring, at: Float64Array, total: number, places: Float64Array, reach: number): Float64Array {
  const n = r.length / 2;
  const turn = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const p = (i + n - 1) % n;
    const q = (i + 1) % n;
    const [ax, ay] = [r[2 * i] - r[2 * p], r[2 * i + 1] - r[2 * p + 1]];
    const [bx, by] = [r[2 * q] - r[2 * i], r[2 * q + 1] - r[2 * i + 1]];
    turn[i] = Math.abs(Math.atan2(ax * by - ay * bx, ax * bx + ay * by));
  }
  // Sums of turns along the ring, twice around, so that any window is one difference.
  const from = new Float64Array(2 * n + 1);
  for (let i = 0; i < 2 * n; i++) from[i + 1] = from[i] + turn[i % n];
  const first = (s: number) => {
    let lo = 0;
    let hi = 2 * n;
    while (lo < hi) {
      const m = (lo + hi) >> 1;
      if (at[m % n] + (m >= n ? total : 0) < s) lo = m + 1;
      else hi = m;
    }
    return lo;
  };
  return places.map((s) => {
    const a = s - reach < 0 ? s - reach + total : s - reach;
    return from[Math.min(2 * n, first(a + 2 * reach))] - from[first(a)];
  });
}

/** Whether the piece is thin beside a place of a line: how far it goes inwards before it ends, mm (up to THIN). */
function widthBeside(outline: Polygon, near: NearestOutline, x: number, y: number): number {
  const [fx, fy] = near.foot(x, y);
  const d = Math.hypot(fx - x, fy - y) || 1;
  const [ux, uy] = [(fx - x) / d, (fy - y) / d];
  for (let t = 1; t <= THIN; t += 1) {
    const row = crossings(outline, fy + t * uy);
    let inside = false;
    for (const c of row) if (c <= fx + t * ux) inside = !inside;
    if (!inside) return t - 1;
  }
  return THIN;
}

/** What tabs are placed by. */
export interface TabRoom {
  /** The piece's own outline. */
  outline: Polygon;
  /** Half of the length along the line that a tab takes at its full thickness, and with its slopes, mm. */
  half: number;
  foot: number;
  /** Whether a tab at a place of the line, nearest to a place of the outline, stands on something beyond the cut. */
  stands(place: { x: number; y: number }, foot: readonly [number, number]): boolean;
}

/**
 * Where tabs go on the lines of a cut-out: spread evenly, each line its share of them by length, moved to where the line runs
 * straight, the piece beside it is not thin and what lies beyond the cut stands. Places set by hand go to the line that is nearest.
 * @param lines the tip's rings
 * @param at the piece's own outline, and what a tab takes of a line
 * @returns for each line its tabs' middles, mm
 */
export function placeTabs(lines: Ring[], tabs: Tabs, at: TabRoom): { x: number; y: number }[][] {
  const out: { x: number; y: number }[][] = lines.map(() => []);
  if (lines.length === 0) return out;
  if (tabs.at) {
    const near = new NearestOutline(lines, 1000);
    const hit = { distance: 0, along: 0, ring: 0 };
    for (const p of tabs.at) out[near.find(p.x, p.y, hit).ring].push(p);
    return out;
  }
  const lengths = lines.map((r) => ringLengths(r).total);
  const near = new NearestOutline(at.outline, 2 * at.foot + 50);
  sharedOut(tabs.count, lengths, 2.5 * at.foot).forEach((count, k) => {
    if (count > 0) out[k] = spread(lines[k], near, count, at);
  });
  return out;
}

/**
 * How many tabs each line has: one for every piece, as long as there are tabs at all, and the others by length, as nearly as whole ones go (Sainte-Lague: each
 * next one to the longest line for its tabs and a half); no more on a line than find room.
 * @param room length of a line that a tab takes with the way to the next, mm
 */
function sharedOut(count: number, lengths: number[], room: number): number[] {
  const most = lengths.map((l) => Math.floor(l / room));
  const out = most.map((m) => (count > 0 ? Math.min(1, m) : 0));
  for (let left = count - out.reduce((a, b) => a + b, 0); left > 0; left--) {
    let best = -1;
    for (const [k, l] of lengths.entries())
      if (out[k] < most[k] && (best < 0 || l / (out[k] + 0.5) > lengths[best] / (out[best] + 0.5))) best = k;
    if (best < 0) break;
    out[best]++;
  }
  return out;
}

/** Spreads tabs along one line. */
function spread(
  r: Ring,
  near: NearestOutline,
  count: number,
  { outline, half, foot, stands }: TabRoom,
): { x: number; y: number }[] {
  const { at, total } = ringLengths(r);
  const n = Math.min(STEPS, Math.max(4 * count, Math.ceil(total)));
  const places = Float64Array.from({ length: n }, (_, i) => (total * i) / n);
  const bend = bends(r, at, total, places, half);
  const xy = Array.from(places, (s) => ringPlace(r, at, total, s));
  const cost = Float64Array.from(bend, (b, i) => {
    const thin = 2 * (1 - widthBeside(outline, near, xy[i].x, xy[i].y) / THIN);
    return b / BEND + thin + (stands(xy[i], near.foot(xy[i].x, xy[i].y)) ? 0 : UNHELD);
  });
  const gap = n / count;
  // No further than a third of the gap, and never onto a neighbour that comes towards it.
  const shift = Math.max(0, Math.min(gap / 3, (gap - 1 - (2 * foot * n) / total) / 2));
  let best: number[] = [];
  let least = Infinity;
  for (let t = 0; t < TURNS; t++) {
    const chosen: number[] = [];
    let all = 0;
    for (let c = 0; c < count; c++) {
      const wanted = (t / TURNS + c) * gap;
      let at = 0;
      let low = Infinity;
      for (let d = -Math.floor(shift); d <= shift; d++) {
        const i = (((Math.round(wanted) + d) % n) + n) % n;
        const v = cost[i] + Math.abs(d) / gap;
        if (v < low) {
          low = v;
          at = i;
        }
      }
      chosen.push(at);
      all += low;
    }
    if (all < least - 1e-9) {
      least = all;
      best = chosen;
    }
  }
  return best.map((i) => xy[i]);
}
