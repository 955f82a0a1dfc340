import type { Join, Layer, Seat } from '../doc/layer';
import { AIR, type Grid } from '../field/height-field';
import type { Rendered } from './rendered';
import type { Window } from './window';

/** A rendered layer with the way it joins. */
export interface Op {
  rendered: Rendered;
  join: Join;
  lift: number;
  amount: number;
}

export const opOf = (l: Layer, rendered: Rendered): Op => ({ rendered, join: l.join, lift: l.lift, amount: l.amount });

/** One surface made of layers over the base plane at 0; a sunk piece may go below it, into the board. */
export interface Surface {
  grid: Grid;
  /** Heights, mm; 0 where no layer is. */
  z: Float32Array;
  /** 1 where the surface belongs to the piece. */
  cover: Uint8Array;
  /** How far a place was beyond what can be kept before it was clipped, mm: under the base, or over the board. */
  clipped: Float32Array;
}

export function emptySurface(grid: Grid): Surface {
  const n = grid.width * grid.height;
  return { grid, z: new Float32Array(n), cover: new Uint8Array(n), clipped: new Float32Array(n) };
}

/** A height whose part above the press's height is shortened by its factor; below its depth under `drop`, when sunk. */
export function pressed(z: number, { above, factor }: NonNullable<Seat['press']>, drop: number | null): number {
  if (drop !== null) {
    const from = drop - above;
    return z < from ? from + (z - from) * factor : z;
  }
  return z > above ? above + (z - above) * factor : z;
}

/** What a layer does to what lies beneath it. */
export interface Effect {
  /** Cells that it stands on, and those whose height it changes. */
  covered: number;
  changed: number;
  /** Most that it raises and lowers, mm, and its mean change over what it covers. */
  up: number;
  down: number;
  mean: number;
  /** Cells that it puts below the base plane, and how deep at most, mm. */
  lost: number;
  lostMost: number;
}

/** Smallest change of height that counts as one, mm. */
const CHANGE = 1e-4;

/**
 * Joins layers from the lowest to the highest over a window of the surface, from nothing. With z what lies beneath, v = lift +
 * layer and a its weight: stack z + a v; carve z - a v; highest z + a (max(z, v) - z); lowest z + a (min(z, v) - z); blend
 * (1 - a k) z + a k v. At the end the press shortens what is too high, and what lies below the base plane (raised) or above the board's top (sunk) is clipped.
 * @param effects filled with one entry a layer when it is given
 */
export function compose(s: Surface, ops: Op[], seat: Seat, region: Window, effects?: Effect[]): void {
  const { grid, z, cover, clipped } = s;
  const W = grid.width;
  const i1 = region.i + region.width;
  const j1 = region.j + region.height;
  for (let j = region.j; j < j1; j++) {
    z.fill(0, j * W + region.i, j * W + i1);
    cover.fill(0, j * W + region.i, j * W + i1);
    clipped.fill(0, j * W + region.i, j * W + i1);
  }
  const sunk = seat.mode === 'sunk';
  for (const op of ops) {
    const { window: w, heights, weight } = op.rendered;
    const marks = sunk || op.join === 'stack' || op.join === 'highest' || op.join === 'blend';
    const k = op.join === 'blend' ? op.amount : 1;
    const e: Effect = { covered: 0, changed: 0, up: 0, down: 0, mean: 0, lost: 0, lostMost: 0 };
    const a0 = Math.max(region.i, w.i);
    const a1 = Math.min(i1, w.i + w.width);
    const b1 = Math.min(j1, w.j + w.height);
    const { join, lift } = op;
    let mean = 0;
    let covered = 0;
    let changed = 0;
    let up = 0;
    let down = 0;
    for (let j = Math.max(region.j, w.j); j < b1; j++) {
      let from = (j - w.j) * w.width + a0 - w.i;
      let to = j * W + a0;
      for (let i = a0; i < a1; i++, from++, to++) {
        const h = heights[from];
        if (h === AIR) continue;
        const a = weight === null ? k : k * weight[from];
        if (a === 0) continue;
        const v = lift + h;
        const was = z[to];
        let now = was;
        if (join === 'stack') now = was + a * v;
        else if (join === 'carve') now = was - a * v;
        else if (join === 'highest') now = v > was ? (a === 1 ? v : was + a * (v - was)) : was;
        else if (join === 'lowest') now = v < was ? (a === 1 ? v : was + a * (v - was)) : was;
        else now = (1 - a) * was + a * v;
        z[to] = now;
        if (marks) cover[to] = 1;
        if (!effects) continue;
        const d = now - was;
        covered++;
        mean += d;
        if (d > CHANGE) {
          changed++;
          if (d > up) up = d;
        } else if (d < -CHANGE) {
          changed++;
          if (-d > down) down = -d;
          if (!sunk && now < -CHANGE) {
            e.lost++;
            if (-now > e.lostMost) e.lostMost = -now;
          }
        }
      }
    }
    Object.assign(e, { covered, changed, up, down, mean });
    if (e.covered > 0) e.mean /= e.covered;
    effects?.push(e);
  }
  const { press } = seat;
  // A sunk piece reaches up to the board's own top.
  const most = seat.drop + seat.skin;
  for (let j = region.j; j < j1; j++) {
    for (let k = j * W + region.i, end = j * W + i1; k < end; k++) {
      const was = z[k];
      const v = press === null ? was : pressed(was, press, sunk ? seat.drop : null);
      z[k] = v;
      if (sunk ? v > most : v < 0) {
        const to = sunk ? most : 0;
        if (Math.abs(v - to) > CHANGE) clipped[k] = Math.abs(v - to);
        z[k] = to;
      }
    }
  }
}

export interface SurfaceFacts {
  /** Highest and lowest of what belongs to the piece, mm over the datum; both 0 when nothing does. */
  peak: number;
  low: number;
  peakAt: { x: number; y: number };
  lowAt: { x: number; y: number };
  /** Cells that belong to the piece. */
  covered: number;
  /** What is clipped: how much of the plan, mm2, the most, mm, and where that is. */
  clipped: { area: number; most: number; x: number; y: number };
}

export function surfaceFacts(s: Surface): SurfaceFacts {
  const { grid, z, cover, clipped } = s;
  let peak = Number.NEGATIVE_INFINITY;
  let low = Number.POSITIVE_INFINITY;
  let [top, bottom, worst, most, covered, cells] = [0, 0, 0, 0, 0, 0];
  for (let k = 0; k < z.length; k++) {
    if (clipped[k] > 0) {
      cells++;
      if (clipped[k] > most) {
        most = clipped[k];
        worst = k;
      }
    }
    if (!cover[k]) continue;
    covered++;
    if (z[k] > peak) {
      peak = z[k];
      top = k;
    }
    if (z[k] < low) {
      low = z[k];
      bottom = k;
    }
  }
  const at = (k: number) => ({
    x: grid.originX + (k % grid.width) * grid.cell,
    y: grid.originY + Math.floor(k / grid.width) * grid.cell,
  });
  return {
    peak: covered > 0 ? peak : 0,
    low: covered > 0 ? low : 0,
    peakAt: at(top),
    lowAt: at(bottom),
    covered,
    clipped: { area: cells * grid.cell ** 2, most, ...at(worst) },
  };
}

/** The facts of a surface in parts: each counts where it has something of the piece. */
export function joinFacts(parts: SurfaceFacts[]): SurfaceFacts {
  if (parts.length === 1) return parts[0];
  const some = parts.filter((p) => p.covered > 0);
  const high = some.length > 0 ? some.reduce((a, b) => (b.peak > a.peak ? b : a)) : parts[0];
  const low = some.length > 0 ? some.reduce((a, b) => (b.low < a.low ? b : a)) : parts[0];
  const clipped = parts.map((p) => p.clipped).reduce((a, b) => (b.most > a.most ? b : a));
  return {
    peak: high.peak,
    peakAt: high.peakAt,
    low: low.low,
    lowAt: low.lowAt,
    covered: parts.reduce((s, p) => s + p.covered, 0),
    clipped: { ...clipped, area: parts.reduce((s, p) => s + p.clipped.area, 0) },
  };
}
