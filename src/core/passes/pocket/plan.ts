import type { Cutter } from '../../cutter/cutter';
import type { Heights } from '../../doc/setup';
import { AIR, cellAt, cellPlace, type Grid, type HeightField } from '../../field/height-field';
import { enterWood } from '../../motion/enter';
import { Path } from '../../motion/path';
import { crossings, type Polygon, polygonBounds, type Ring, rowCrossings } from '../../outline/polygon';
import { BARE, clearDown } from '../clear-down';
import { clearHeights, highestAlong, highestWithin, lowerStock, type PassContext } from '../context';
import { LEVEL } from '../flat/fields';
import { RIM } from '../standing';
import type { PocketPass } from './schema';
import { insetAt, missedArea, tipRoom, wallsOf } from './shape';

/** What a pocket is found to be. */
export interface PocketFacts {
  /** Whether its bit gets in anywhere. */
  fits: boolean;
  /** What of it stays because the bit is too wide for corners and necks, seen from above, mm2. */
  missed: number;
  /** Share of it in which layers make a surface that slopes, which it takes away. */
  relief: number;
}

/** What a pocket is found to be in several parts of a board: its walls are known to each of them. */
export function joinPockets(all: PocketFacts[]): PocketFacts {
  return { ...all[0], relief: Math.max(...all.map((f) => f.relief)) };
}

/** How far laps along the wall go over their own beginning, mm. */
const AGAIN = 1;
/** Places along a wall are no further apart than this where it is asked what stands beside them, mm. */
const STEP = 0.5;
/** How many times as much is left in a corner as at the side of a wall: sqrt(2) in a right angle, and a little. */
const CORNER = 1.6;
/** A stretch of wall that is cut goes on so far beyond what stands there, mm. */
const BEYOND = 1;

/** A pocket on its way. */
interface Way {
  ctx: PassContext;
  path: Path;
  pass: PocketPass;
  cutter: Cutter;
  walls: Polygon;
}

/**
 * A pocket inside an outline: cleared level by level by rings, and at each level lapped along the wall, which is the outline's own and no cell's; then,
 * where something was left at the wall, once more along it at full depth. A bit with a round foot stays as far off the wall as it is wide at
 * the board's top. A bit that follows a larger one goes only where that one left something.
 */
export async function planPocket(
  ctx: PassContext,
  pass: PocketPass,
  cutter: Cutter,
): Promise<{ path: Path; facts: PocketFacts }> {
  const path = new Path();
  const walls = wallsOf(pass, await ctx.outline(pass.outline));
  const inset = insetAt(cutter, pass.depth);
  const room = tipRoom(walls, inset);
  const relief = slopingShare(ctx, cellsIn(room, ctx.target.field, ctx));
  const facts = { fits: room.length > 0, missed: missedArea(walls, inset), relief };
  if (!facts.fits) return { path, facts };
  const way: Way = { ctx, path, pass, cutter, walls };
  const grid = gridOver(ctx, walls);
  const top = await highestIn(ctx, room, cutter);
  if (top <= -pass.depth + BARE) return { path, facts };
  const tolerance = ctx.planning.cell / 2;
  // Contours of cells wander by half a cell, and by as much again where they are simplified.
  const slack = tolerance + ctx.planning.cell;
  const first = room[0];
  await clearDown(
    ctx,
    path,
    {
      grid,
      top,
      floor: -pass.depth,
      tipAt: (z) => cellsIn(tipRoom(walls, insetAt(cutter, -z) + pass.last + slack), grid, ctx),
    },
    { pass, cutter, tolerance, place: ['pocket', 1, 1] },
    { begin: { x: first[0], y: first[1] }, beside: (z) => lapsAt(way, z) },
  );
  if (pass.last > 0 && path.cuts) {
    path.at(['pocket', 1, 1], ['last lap', 1, 1]);
    const open = tipRoom(walls, inset + pass.last / 2);
    for (const ring of here(ctx, room)) await lastLap(way, ring, open);
  }
  if (path.moves > 0) path.rapid(path.x, path.y, ctx.heights.everything);
  return { path, facts };
}

/** Rings that begin on the ground that is planned. */
const here = (ctx: PassContext, rings: Polygon) => rings.filter((r) => ctx.here(r[0], r[1]));

/** A grid of planning's cells over the walls. */
function gridOver({ planning }: PassContext, walls: Polygon): Grid {
  const { cell, originX, originY } = planning;
  const b = polygonBounds(walls);
  const i0 = Math.floor((b.x0 - originX) / cell) - 2;
  const j0 = Math.floor((b.y0 - originY) / cell) - 2;
  const width = Math.ceil((b.x1 - originX) / cell) + 3 - i0;
  const height = Math.ceil((b.y1 - originY) / cell) + 3 - j0;
  return { width, height, cell, originX: originX + i0 * cell, originY: originY + j0 * cell };
}

/** 1 on a grid's cells whose middles lie inside a polygon, on the ground that is planned. */
function cellsIn(polygon: Polygon, grid: Grid, ctx: PassContext): Uint8Array {
  const out = new Uint8Array(grid.width * grid.height);
  const rows = rowCrossings(polygon, grid.originY, grid.cell, grid.height);
  for (const [j, cross] of rows.entries()) {
    for (let q = 0; q + 1 < cross.length; q += 2) {
      const from = Math.max(0, Math.ceil((cross[q] - grid.originX) / grid.cell));
      const to = Math.min(grid.width - 1, Math.floor((cross[q + 1] - grid.originX) / grid.cell));
      for (let i = from; i <= to; i++) {
        const k = j * grid.width + i;
        const { x, y } = cellPlace(grid, k);
        if (ctx.here(x, y)) out[k] = 1;
      }
    }
  }
  return out;
}

/** The share of some cells of the target that are not level with those beside them. */
function slopingShare({ target: { field } }: PassContext, cells: Uint8Array): number {
  const { width, data } = field;
  let [all, sloping] = [0, 0];
  for (let k = 0; k < cells.length; k++) {
    if (!cells[k]) continue;
    all++;
    const [right, up] = [data[k + 1] ?? data[k], data[k + width] ?? data[k]];
    if (Math.abs(right - data[k]) > LEVEL || Math.abs(up - data[k]) > LEVEL) sloping++;
  }
  return all > 0 ? sloping / all : 0;
}

/** Highest that stands where the bit comes, mm. */
async function highestIn(ctx: PassContext, room: Polygon, cutter: Cutter): Promise<number> {
  const under = await highestWithin(ctx, ctx.stands, cutter.diameter / 2);
  let high = -ctx.board.thickness;
  for (const ring of room) {
    for (const p of places(ring)) high = Math.max(high, heightAt(under, p));
  }
  const inside = cellsIn(room, under, ctx);
  for (let k = 0; k < inside.length; k++) if (inside[k]) high = Math.max(high, under.data[k]);
  return Math.min(0, high);
}

/** A place along a wall, and whether it is one of the line's own corners. */
interface Place {
  x: number;
  y: number;
  corner: boolean;
}

/** Places along a ring no further apart than STEP, its own corners among them; the first is not repeated. */
function* places(ring: Ring): Generator<Place> {
  for (let i = 0; i < ring.length; i += 2) {
    const k = (i + 2) % ring.length;
    const [dx, dy] = [ring[k] - ring[i], ring[k + 1] - ring[i + 1]];
    const n = Math.max(1, Math.ceil(Math.hypot(dx, dy) / STEP));
    for (let s = 0; s < n; s++) yield { x: ring[i] + (dx * s) / n, y: ring[i + 1] + (dy * s) / n, corner: s === 0 };
  }
}

/** A ring as the pass wants its wall to lie: rings have the pocket on their left, so that the wall is on the right of a bit that mills in climb. */
function along(ring: Ring, { milling }: PocketPass): Place[] {
  const out = [...places(ring)];
  return milling === 'conventional' ? out.reverse() : out;
}

/** What stands under the bit: all but a hair of its rim, beside which the wall begins; without what laps leave there for the last one; and certainly. */
interface Under {
  rim: HeightField;
  neck: HeightField;
  clear: HeightField;
}

async function under({ ctx, pass, cutter }: Way): Promise<Under> {
  const R = cutter.diameter / 2;
  const { cell } = ctx.stands;
  return {
    rim: await highestWithin(ctx, ctx.stands, Math.max(R / 2, R - RIM * cell)),
    neck: await highestWithin(ctx, ctx.stands, Math.max(R / 2, R - CORNER * pass.last - cell)),
    clear: await clearHeights(ctx, R),
  };
}

/** A field's height at a place; AIR beyond it. */
const heightAt = (f: HeightField, { x, y }: { x: number; y: number }) => f.data[cellAt(f, x, y)] ?? AIR;

/** Laps along the wall at a height, wherever wood stands under the bit there; necks with no room for what is left at the side on the wall's own line. */
async function lapsAt(way: Way, z: number): Promise<void> {
  const { ctx, path, pass, cutter, walls } = way;
  const inset = insetAt(cutter, -z);
  for (const side of pass.last > 0 ? [pass.last, 0] : [0]) {
    const seen = await under(way);
    const from = path.moves;
    for (const ring of here(ctx, tipRoom(walls, inset + side))) {
      const line = along(ring, pass);
      const wood = side === pass.last ? seen.rim : seen.neck;
      for (const run of runs(line, (p) => heightAt(wood, p) > z + BARE)) cutRun(way, seen, run, z);
    }
    await lowerStock(ctx, path, from, cutter);
  }
}

/** A run of places along a ring, and whether it is all of it. */
interface Run {
  line: Place[];
  closed: boolean;
}

/** The runs of a ring around which wood stands, each a little longer. */
function runs(line: Place[], stands: (p: Place) => boolean): Run[] {
  const n = line.length;
  const more = Math.ceil(BEYOND / STEP);
  const wood = line.map(stands);
  const wanted = wood.map((_, i) => {
    for (let d = -more; d <= more; d++) if (wood[(((i + d) % n) + n) % n]) return true;
    return false;
  });
  if (wanted.every(Boolean)) return [{ line, closed: true }];
  const out: Run[] = [];
  const start = wanted.indexOf(false);
  let run: Place[] = [];
  for (let i = 1; i <= n; i++) {
    const k = (start + i) % n;
    if (wanted[k]) run.push(line[k]);
    else if (run.length > 0) {
      if (run.length > 1) out.push({ line: run, closed: false });
      run = [];
    }
  }
  return out;
}

/** Over to a place and down to where the wall beside it begins to be in the way: on from there it is not rapid, for the wall is no further than the bit is wide. */
function descend(path: Path, clear: HeightField, at: { x: number; y: number; z: number }, heights: Heights): void {
  const over = Math.max(at.z, highestAlong(clear, path.x, path.y, at.x, at.y)) + heights.between;
  path.hop(at.x, at.y, over, Math.max(at.z, highestAlong(clear, at.x, at.y, at.x, at.y)) + heights.approach / 2);
}

/** One run of a wall at a height, gone down onto along itself. */
function cutRun({ ctx, path, pass, cutter }: Way, { rim, clear }: Under, { line, closed }: Run, z: number): void {
  const kept = line.filter((p, i) => p.corner || (!closed && (i === 0 || i === line.length - 1)));
  const points = Float64Array.from(kept.flatMap(({ x, y }) => [x, y, z]));
  const top = Math.max(z, ...line.map((p) => heightAt(rim, p)));
  const [{ x, y }] = kept;
  if (path.moves === 0) path.rapid(x, y, ctx.heights.everything);
  descend(path, clear, { x, y, z: top }, ctx.heights);
  const end = enterWood(path, cutter, points, { closed, top, angle: pass.rampAngle });
  const n = kept.length;
  for (let k = 1; k <= (closed ? n : n - 1); k++)
    path.feed(kept[(end + k) % n].x, kept[(end + k) % n].y, z, cutter.feed);
}

/**
 * Once along the wall at the floor, at its own line. It comes from the side, over ground that is open, so that no mark stays where it begins.
 * @param open where the laps before it have been
 */
async function lastLap(way: Way, ring: Ring, open: Polygon): Promise<void> {
  const { ctx, path, pass, cutter } = way;
  const { clear } = await under(way);
  const from = path.moves;
  const z = -pass.depth;
  const all = along(ring, pass);
  const side = pass.milling === 'conventional' ? -pass.last : pass.last;
  /** A place's neighbour on the pocket's side, as far off as the laps before have been. */
  const beside = (i: number) => {
    const [p, q] = [all[i], all[(i + 1) % all.length]];
    const long = Math.hypot(q.x - p.x, q.y - p.y) || 1;
    return { x: p.x - (side * (q.y - p.y)) / long, y: p.y + (side * (q.x - p.x)) / long };
  };
  const start = Math.max(
    0,
    all.findIndex((_, i) => isInside(open, beside(i))),
  );
  const at = isInside(open, beside(start)) ? beside(start) : all[start];
  descend(path, clear, { ...at, z }, ctx.heights);
  path.feed(at.x, at.y, z, cutter.plunge, 'plunge');
  path.feed(all[start].x, all[start].y, z, cutter.feed, 'link');
  const n = all.length;
  const end = n + Math.ceil(AGAIN / STEP);
  for (let k = 1; k <= end; k++) {
    const p = all[(start + k) % n];
    if (p.corner || k === n || k === end) path.feed(p.x, p.y, z, cutter.feed);
  }
  await lowerStock(ctx, path, from, cutter);
}

/** Whether a place lies inside a polygon. */
const isInside = (polygon: Polygon, { x, y }: { x: number; y: number }) =>
  crossings(polygon, y).filter((c) => c < x).length % 2 === 1;
