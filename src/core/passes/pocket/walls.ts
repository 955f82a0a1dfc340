import type { Cutter } from '../../cutter/cutter';
import { distanceOutside } from '../../field/distance';
import { AIR, cellAt, type Grid, type HeightField } from '../../field/height-field';
import { enterWood } from '../../motion/enter';
import { MOVES, type Path } from '../../motion/path';
import { crossings, type Polygon, type Ring } from '../../outline/polygon';
import { BARE } from '../clear-down';
import { clearHeights, descend, highestWithin, lowerStock, type PassContext } from '../context';
import { RIM } from '../standing';
import type { PocketPass } from './schema';
import { insetAt, tipRoom } from './shape';

/** How far laps along the wall go over their own beginning, mm. */
const AGAIN = 1;
/** Places along a wall are no further apart than this where it is asked what stands beside them, mm. */
const STEP = 0.5;
/** How many times as much is left in a corner as at the side of a wall: sqrt(2) in a right angle, and a little. */
const CORNER = 1.6;
/** A stretch of wall that is cut goes on so far beyond what stands there, mm. */
const BEYOND = 1;

/** A pocket on its way. */
export interface Way {
  ctx: PassContext;
  path: Path;
  pass: PocketPass;
  cutter: Cutter;
  walls: Polygon;
  grid: Grid;
  /** How much further from the wall than the laps rings have been, mm. */
  slack: number;
  /** Where laps along the wall have cut at the floor, and the path's moves up to the last of them at any height. */
  lapped: Place[];
  moves: number;
}

/** Rings that begin on the ground that is planned. */
export const here = (ctx: PassContext, rings: Polygon) => rings.filter((r) => ctx.here(r[0], r[1]));

/** A place along a wall, and whether it is one of the line's own corners. */
interface Place {
  x: number;
  y: number;
  corner: boolean;
}

/** Places along a ring no further apart than STEP, its own corners among them; the first is not repeated. */
export function* places(ring: Ring): Generator<Place> {
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
export const heightAt = (f: HeightField, { x, y }: { x: number; y: number }) => f.data[cellAt(f, x, y)] ?? AIR;

/** Laps along the wall at a height, wherever wood stands under the bit there; necks with no room for what is left at the side on the wall's own line. */
export async function lapsAt(way: Way, z: number): Promise<void> {
  const { ctx, path, pass, cutter, walls } = way;
  const inset = insetAt(cutter, -z);
  const beside = besideRings(way);
  for (const side of pass.last > 0 ? [pass.last, 0] : [0]) {
    const seen = await under(way);
    const from = path.moves;
    for (const ring of here(ctx, tipRoom(walls, inset + side))) {
      const line = along(ring, pass);
      const wood = side === pass.last ? seen.rim : seen.neck;
      const wanted = (p: Place) => heightAt(wood, p) > z + BARE || (side === pass.last && beside(p));
      for (const run of runs(line, wanted)) {
        cutRun(way, seen, run, z);
        if (z === -pass.depth) for (const p of run.line) way.lapped.push(p);
      }
    }
    await lowerStock(ctx, path, from, cutter);
  }
  way.moves = path.moves;
}

/** Whether rings have been cut beside a place of the wall since the last laps: what they leave there may be narrower than a cell tells. */
function besideRings({ path, pass, grid, slack, moves }: Way): (p: Place) => boolean {
  const { data, kinds } = path;
  const been = new Uint8Array(grid.width * grid.height);
  for (let i = Math.max(1, moves); i < path.moves; i++) {
    if (MOVES[kinds[i]] !== 'cut') continue;
    const [x0, y0, , , x1, y1] = data.subarray(4 * i - 4, 4 * i + 2);
    const n = Math.max(1, Math.ceil(Math.hypot(x1 - x0, y1 - y0) / grid.cell));
    for (let s = 0; s <= n; s++) {
      const k = cellAt(grid, x0 + ((x1 - x0) * s) / n, y0 + ((y1 - y0) * s) / n);
      if (k >= 0) been[k] = 1;
    }
  }
  if (!been.includes(1)) return () => false;
  const away = distanceOutside(been, grid.width, grid.height);
  const near = pass.last + CORNER * slack + 2 * grid.cell;
  return ({ x, y }) => away[cellAt(grid, x, y)] * grid.cell <= near;
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

/** Takes what is left at a wall: once along all of it, or where laps have been alone. @param open where the laps before it have been */
export async function lastAlong(way: Way, ring: Ring, open: Polygon): Promise<void> {
  const { ctx, path, pass, cutter } = way;
  const seen = await under(way);
  const from = path.moves;
  const z = -pass.depth;
  // What was left for it is narrower than cells may tell: it goes where laps have been.
  const near = pass.last + STEP;
  const left = (p: Place) => way.lapped.some((q) => Math.abs(q.x - p.x) <= near && Math.abs(q.y - p.y) <= near);
  for (const run of runs(along(ring, pass), left)) {
    if (run.closed) lastLap(way, seen, run.line, open);
    else cutRun(way, seen, run, z);
  }
  await lowerStock(ctx, path, from, cutter);
}

/** Once along a wall at the floor, on its own line. It comes from the side, over ground that is open, so that no mark stays where it begins. */
function lastLap({ ctx, path, pass, cutter }: Way, { clear }: Under, all: Place[], open: Polygon): void {
  const z = -pass.depth;
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
}

/** Whether a place lies inside a polygon. */
const isInside = (polygon: Polygon, { x, y }: { x: number; y: number }) =>
  crossings(polygon, y).filter((c) => c < x).length % 2 === 1;
