import type { Join, Layer, Seat } from '../doc/layer';
import type { Drum } from '../field/drum';
import { AIR, type Grid } from '../field/height-field';
import type { OnGround } from './kinds/kind';
import { sourceKind } from './kinds/registry';
import type { Rendered } from './rendered';
import { drawnWalls, reachOfWalls, type Walls, wallHeights } from './vee-walls';
import { grownWindow, meetWindows, type Window, windowGrid } from './window';

/** A rendered layer with the way it joins. */
export interface Op {
  rendered: Rendered;
  join: Join;
  lift: number;
  amount: number;
  /** The walls of one that is V grooves, which follow the ground along their outline; null for others. */
  walls: Walls | null;
  /** How high it stands on the ground that it is joined with, where that depends on it; null for others. */
  onGround: ((drum: Drum) => OnGround) | null;
}

export const opOf = (l: Layer, rendered: Rendered, walls: Walls | null): Op => ({
  rendered,
  join: l.join,
  lift: l.lift,
  amount: l.amount,
  walls: drawnWalls(walls, rendered),
  onGround: sourceKind(l).onGround?.(l) ?? null,
});

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
  /** Whether it is V grooves on ground that is not level. */
  sloping: boolean;
}

/** A rendered layer as it lies in a window of its grid. */
const movedBy = (r: Rendered, { i, j }: Window): Rendered => ({
  ...r,
  window: { ...r.window, i: r.window.i - i, j: r.window.j - j },
});

const meets = (o: Op, w: Window) => meetWindows(o.rendered.window, w).width > 0;

/** Smallest change of height that counts as one, mm. */
const CHANGE = 1e-4;

/** What is counted of a layer while it joins. */
const noEffect = (): Effect => ({
  covered: 0,
  changed: 0,
  up: 0,
  down: 0,
  mean: 0,
  lost: 0,
  lostMost: 0,
  sloping: false,
});

/** Counts one change of height. */
function count(e: Effect, was: number, now: number, sunk: boolean): void {
  const d = now - was;
  e.covered++;
  e.mean += d;
  if (d > CHANGE) {
    e.changed++;
    if (d > e.up) e.up = d;
  } else if (d < -CHANGE) {
    e.changed++;
    if (-d > e.down) e.down = -d;
    if (!sunk && now < -CHANGE) {
      e.lost++;
      if (-now > e.lostMost) e.lostMost = -now;
    }
  }
}

/** The height that a join makes of what lies beneath, z, of a layer with its lift, v, and of its weight, a. */
export function joined(join: Join, z: number, v: number, a: number): number {
  if (join === 'stack') return z + a * v;
  if (join === 'carve') return z - a * v;
  if (join === 'highest') return v > z ? (a === 1 ? v : z + a * (v - z)) : z;
  if (join === 'lowest') return v < z ? (a === 1 ? v : z + a * (v - z)) : z;
  return (1 - a) * z + a * v;
}

/** Joins one layer with what lies beneath it over a window. @param effect what it does is added to it, when it is given */
function joinOne({ grid, z, cover }: Surface, op: Op, seat: Seat, region: Window, effect: Effect | null): void {
  const { window: w, heights, weight } = op.rendered;
  const onGround = grid.drum ? op.onGround?.(grid.drum) : null;
  const sunk = seat.mode === 'sunk';
  // How high the base plane of a raised piece lies is not known before all of it is made.
  const datum = sunk ? -seat.skin - seat.drop : -seat.skin;
  const { join, lift, walls } = op;
  const marks = sunk || join === 'stack' || join === 'highest' || join === 'blend';
  const k = join === 'blend' ? op.amount : 1;
  const met = meetWindows(region, w);
  const at = (i: number, j: number) => heights[(met.j + j - w.j) * w.width + met.i + i - w.i];
  const fall = walls && met.width > 0 ? wallHeights(walls, { grid, z }, met, at) : null;
  if (effect) effect.sloping = fall !== null;
  for (let j = met.j; j < met.j + met.height; j++) {
    let from = (j - w.j) * w.width + met.i - w.i;
    let to = j * grid.width + met.i;
    let wall = (j - met.j) * met.width;
    const y = grid.originY + j * grid.cell;
    for (let i = 0; i < met.width; i++, from++, to++, wall++) {
      const h = heights[from];
      if (h === AIR) continue;
      const a = weight === null ? k : k * weight[from];
      if (a === 0) continue;
      const was = z[to];
      const own = onGround ? onGround(grid.originX + (met.i + i) * grid.cell, y, datum + was) : h;
      if (own === null) continue;
      const v = lift + own;
      const now = fall === null ? joined(join, was, v, a) : Math.min(was, Math.max(fall[wall], was - walls!.deepest));
      z[to] = now;
      if (marks) cover[to] = 1;
      if (effect) count(effect, was, now, sunk);
    }
  }
  if (effect && effect.covered > 0) effect.mean /= effect.covered;
}

/** Presses a window of a surface and clips it to what its seat can keep. */
function settle({ grid, z, clipped }: Surface, { mode, press, drop, skin }: Seat, region: Window): void {
  const W = grid.width;
  const sunk = mode === 'sunk';
  // A sunk piece reaches up to the board's own top.
  const most = drop + skin;
  for (let j = region.j; j < region.j + region.height; j++) {
    for (let k = j * W + region.i, end = k + region.width; k < end; k++) {
      const was = z[k];
      const v = press === null ? was : pressed(was, press, sunk ? drop : null);
      z[k] = v;
      if (sunk ? v > most : v < 0) {
        const to = sunk ? most : 0;
        if (Math.abs(v - to) > CHANGE) clipped[k] = Math.abs(v - to);
        z[k] = to;
      }
    }
  }
}

/**
 * Joins layers from the lowest to the highest over a window of the surface, from nothing. With z what lies beneath, v = lift +
 * layer and a its weight: stack z + a v; carve z - a v; highest z + a (max(z, v) - z); lowest z + a (min(z, v) - z); blend
 * (1 - a k) z + a k v. V grooves on ground that is not level go as deep as the walls that begin on it along their outline, see Walls. At the
 * end the press shortens what is too high, and what lies below the base plane (raised) or above the board's top (sunk) is clipped.
 * @param effects filled with one entry a layer when it is given
 */
export function compose(s: Surface, ops: Op[], seat: Seat, region: Window, effects?: Effect[]): void {
  const { grid } = s;
  const met = ops.filter((o) => meets(o, region));
  const wide = grownWindow(grid, region, reachOfWalls(met.map((o) => o.walls)));
  if (wide.width === region.width && wide.height === region.height) {
    joinAll(s, ops, seat, region, effects);
    return;
  }
  // The walls of grooves go by the ground around the window too.
  const around = emptySurface(windowGrid(grid, wide));
  const own = ops.map((o) => ({ ...o, rendered: movedBy(o.rendered, wide) }));
  joinAll(around, own, seat, { ...region, i: region.i - wide.i, j: region.j - wide.j }, effects);
  for (const values of ['z', 'cover', 'clipped'] as const) {
    for (let j = 0; j < region.height; j++) {
      const from = (region.j - wide.j + j) * wide.width + region.i - wide.i;
      s[values].set(around[values].subarray(from, from + region.width), (region.j + j) * grid.width + region.i);
    }
  }
}

/** Joins layers over a window of a surface from nothing, each so far around it as grooves above it ask for. */
function joinAll(s: Surface, ops: Op[], seat: Seat, region: Window, effects?: Effect[]): void {
  const { grid, z, cover, clipped } = s;
  let around = reachOfWalls(ops.map((o) => o.walls));
  const all = grownWindow(grid, region, around);
  for (let j = all.j; j < all.j + all.height; j++) {
    const from = j * grid.width + all.i;
    for (const values of [z, cover, clipped]) values.fill(0, from, from + all.width);
  }
  for (const op of ops) {
    const effect = effects ? noEffect() : null;
    around -= op.walls?.reach ?? 0;
    joinOne(s, op, seat, grownWindow(grid, region, around), effect);
    if (effect) effects?.push(effect);
  }
  settle(s, seat, region);
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
