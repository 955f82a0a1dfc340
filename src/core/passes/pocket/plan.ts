import type { Cutter } from '../../cutter/cutter';
import type { Grid } from '../../field/height-field';
import { Path } from '../../motion/path';
import { type Polygon, polygonBounds } from '../../outline/polygon';
import { BARE, clearDown } from '../clear-down';
import { highestWithin, type PassContext } from '../context';
import { LEVEL } from '../flat/fields';
import { cellsIn } from './cells';
import type { PocketPass } from './schema';
import { insetAt, missedArea, tipRoom, wallsOf } from './shape';
import { heightAt, here, lapsAt, lastAlong, places, type Way } from './walls';

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
  const grid = gridOver(ctx, walls);
  const top = await highestIn(ctx, room, cutter);
  if (top <= -pass.depth + BARE) return { path, facts };
  const tolerance = ctx.planning.cell / 2;
  // Contours of cells wander by half a cell, and by as much again where they are simplified.
  const slack = tolerance + ctx.planning.cell;
  const way: Way = { ctx, path, pass, cutter, walls, grid, slack, lapped: [], moves: 0 };
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
    for (const ring of here(ctx, room)) await lastAlong(way, ring, open);
  }
  if (path.moves > 0) path.rapid(path.x, path.y, ctx.heights.everything);
  return { path, facts };
}

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
