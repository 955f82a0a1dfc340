import { contourRings, type Ring } from '../../field/contours';
import { distanceInside } from '../../field/distance';
import { cellAt, type Grid, sampleField } from '../../field/height-field';
import type { Rest } from './rest';

/** Most cells of the grid that lines are drawn on: 14 bytes a cell. */
const MOST_CELLS = 16_000_000;
/** Cells of it that a stepover is wide, where there is room. */
const FINE = 2;
/** Rise of the tip's surface from one cell to the next from which on it is a wall, mm. */
const WALL = 0.3;
/** Where the line along the foot of a wall lies, in cells from the nearest cell over it: just short of the middle of the next. */
const FOOT = 0.95;
/** How far other lines may be from their contour, as a share of the stepover. */
const WANDER = 0.2;
/** How near the next line has to be for one between the two to be needless, in stepovers. */
const BESIDE = 0.75;

/** Depth below the mean of its neighbours from which a place between two lines gets one of its own, mm: lines lie along creases as a rule. */
const SAG = 0.02;

/** A guide line, seen from above: x y pairs in board coordinates. */
export interface Line {
  xy: Float64Array;
  closed: boolean;
  /** How far what is cut may be from it, seen from above, mm. */
  wander: number;
}

/** The tip's surface as guide lines need it. */
interface TipSurface {
  /** Whether the tip may be over a place and goes below the board's top there. */
  cuts(x: number, y: number): boolean;
  heightAt(x: number, y: number): number;
}

/** The ground that is left, on cells fine enough for lines one stepover apart, and what of it stands over a wall. */
interface Ground {
  grid: Grid;
  inside: Uint8Array;
  high: Uint8Array;
}

function groundOf({ grid, away, around }: Rest, tip: TipSurface, stepover: number): Ground {
  let [i0, j0, i1, j1] = [grid.width, grid.height, 0, 0];
  for (let k = 0; k < away.length; k++) {
    if (away[k] > around) continue;
    const [i, j] = [k % grid.width, Math.floor(k / grid.width)];
    [i0, j0, i1, j1] = [Math.min(i0, i), Math.min(j0, j), Math.max(i1, i), Math.max(j1, j)];
  }
  const [w, h] = [Math.max(0, i1 - i0 + 3) * grid.cell, Math.max(0, j1 - j0 + 3) * grid.cell];
  const cell = Math.max(Math.min(grid.cell, stepover / FINE), Math.sqrt((w * h) / MOST_CELLS));
  const width = Math.ceil(w / cell);
  const height = Math.ceil(h / cell);
  const own: Grid = {
    width,
    height,
    cell,
    originX: grid.originX + (i0 - 1) * grid.cell,
    originY: grid.originY + (j0 - 1) * grid.cell,
  };
  const field = { ...grid, data: away };
  const inside = new Uint8Array(width * height);
  const z = new Float32Array(width * height);
  // The outermost cells stay outside, so that there is a border even where all of a small board is left.
  for (let j = 1; j + 1 < height; j++) {
    for (let i = 1; i + 1 < width; i++) {
      const [x, y] = [own.originX + i * cell, own.originY + j * cell];
      if (sampleField(field, x, y) > around || !tip.cuts(x, y)) continue;
      inside[j * width + i] = 1;
      z[j * width + i] = tip.heightAt(x, y);
    }
  }
  const high = new Uint8Array(width * height);
  const over = (k: number, q: number) => inside[q] === 1 && z[k] - z[q] > WALL;
  for (let k = 0; k < high.length; k++)
    if (inside[k] && (over(k, k + 1) || over(k, k - 1) || over(k, k + width) || over(k, k - width))) high[k] = 1;
  return { grid: own, inside, high };
}

/** Half the difference of a field's values on both sides of a cell, one of them the cell's own where a side lies outside. */
function slopeAt(f: Float32Array, inside: Uint8Array, k: number, step: number): number {
  const [a, b] = [inside[k - step] ? k - step : k, inside[k + step] ? k + step : k];
  return a === b ? 0 : ((f[b] - f[a]) * step) / (b - a);
}

/** The stretches of a line whose points pass a test; all of a closed one that passes everywhere. */
export function stretchesOf({ xy, closed, wander }: Line, test: (i: number) => boolean): Line[] {
  const n = xy.length / 2;
  const ok = Array.from({ length: n }, (_, i) => test(i));
  const gap = ok.indexOf(false);
  if (gap < 0) return [{ xy, closed, wander }];
  const out: Line[] = [];
  let run: number[] = [];
  // A closed line is gone around from a gap, so that no stretch is parted where the line happens to begin.
  const first = closed ? gap : 0;
  for (let s = 0; s <= n; s++) {
    const i = (first + s) % n;
    if (s < n && ok[i]) {
      run.push(xy[2 * i], xy[2 * i + 1]);
      continue;
    }
    if (run.length >= 4) out.push({ xy: Float64Array.from(run), closed: false, wander });
    run = [];
  }
  return out;
}

/**
 * Lines along the border of the ground that is left, the first half a stepover inside, one stepover apart. Between two of them there is one more
 * where they would miss something: in the middle of the ground, where they would lie further than that from each other, and in a crease of the
 * surface; and one along the foot of every wall.
 */
export function bandsOf(rest: Rest, tip: TipSurface, stepover: number): Line[] {
  const { grid, inside, high } = groundOf(rest, tip, stepover);
  const { width, height, cell, originX, originY } = grid;
  // In half stepovers, from half a stepover inside on.
  const deep = distanceInside(inside, width, height);
  for (let k = 0; k < deep.length; k++) deep[k] = (2 * (deep[k] - 0.5) * cell) / stepover - 1 + 1e-4;
  const half = stepover / 2;
  const near = Math.max(1, Math.round((BESIDE * stepover) / cell));
  const beside = (level: number, k: number) => {
    const [ci, cj] = [k % width, Math.floor(k / width)];
    for (let j = Math.max(0, cj - near); j <= Math.min(height - 1, cj + near); j++) {
      for (let i = Math.max(0, ci - near); i <= Math.min(width - 1, ci + near); i++)
        if (deep[j * width + i] >= level) return true;
    }
    return false;
  };
  /** Whether a line between two others, at a place, cuts what they do not. */
  const needed = (level: number, x: number, y: number) => {
    const k = cellAt(grid, x, y);
    if (k < 0) return false;
    if (!beside(level + 1, k)) return true;
    const [gx, gy] = [slopeAt(deep, inside, k, 1), slopeAt(deep, inside, k, width)];
    const g = Math.hypot(gx, gy);
    if (g === 0) return false;
    const on = (side: number) => tip.heightAt(x + (side * half * gx) / g, y + (side * half * gy) / g);
    return (on(-1) + on(1)) / 2 - tip.heightAt(x, y) > SAG;
  };
  const place = (r: Ring, wander = WANDER * stepover): Line => ({
    xy: r.map((v, i) => (i % 2 === 0 ? originX : originY) + v * cell),
    closed: true,
    wander,
  });
  const along = contourRings(deep, width, height).flatMap((rings, level) =>
    rings.flatMap((r) => {
      const line = place(r);
      return level % 2 === 0 ? [line] : stretchesOf(line, (i) => needed(level, line.xy[2 * i], line.xy[2 * i + 1]));
    }),
  );
  return [
    ...feetOf(inside, high, width, height).flatMap((f) => stretchesOf(place(f.ring, cell / 4), (i) => f.at[i] === 1)),
    ...along,
  ];
}

/** Rings along what stands over walls, in cells, and where they run along the foot of one: 1 for such points. */
function feetOf(inside: Uint8Array, high: Uint8Array, width: number, height: number): { ring: Ring; at: Uint8Array }[] {
  if (!high.includes(1)) return [];
  const low = inside.slice();
  for (let k = 0; k < low.length; k++) if (high[k]) low[k] = 0;
  const away = distanceInside(low, width, height);
  // Only the first line is traced: with a ceiling under the next whole number there is no other.
  for (let k = 0; k < away.length; k++) away[k] = Math.min(away[k] - FOOT, 0.5);
  const beside = (x: number, y: number) => {
    const [i, j] = [Math.round(x), Math.round(y)];
    for (let b = Math.max(0, j - 1); b <= Math.min(height - 1, j + 1); b++)
      for (let a = Math.max(0, i - 1); a <= Math.min(width - 1, i + 1); a++) if (high[b * width + a]) return 1;
    return 0;
  };
  const rings = contourRings(away, width, height)[0] ?? [];
  return rings.map((ring) => ({
    ring,
    at: Uint8Array.from({ length: ring.length / 2 }, (_, i) => beside(ring[2 * i], ring[2 * i + 1])),
  }));
}
