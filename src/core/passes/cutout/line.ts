import type { Cutter } from '../../cutter/cutter';
import { ringArea } from '../../field/contours';
import { ringLengths, ringPlace } from '../../outline/flatten';
import { type Polygon, type Ring, turnedRing } from '../../outline/polygon';
import { offsetPolygon } from '../../outline/union';
import { besideCut } from './beside';
import type { CutoutPass } from './schema';
import { placeTabs } from './tabs';

/** Furthest that the rounding of a corner lies from a true arc, mm. */
const ARC = 0.002;
/** Upright sides have a point at the foot and one at the top, so far apart that they keep their order, mm. */
const HAIR = 0.02;
/** Slope of the sides of sloped tabs, degrees: what a bit that may not plunge can still run down. */
const TAB_SLOPE = 45;

/** A closed line that the tip follows with the waste on its left, so that a bit that turns clockwise cuts in climb direction. */
export interface CutLine {
  ring: Ring;
  /** Length along the ring at which each point lies, and the whole, mm. */
  at: Float64Array;
  total: number;
  /** Where the middles of its tabs lie along it, mm. */
  tabs: number[];
}

/** Both laps of a cut-out: the one that leaves something at the side, and the last one at the line itself. */
export interface CutLines {
  wide: CutLine[];
  last: CutLine[];
  /** Half of what the bit is lifted over for a tab at its full thickness, mm. */
  half: number;
  /** Rise of a tab's sides a mm, Infinity for upright ones. */
  slope: number;
}

function lineOf(ring: Ring, tabs: { x: number; y: number }[]): CutLine {
  const { at, total } = ringLengths(ring);
  return { ring, at, total, tabs: tabs.map((t) => alongNearest(ring, at, total, t.x, t.y)) };
}

/** How far along a ring its place nearest to a point lies, mm. */
export function alongNearest(r: Ring, at: Float64Array, total: number, x: number, y: number): number {
  let best = 0;
  let least = Infinity;
  const n = r.length / 2;
  for (let i = 0; i < n; i++) {
    const q = (i + 1) % n;
    const [dx, dy] = [r[2 * q] - r[2 * i], r[2 * q + 1] - r[2 * i + 1]];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.max(0, Math.min(1, ((x - r[2 * i]) * dx + (y - r[2 * i + 1]) * dy) / l2)) : 0;
    const d = Math.hypot(x - r[2 * i] - t * dx, y - r[2 * i + 1] - t * dy);
    if (d < least) {
      least = d;
      best = at[i] + t * ((q === 0 ? total : at[q]) - at[i]);
    }
  }
  return best;
}

/** A place on a line, `s` mm along it. */
export const pointAt = (l: Pick<CutLine, 'ring' | 'at' | 'total'>, s: number) => ringPlace(l.ring, l.at, l.total, s);

/** The line beginning `s` mm along it. */
export function rotated(l: CutLine, s: number): CutLine {
  const u = ((s % l.total) + l.total) % l.total;
  if (u < 1e-6 || l.total - u < 1e-6) return l;
  const p = pointAt(l, u);
  const n = l.ring.length / 2;
  const ring: number[] = [p.x, p.y];
  const at: number[] = [0];
  for (let k = 1; k <= n; k++) {
    const i = (p.i + k) % n;
    const d = (((l.at[i] - u) % l.total) + l.total) % l.total;
    if (d < 1e-6 || l.total - d < 1e-6) continue;
    ring.push(l.ring[2 * i], l.ring[2 * i + 1]);
    at.push(d);
  }
  return {
    ring: Float64Array.from(ring),
    at: Float64Array.from(at),
    total: l.total,
    tabs: l.tabs.map((t) => (((t - u) % l.total) + l.total) % l.total),
  };
}

/**
 * The lines of a cut-out along an outline, holes before what they are in. Each begins halfway between two of its tabs.
 * @param outline rings with their inside at the left, mm
 */
export function cutLines(outline: Polygon, pass: CutoutPass, cutter: Cutter): CutLines {
  const R = cutter.diameter / 2;
  const away = pass.side === 'on' ? 0 : R;
  const sign = pass.side === 'inside' ? -1 : 1;
  const ringsAt = (by: number) => {
    const rings = offsetPolygon(outline, sign * by, ARC);
    const way = pass.side === 'inside' ? rings : rings.map(turnedRing);
    return way.sort((a, b) => Math.abs(ringArea(a)) - Math.abs(ringArea(b)));
  };
  const half = pass.tabs.length / 2 + R;
  const slope = pass.tabs.sloped ? Math.tan((TAB_SLOPE * Math.PI) / 180) : Infinity;
  const finals = ringsAt(away);
  const foot = half + (pass.tabs.sloped ? (pass.tabs.thickness + pass.into) / slope : 0);
  const stands = pass.side === 'outside' ? besideCut(outline, cutter.diameter + pass.last) : () => true;
  const placed = placeTabs(finals, pass.tabs, { outline, half, foot, stands });
  const begin = (l: CutLine): CutLine => {
    if (l.tabs.length === 0) return l;
    const sorted = [...l.tabs].sort((a, b) => a - b);
    const gaps = sorted.map((t, i) => ({ from: t, gap: (sorted[i + 1] ?? sorted[0] + l.total) - t }));
    const widest = gaps.sort((a, b) => b.gap - a.gap)[0];
    return rotated(l, widest.from + widest.gap / 2);
  };
  const last = finals.map((r, i) => begin(lineOf(r, placed[i])));
  if (pass.last === 0) return { wide: last, last, half, slope };
  // The wider line has the same tabs, each beside the last one's.
  const wide = ringsAt(away + pass.last).map((r) => lineOf(r, []));
  last.forEach((l) => {
    for (const s of l.tabs) {
      const p = pointAt(l, s);
      let best: { line: CutLine; d: number; s: number } | null = null;
      for (const line of wide) {
        const on = alongNearest(line.ring, line.at, line.total, p.x, p.y);
        const q = pointAt(line, on);
        const d = Math.hypot(q.x - p.x, q.y - p.y);
        if (!best || d < best.d) best = { line, d, s: on };
      }
      best?.line.tabs.push(best.s);
    }
  });
  return { wide: wide.map(begin), last, half, slope };
}

/** The lines that begin on some ground. */
export function linesOn({ last, wide, ...rest }: CutLines, here: (x: number, y: number) => boolean): CutLines {
  const own = (l: CutLine) => here(l.ring[0], l.ring[1]);
  const kept = last.filter(own);
  return { ...rest, last: kept, wide: wide === last ? kept : wide.filter(own) };
}

/**
 * A line at a depth as x y z points, the tabs' rises in it; the first point is not repeated.
 * @param z where the tip runs
 * @param top upper side of the tabs; not above z: there are none at this depth
 */
export function atDepth(l: CutLine, z: number, top: number, half: number, slope: number): Float64Array {
  const lift = top - z;
  if (lift <= 1e-9 || l.tabs.length === 0) {
    const out = new Float64Array((l.ring.length / 2) * 3);
    for (let i = 0; i < l.ring.length / 2; i++) out.set([l.ring[2 * i], l.ring[2 * i + 1], z], 3 * i);
    return out;
  }
  const run = slope === Infinity ? 0 : lift / slope;
  /** How far from the nearest tab's middle, and the height there. */
  const heightAt = (s: number) => {
    let d = Infinity;
    for (const t of l.tabs) {
      const e = Math.abs(s - t) % l.total;
      d = Math.min(d, e, l.total - e);
    }
    if (d <= half + HAIR / 2) return top;
    return run === 0 ? z : Math.max(z, top - (d - half) * slope);
  };
  // Where the slopes of neighbours meet before they are down, the line bends between them.
  const order = [...l.tabs].sort((a, b) => a - b);
  const between = order.map((t, i) => (t + (order[i + 1] ?? order[0] + l.total)) / 2);
  const marks = l.tabs
    .flatMap((t) =>
      run === 0
        ? [t - half - HAIR, t - half, t + half, t + half + HAIR]
        : [t - half - run, t - half, t + half, t + half + run],
    )
    .concat(run === 0 ? [] : between)
    .map((s) => ((s % l.total) + l.total) % l.total);
  const all = [...l.at, ...marks].sort((a, b) => a - b);
  const out: number[] = [];
  for (const s of all) {
    const p = pointAt(l, s);
    out.push(p.x, p.y, heightAt(s));
  }
  return Float64Array.from(out);
}
