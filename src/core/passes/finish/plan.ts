import { MASK, type Region } from '../../arrange/target';
import { type Cutter, profileOf } from '../../cutter/cutter';
import { AIR, cellAt, type HeightField, padField, transposeField } from '../../field/height-field';
import { Path } from '../../motion/path';
import { clearHeights, lowerStock, type PassContext } from '../context';
import { Live } from '../live';
import { Wood } from '../wood';
import { cutAlong } from './along';
import { bandsOf } from './bands';
import { emit, hopTo, type Refused, type Way } from './emit';
import { goDown } from './go-down';
import { nextOneWay, type Pick, pickStretch } from './order';
import { CREASE_ENDS, Raster, type Stretch } from './raster';
import { forLines, leftBy, type Rest, restOf } from './rest';
import type { FinishPass } from './schema';

/** What a finishing pass has to say of itself: where it does not go into the wood. */
export interface FinishFacts {
  refused: Refused[];
}

/** What it has to say of several parts of a board. */
export const joinFinishes = (all: FinishFacts[]): FinishFacts => ({ refused: all.flatMap((f) => f.refused) });

/** Depth below the mean of its neighbours from which a place between two rows gets a row of its own, mm. */
const SAG = 0.04;
/** A crease runs along the rows when it stays between them for this many stepovers: at less than about 40 degrees to them. */
const CREASE_RUN = 1.2;
/** Ground narrower than this on average is cut along its border, mm: rows across it would turn round all the time. */
const NARROW = 15;
/** Share of what is to be cut that may be tall where lines are cut. */
const LOW = 0.02;
/** Less wood than this is not told where the bit did not go in, mm. */
const TOLD = 0.1;
/** Rows that are named in the program, about. */
const SAID = 20;

/**
 * Finishing: the tip runs on the exact cutter-offset surface of the target, thinned to the pass's tolerance and never below it, along rows at any
 * angle, or along lines. Rows are sampled at the grid's cell, one stepover apart (along the axes the surface is worked out on the rows themselves; at
 * other angles it is read between the grid's cells), and cut region by region in serpentines. Lines lie along the border of what is left, where
 * that is narrow and low, as after a larger ball, each only where the lines before it have left something. A link stays on the surface when it
 * is short, else it hops over what may still stand there.
 */
export async function planFinish(
  ctx: PassContext,
  pass: FinishPass,
  cutter: Cutter,
  region: Region,
): Promise<{ path: Path; facts: FinishFacts }> {
  const R = cutter.diameter / 2;
  const { cell } = ctx.planning;
  const pad = Math.ceil((R + pass.stepover) / cell) + 2;
  const surface = withEdges(ctx, padField(ctx.planning, pad, AIR), pad);
  const offset: HeightField = { ...surface, data: await ctx.host.offset(surface, profileOf(cutter), 0) };
  const first = await goDown(ctx, cutter, region, offset);
  const clear = await clearHeights(ctx, R);
  const rest = await restOf(ctx, pass, cutter, offset);
  const rasterFor = (r: Rest) => new Raster(ctx, pass, { cutter, surface, offset, rest: r }, region);
  const raster = rasterFor(rest);
  const rows = await allRows(ctx, raster, surface, cutter, pass.stepover);
  const path = first ?? new Path();
  const begun = path.moves;
  const live = new Live(ctx, cutter, path);
  const way: Way = { path, cutter, clear, heights: ctx.heights, live, angle: ctx.rampAngle, raster, refused: [] };
  // A line along a wall takes all that stands on it at once, rows across it a little each: lines are for what is low.
  const low = rest.tall <= LOW;
  const mayFit = pass.lines === 'fit' && !surface.drum;
  if (mayFit && pass.milling === 'either' && low && chordOf(rows, raster, rest) < NARROW) {
    const left = forLines(rest, pass.stepover);
    way.raster = rasterFor(left);
    const { ridge, tolerance } = leftBy(ctx, pass, cutter);
    const standing = { wood: new Wood(ctx.stands, cutter, path), least: tolerance + ridge, raster: way.raster };
    cutAlong(way, bandsOf(left, way.raster, pass.stepover), pass.stepover, standing);
  } else cutRows(way, rows, pass);
  if (path.moves > 0) path.rapid(path.x, path.y, ctx.heights.everything);
  await lowerStock(ctx, path, begun, cutter);
  ctx.finished = leftBy(ctx, pass, cutter);
  // What the rows beside them have reached since is no more to be told.
  const after = new Live(ctx, cutter, path);
  return { path, facts: { refused: way.refused.filter((r) => after.under(r) > TOLD) } };
}

/** How long rows lie on average on ground where something is to be cut, before they come to air, mm; Infinity where they never do. */
function chordOf(rows: Stretch[][], { ux, uy, step }: Raster, { grid, away, around }: Rest): number {
  let [cut, times] = [0, 0];
  for (const { x0, y0, z } of rows.flat()) {
    let on = false;
    for (let i = 0; i < z.length; i++) {
      const k = cellAt(grid, x0 + i * step * ux, y0 + i * step * uy);
      const now = k >= 0 && away[k] <= around;
      if (now) cut++;
      if (now && !on) times++;
      on = now;
    }
  }
  return times > 0 ? (cut * step) / times : Infinity;
}

/** Cuts rows region by region in serpentines, or one way. */
function cutRows(way: Way, rows: Stretch[][], pass: FinishPass): void {
  const { path, raster } = way;
  // Rows that have something to cut, counted up to each.
  let filled = 0;
  const number = rows.map((r) => (r.length > 0 ? ++filled : filled));
  let row = 0;
  let said = -Infinity;
  let last: Stretch | null = null;
  for (;;) {
    const next: Pick | undefined =
      pass.milling === 'either'
        ? pickStretch(rows, row, way, pass.stepover, raster)
        : nextOneWay(rows, row, last, pass, raster);
    if (!next) break;
    const { turned } = next;
    const stretch: Stretch = next.stretch;
    stretch.done = true;
    const points = raster.points(stretch, turned);
    if (Math.abs(next.row - said) >= filled / SAID) {
      path.at(['row', number[next.row], filled]);
      said = next.row;
    }
    if (next.link) emit(way, raster.link(path.x, path.y, points[0], points[1]), 'link');
    else hopTo(way, points);
    emit(way, points, 'cut');
    row = next.row;
    last = stretch;
  }
}

/** The surface that finishing is planned on: raised where an edge stands between two cells. */
function withEdges({ target, planning, raised }: PassContext, padded: HeightField, pad: number): HeightField {
  const { width } = planning;
  for (let q = 0; q < raised.length; q += 2) {
    const k = raised[q];
    if (target.mask[k] === MASK.keep) continue;
    padded.data[(Math.floor(k / width) + pad) * padded.width + (k % width) + pad] += raised[q + 1];
  }
  return padded;
}

/**
 * Heights of rows, numbered in steps of the stepover from the middle one; NaN where nothing is to be cut. Along the axes
 * they are worked out on the rows themselves, at other angles read from the offset between the grid's cells.
 */
async function rowHeights(
  ctx: PassContext,
  raster: Raster,
  surface: HeightField,
  cutter: Cutter,
  rows: number[],
): Promise<Float64Array[]> {
  // Round a drum rows lie on cells, and on those the surface is exact already.
  const along = surface.drum ? null : raster.alongAxis();
  if (!along || rows.length === 0) return rows.map((v) => raster.heights(v, null));
  const field = along === 'x' ? surface : transposeField(surface);
  const lines = Float64Array.from(rows, (v) => raster.across(v));
  // The kernel takes its lines ascending; rows may run against that.
  const falling = lines.length > 1 && lines[0] > lines[lines.length - 1];
  const data = await ctx.host.lines(field, profileOf(cutter), falling ? lines.slice().reverse() : lines);
  return rows.map((v, i) => {
    const l = (falling ? rows.length - 1 - i : i) * field.width;
    return raster.heights(v, data.subarray(l, l + field.width));
  });
}

/**
 * The rows one stepover apart. Wherever the tip's surface sags between two of them, at the foot of a wall or in a crease that
 * runs along the rows, they would miss the bottom by up to half a stepover and leave far more than the ridge of a slope: the
 * row between is cut there too, on the way along the first of the two.
 */
async function allRows(
  ctx: PassContext,
  raster: Raster,
  surface: HeightField,
  cutter: Cutter,
  stepover: number,
): Promise<Stretch[][]> {
  const whole = raster.rows;
  const heights = await rowHeights(ctx, raster, surface, cutter, whole);
  const between = whole.slice(1).map((v) => v - 0.5);
  const middles = await rowHeights(ctx, raster, surface, cutter, between);
  const run = (CREASE_RUN * stepover) / ctx.planning.cell;
  return whole.map((v, i) => {
    const sags = i + 1 < whole.length ? findSags(heights[i], middles[i], heights[i + 1], run) : [];
    return raster.stretches(v, heights[i], middles[i], sags);
  });
}

/** Spans of samples where a row lies deep between its neighbours, for at least `run` of them; first and last index. */
function findSags(a: Float64Array, middle: Float64Array, b: Float64Array, run: number): [number, number][] {
  const out: [number, number][] = [];
  for (let k = 0; k < middle.length; k++) {
    const start = k;
    while (k < middle.length && (a[k] + b[k]) / 2 - middle[k] > SAG) k++;
    // A crease that crosses the rows is followed well enough by the rows themselves: only one that runs along counts.
    if (k - start < run) continue;
    const last = out.at(-1);
    if (last && start - last[1] <= 2 * CREASE_ENDS) last[1] = k - 1;
    else out.push([start, k - 1]);
  }
  return out;
}
