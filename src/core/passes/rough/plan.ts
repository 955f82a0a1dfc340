import { FRAIL, inRegion, MASK, type Region } from '../../arrange/target';
import { type Cutter, profileOf } from '../../cutter/cutter';
import { distanceInside } from '../../field/distance';
import {
  AIR,
  cellPlace,
  type Grid,
  type HeightField,
  nearestCell,
  padField,
  poolField,
} from '../../field/height-field';
import { Path } from '../../motion/path';
import { beyondEnds, clearHeights, lowerStock, type PassContext, type Tool } from '../context';
import type { Level } from '../loops';
import { clearByRings, hopOver } from '../rings';
import { standing, stockAt, stockUnder } from '../standing';
import { RIB, Wood } from '../wood';
import { roughLevels } from './levels';
import { clearByRows } from './rows';
import type { Clearing } from './schema';

/** Whether the tip may be at a place, mm, as far as whoever asks for the levels is concerned. */
type Only = (x: number, y: number) => boolean;

export interface Roughed {
  path: Path;
  levels: number[];
}

/**
 * Roughing by levels. The target is grown by the stock to leave (a sphere, so that it is left along the normal) and
 * offset by the cutter; at each level the tip may be wherever that surface lies at or under it. All is done on a coarser
 * grid of highest values, with the cutter grown by what the coarser grid and the simplified contours may be off, so that
 * the errors only ever leave a little more wood.
 * Lowers ctx.stock to what is certainly open afterwards.
 * @param only where in its area the tip may be
 */
export async function planRough(
  ctx: PassContext,
  pass: Clearing,
  cutter: Cutter,
  region: Region,
  only: Only = () => true,
): Promise<Roughed> {
  const R = cutter.diameter / 2;
  const fine = ctx.planning.cell;
  const factor = Math.max(1, Math.min(Math.round(cutter.diameter / 32 / fine), Math.round(ctx.stock.cell / fine)));
  const highest = poolField(ctx.planning, factor, 'max');
  const pooled = pass.stockToLeave > 0 ? highest : withRidges(ctx, highest, factor);
  const tolerance = pooled.cell / 2;
  const slack = 0.75 * pooled.cell + 0.71 * (factor - 1) * fine + tolerance;
  const overrun = overrunOf(ctx, cutter, R + pass.stockToLeave + slack + 2 * pooled.cell);
  const grid = padField(
    pooled,
    Math.ceil((R + slack + Math.max(0, overrun) + pass.stockToLeave) / pooled.cell) + 2,
    AIR,
  );
  const { grown, lowest } = await tipOver(ctx, pass, cutter, grid, slack);
  const domain = domainOf(ctx, region, grid, { overrun, only, radius: R });
  const ground = ctx.target.ground + pass.stockToLeave;
  for (let k = 0; k < lowest.length; k++) lowest[k] = domain[k] ? Math.max(lowest[k], ground) : Infinity;
  const levels = roughLevels(lowest, grown.data, 0, pass.stepdown);
  const path = new Path();
  const wood = new Wood(ctx.stands, cutter, path, RIB);
  const hop = hopOver(ctx, cutter);
  const rest = ctx.worked;
  let allowed: Uint8Array<ArrayBufferLike> = domain;
  let above = 0;
  for (const z of levels) {
    const here = openAt(z, lowest, allowed);
    if (!here.includes(1)) break;
    const from = path.moves;
    // A bit that follows a larger one goes only where that one left something.
    const todo = rest ? standing(here, grid, await stockUnder(ctx, R, grid), z + 0.01, pass.stepover) : here;
    const level: Level = {
      z,
      depth: distanceInside(todo, grid.width, grid.height),
      grid,
      wood,
      hop,
    };
    const clear = await clearHeights(ctx, R);
    path.at(['level', levels.indexOf(z) + 1, levels.length]);
    if (hasStock(clear, grid, todo, z)) clearLevel({ path, cutter, clear, heights: ctx.heights }, level, todo, pass);
    await lowerStock(ctx, path, from, cutter);
    // Deeper only where this level was really cut: what was too small to be entered stays as it is.
    allowed = openedTo(ctx, here, grid, z);
    above = z;
  }
  if (!path.cuts) return { path: new Path(), levels: [] };
  path.rapid(path.x, path.y, ctx.heights.everything);
  const cut = levels.filter((z) => z >= above);
  for (const { place } of path.marks) place[0][2] = cut.length;
  return { path, levels: cut };
}

/** The target grown by the stock to leave, and the lowest that the tip may be over it, with so much room around the bit. */
async function tipOver(
  { host }: PassContext,
  { stockToLeave }: Clearing,
  cutter: Cutter,
  grid: HeightField,
  slack: number,
) {
  let grown: HeightField = grid;
  if (stockToLeave > 0) {
    const data = await host.offset(grid, { shape: 1, R: stockToLeave, p0: 0, p1: 0, p2: 0 }, 0);
    for (let k = 0; k < data.length; k++) data[k] += stockToLeave;
    grown = { ...grid, data };
  }
  return { grown, lowest: await host.offset(grown, profileOf(cutter), slack) };
}

/** Edges between cells that stand higher are walls, which a level keeps away from as it is, mm. */
const RIDGE = 0.5;

/** Highest values with the ridges that stand between cells: without stock to leave a level runs right beside them. */
function withRidges({ target, planning, raised }: PassContext, pooled: HeightField, factor: number): HeightField {
  for (let q = 0; q < raised.length; q += 2) {
    const [k, up] = [raised[q], raised[q + 1]];
    if (up > RIDGE || target.mask[k] === MASK.keep) continue;
    const [i, j] = [k % planning.width, Math.floor(k / planning.width)];
    const p = Math.floor(j / factor) * pooled.width + Math.floor(i / factor);
    pooled.data[p] = Math.max(pooled.data[p], planning.data[k] + up);
  }
  return pooled;
}

/** Where the tip may be at a level. */
function openAt(z: number, lowest: Float32Array, allowed: Uint8Array): Uint8Array {
  const here = new Uint8Array(lowest.length);
  for (let k = 0; k < here.length; k++) if (allowed[k] && lowest[k] <= z + 1e-4) here[k] = 1;
  return here;
}

/** Clears one level, from the first place that is to be cleared where nothing has been cut yet. */
function clearLevel(tool: Tool, level: Level, todo: Uint8Array, pass: Clearing): void {
  const { path, heights } = tool;
  if (path.moves === 0) {
    const { x, y } = cellPlace(level.grid, todo.indexOf(1));
    path.rapid(x, y, heights.everything);
  }
  const tolerance = level.grid.cell / 2;
  if (pass.strategy === 'rings') clearByRings(tool, level, pass, tolerance);
  else clearByRows(tool, level, pass, tolerance);
}

/**
 * How far beyond the board's edge the tip's centre may run, mm; negative: how far inside it stays, because the bit's own
 * width still clears the edge and, at 0.6 of its radius, the corners. Beyond only where the bit has no other way around the relief.
 */
function overrunOf(ctx: PassContext, cutter: Cutter, reach: number): number {
  const inside = -0.6 * (cutter.diameter / 2);
  if (ctx.mode === 'sunk') return inside;
  const { outside, field } = ctx.target;
  let nearest = Infinity;
  if (!field.drum)
    for (let i = 0; i < field.width; i++) nearest = Math.min(nearest, outside[i], outside[outside.length - 1 - i]);
  for (let j = 0; j < field.height; j++) {
    nearest = Math.min(nearest, outside[j * field.width], outside[(j + 1) * field.width - 1]);
  }
  return Math.max(inside, reach - nearest);
}

/** What a domain is made by: how far beyond the board's edge the tip may run, mm, where else it may not, and how wide its bit is. */
interface Bounded {
  overrun: number;
  only: Only;
  radius: number;
}

/** Where the tip's centre may be at all: over the pass's area, and over the edge where it must; of a drum one turn, between what holds its ends. */
function domainOf(ctx: PassContext, region: Region, grid: HeightField, { overrun, only, radius }: Bounded): Uint8Array {
  const { outside, field } = ctx.target;
  const round = grid.drum !== undefined;
  // Signed distance beyond the board's edge, negative inside.
  const beyond = (x: number, y: number) => Math.max(-x, x - ctx.board.x, -y, y - ctx.board.y);
  const out = new Uint8Array(grid.width * grid.height);
  for (let j = 0; j < grid.height; j++) {
    const y = grid.originY + j * grid.cell;
    const cy = Math.min(Math.max(y, 0), ctx.board.y);
    for (let i = 0; i < grid.width; i++) {
      const x = grid.originX + i * grid.cell;
      const cx = Math.min(Math.max(x, 0), ctx.board.x);
      if (round ? beyondEnds(ctx, x, radius) || y < 0 || y >= ctx.board.y : beyond(x, y) > overrun) continue;
      const k = nearestCell(field, cx, cy);
      if (field.data[k] < 0 && inRegion(region, ctx.mode, { x: cx, y: cy }, outside[k], FRAIL) && only(x, y))
        out[j * grid.width + i] = 1;
    }
  }
  return out;
}

function hasStock(clear: HeightField, grid: Grid, here: Uint8Array, z: number): boolean {
  for (let k = 0; k < here.length; k++) if (here[k] && stockAt(k, grid, clear) > z + 0.01) return true;
  return false;
}

/** Places of the stock under the cells of a grid: whether each has been cut down to z. */
function openedTo(ctx: PassContext, here: Uint8Array, grid: HeightField, z: number): Uint8Array {
  const { stock } = ctx;
  const out = new Uint8Array(here.length);
  for (let k = 0; k < here.length; k++) {
    if (here[k] && stockAt(k, grid, stock) <= z + 0.02) out[k] = 1;
  }
  return out;
}
