import { MASK, type Region } from '../../arrange/target';
import { type Cutter, profileOf } from '../../cutter/cutter';
import { WALL } from '../../cutter/limits';
import { AIR, type HeightField, padField, transposeField } from '../../field/height-field';
import { Path, sinkingFeed } from '../../motion/path';
import { clearHeights, highestAlong, lowerStock, type PassContext, type Tool } from '../context';
import { rampOnto } from '../ramp';
import { goDown } from './go-down';
import { CREASE_ENDS, Raster, type Stretch } from './raster';
import type { FinishPass } from './schema';

/** Slope at which the bit sinks into solid wood where it may not plunge, degrees. */
const SINK = 5;
/** Depth below the mean of its neighbours from which a place between two rows gets a row of its own, mm. */
const SAG = 0.04;
/** A crease runs along the rows when it stays between them for this many stepovers: at less than about 40 degrees to them. */
const CREASE_RUN = 1.2;
/** Rows that are named in the program, about. */
const SAID = 20;

/**
 * Finishing by raster at any angle: the tip runs on the exact cutter-offset surface of the target, sampled at the grid's
 * cell along rows one stepover apart (along the axes the surface is worked out on the rows themselves; at other angles it
 * is read between the grid's cells), thinned to the pass's tolerance and never below the surface. Rows are cut region by
 * region in serpentines; a link stays on the surface when it is short, else it hops over what may still stand there.
 */
export async function planFinish(
  ctx: PassContext,
  pass: FinishPass,
  cutter: Cutter,
  region: Region,
): Promise<{ path: Path }> {
  const R = cutter.diameter / 2;
  const { cell } = ctx.planning;
  const pad = Math.ceil((R + pass.stepover) / cell) + 2;
  const surface = withEdges(ctx, padField(ctx.planning, pad, AIR), pad);
  const offset: HeightField = { ...surface, data: await ctx.host.offset(surface, profileOf(cutter), 0) };
  const first = await goDown(ctx, cutter, region, offset);
  const clear = await clearHeights(ctx, R);
  const raster = new Raster(ctx, pass, { cutter, surface, offset }, region);
  const rows = await allRows(ctx, raster, surface, cutter, pass.stepover);
  const path = first ?? new Path();
  const begun = path.moves;
  const tool = { path, cutter, clear, heights: ctx.heights };
  // Rows that have something to cut, counted up to each.
  let filled = 0;
  const number = rows.map((r) => (r.length > 0 ? ++filled : filled));
  let row = 0;
  let said = -Infinity;
  for (;;) {
    const next = pickStretch(rows, row, path, pass.stepover, raster);
    if (!next) break;
    const { stretch, turned } = next;
    stretch.done = true;
    const points = raster.points(stretch, turned);
    if (Math.abs(next.row - said) >= filled / SAID) {
      path.at(['row', number[next.row], filled]);
      said = next.row;
    }
    if (next.link) emit(path, raster.link(path.x, path.y, points[0], points[1]), cutter, 'link');
    else hopTo(tool, points);
    emit(path, points, cutter, 'cut');
    row = next.row;
  }
  if (path.moves > 0) path.rapid(path.x, path.y, ctx.heights.everything);
  await lowerStock(ctx, path, begun, cutter);
  return { path };
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
  const along = raster.alongAxis();
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
  const count = raster.rowCount();
  const whole = Array.from({ length: 2 * count + 1 }, (_, i) => i - count);
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

function hopTo(tool: Tool, points: Float64Array): void {
  const { path, cutter, clear, heights } = tool;
  const [x, y, z] = points;
  const stock = highestAlong(clear, x, y, x, y);
  if (path.moves === 0) path.rapid(x, y, heights.everything);
  const over = Math.max(highestAlong(clear, path.x, path.y, x, y), z) + heights.between;
  const down = Math.max(stock, z) + heights.approach / 2;
  path.hop(x, y, over, down);
  const solid = stock - z;
  if (solid > cutter.maxPlungeDepth) rampOnto(tool, points, { closed: false, from: down, angle: SINK });
  else path.feed(x, y, z, cutter.plunge, 'plunge');
}

/** Feeds along x y z points, a link's from the second on, down what is steeper than a wall's foot no faster than the plunge feed. */
function emit(path: Path, points: Float64Array, cutter: Cutter, kind: 'cut' | 'link'): void {
  for (let i = kind === 'link' ? 3 : 0; i < points.length; i += 3) {
    const dz = points[i + 2] - path.z;
    const aside = Math.hypot(points[i] - path.x, points[i + 1] - path.y);
    const feed = -dz > WALL * aside ? sinkingFeed(cutter.feed, cutter.plunge, dz, Math.hypot(aside, dz)) : cutter.feed;
    path.feed(points[i], points[i + 1], points[i + 2], feed, kind);
  }
}

interface Pick {
  stretch: Stretch;
  row: number;
  turned: boolean;
  link: boolean;
}

/** The stretch to cut next: one that the tool can be led into on the surface, else the nearest that is left. */
function pickStretch(rows: Stretch[][], row: number, path: Path, stepover: number, raster: Raster): Pick | undefined {
  let best: Pick | undefined;
  let least = Infinity;
  const consider = (r: number, limit: number) => {
    for (const stretch of rows[r] ?? []) {
      if (stretch.done) continue;
      const [ex, ey] = raster.end(stretch);
      for (const turned of [false, true]) {
        const d =
          path.moves === 0 ? r : Math.hypot((turned ? ex : stretch.x0) - path.x, (turned ? ey : stretch.y0) - path.y);
        if (d < least && d <= limit) {
          least = d;
          best = { stretch, row: r, turned, link: false };
        }
      }
    }
  };
  for (const r of [row + 1, row - 1, row]) consider(r, 4 * stepover);
  if (best && path.moves > 0) {
    const [ex, ey] = raster.end(best.stretch);
    const { stretch, turned } = best;
    best.link = raster.linkable(path.x, path.y, turned ? ex : stretch.x0, turned ? ey : stretch.y0);
    return best;
  }
  for (let r = 0; r < rows.length; r++) consider(r, Infinity);
  return best;
}
