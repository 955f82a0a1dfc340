import type { Cutter } from '../../cutter/cutter';
import { AIR } from '../../field/height-field';
import { enterWood } from '../../motion/enter';
import { type MoveKind, Path, type Step, sinkingFeed } from '../../motion/path';
import { clearHeights, highestAlong, highestWithin, lowerStock, type PassContext, type Tool } from '../context';
import { thicknessAlong } from '../underside';
import { type TightCorner, tightCorners } from './corners';
import { cutoutDepths, depthOfLap } from './depths';
import { leadFrom } from './lead';
import { alongNearest, atDepth, type CutLine, type CutLines, cutLines, linesOn, pointAt, rotated } from './line';
import type { CutoutPass } from './schema';

/** A cut-out goes down by this at least, mm: where both sides have cleared all of its line nothing is left to be cut. */
const LEAST = 0.05;

/** How much longer the last lap leaves tabs, mm. */
const EASE = 0.1;

/** What a cut-out does, in numbers; depths in mm from the board's top, negative downwards. */
export interface CutoutFacts {
  /** Where it begins: the highest that still stands along its lines, or the board's top. */
  start: number;
  /** How far down its first laps go, and in how many goes. */
  floor: number;
  levels: number;
  /** How deep the first of them goes under where it begins. */
  first: number;
  bottom: number;
  /** Upper side of the tabs. */
  tabTop: number;
  /** The tip's lines of the last lap, x y pairs, and the middles of the tabs on them. */
  rings: number[][];
  tabs: { x: number; y: number }[];
  /** Half of what a tab reaches along its line, its slopes with it, and the bit's radius. */
  reach: number;
  radius: number;
  /** Inside corners that the bit does not enter. */
  corners: TightCorner[];
}

/** What a cut-out does in several parts of a board: all its lines, from the highest that any of them begins at. */
export function joinCutouts(all: CutoutFacts[]): CutoutFacts {
  const highest = all.reduce((a, b) => (b.start > a.start ? b : a));
  return {
    ...highest,
    rings: all.flatMap((f) => f.rings),
    tabs: all.flatMap((f) => f.tabs),
    corners: all.flatMap((f) => f.corners),
  };
}

/** A cut-out on its way. */
interface Way extends Tool {
  pass: CutoutPass;
  lines: CutLines;
  depths: ReturnType<typeof cutoutDepths>;
  /** Half of what a tab reaches along its line, its slopes with it. */
  reach: number;
}

/** Where a move ends. */
interface Place {
  x: number;
  y: number;
  z: number;
}

/** A lap: where on its line it begins, its depth, the height that it sinks from, and what its tabs are like. */
interface Lap {
  s: number;
  z: number;
  from: number;
  tabs: Pick<CutLines, 'half' | 'slope'>;
}

/** A cut-out as it is cut: under one that ends in the wood goes nothing, and its piece hangs on all that is left there. */
export const asCut = (pass: CutoutPass): CutoutPass =>
  pass.depth === null ? pass : { ...pass, into: 0, floor: 0, tabs: { ...pass.tabs, count: 0, at: null } };

/**
 * Cuts through the board along an outline, or down to where the other side's cut-out meets it. The first laps go down in even levels, sunk into by a ramp along the line; the way in
 * begins in the waste. Then, where something was left at the side or under them, one more lap frees the piece. Tabs stay standing
 * in every lap that is lower than their upper side.
 */
export async function planCutout(
  ctx: PassContext,
  asked: CutoutPass,
  cutter: Cutter,
): Promise<{ path: Path; cutout: CutoutFacts }> {
  const pass = asCut(asked);
  const outline = await ctx.outline(pass.outline);
  const lines = linesOn(cutLines(outline, pass, cutter), ctx.here);
  const R = cutter.diameter / 2;
  const start = pass.start === 'top' ? 0 : await highestOn(ctx, lines, R);
  const wood =
    pass.depth === null
      ? thicknessAlong(ctx, [...lines.wide, ...lines.last], R)
      : { most: pass.depth, least: pass.depth };
  const depths = cutoutDepths(pass, { ...wood, most: Math.max(wood.most, LEAST - start) }, start, cutter);
  const reach = lines.half + Math.max(0, depths.tabTop - depths.bottom) / lines.slope;
  const path = new Path();
  const clear = await clearHeights(ctx, R);
  const way: Way = { path, cutter, clear, heights: ctx.heights, pass, lines, depths, reach };
  const all = pairs(lines);
  for (const [i, [line, last]] of all.entries()) cutOne(way, line, last, ['outline', i + 1, all.length]);
  if (path.moves > 0) path.rapid(path.x, path.y, ctx.heights.everything);
  await lowerStock(ctx, path, 0, cutter);
  return {
    path,
    cutout: {
      ...depths,
      rings: lines.last.map((l) => Array.from(l.ring)),
      reach,
      radius: R,
      corners:
        pass.side === 'on' ? [] : tightCorners(outline, pass.side === 'inside', R).filter((c) => ctx.here(c.x, c.y)),
      tabs: lines.last.flatMap((l) => l.tabs.map((s) => ({ x: pointAt(l, s).x, y: pointAt(l, s).y }))),
    },
  };
}

/** Each wider line with the last one that goes with it, then the last ones that are cut in levels themselves. */
function pairs(lines: CutLines): [CutLine, CutLine | undefined][] {
  const mates = new Map<CutLine, CutLine[]>(lines.wide.map((l) => [l, []]));
  // Where the wider lap finds no room the last line is cut in levels too, as where two last ones lie along one wider one.
  const alone: CutLine[] = [];
  for (const l of lines.last) {
    const list = mates.get(lines.wide[nearestLine(lines.wide, l.ring[0], l.ring[1])]);
    if (list?.length === 0) list.push(l);
    else alone.push(l);
  }
  return [
    ...[...mates].map(([line, [last]]): [CutLine, CutLine | undefined] => [line, last]),
    ...alone.map((l): [CutLine, CutLine] => [l, l]),
  ];
}

/** The laps of one line, and the last one beside it. */
function cutOne(way: Way, line: CutLine, last: CutLine | undefined, outline: Step): void {
  const { path, clear, heights, pass, lines, depths } = way;
  const two = pass.last > 0;
  const apart = last !== undefined && (two || pass.floor !== 0);
  const laps = depths.levels + (apart ? 1 : 0);
  const [ax, ay] = leadFrom(line, lines.wide, pass);
  const height = Math.max(depths.start, highestAlong(clear, ax, ay, line.ring[0], line.ring[1]));
  if (path.moves > 0) path.rapid(path.x, path.y, heights.everything);
  enter(way, ax, ay, height);
  let s = 0;
  for (let n = 1; n <= depths.levels; n++) {
    const z = depthOfLap(depths, n);
    path.at(outline, ['lap', n, laps]);
    s = lap(way, line, { s, z, from: n === 1 ? height : path.z, tabs: lines });
  }
  if (!last || !apart) return;
  path.at(outline, ['lap', laps, laps]);
  let on = s;
  if (two) {
    // On to where the line begins, away from tabs: there is room to come onto the last line at a small angle.
    if (depths.levels > 0) follow(way, rotated(line, s), line.total - s, depths.floor);
    on = alongNearest(last.ring, last.at, last.total, path.x, path.y);
    const room = Math.max(0, Math.min(pass.lead, roomAfter(last, on) - way.reach));
    drawIn(way, line, last, on, room);
    on += room;
  }
  lap(way, last, { s: on, z: depths.bottom, from: path.z, tabs: lastTabs(lines, pass) });
  // Off the wall at 45 degrees, so that the bit does not rub a mark into it as it is drawn out.
  if (two && pass.floor === 0) leaveWall(way, last, on, pass.last);
}

/** Highest that still stands on the lines, mm; what stands at the very edge of the bit's way is left out, as it is the piece's own wall. */
async function highestOn(ctx: PassContext, lines: CutLines, R: number): Promise<number> {
  const { stock } = ctx;
  const clear = await highestWithin(ctx, stock, Math.max(0.1, R - 1.5 * stock.cell));
  let high = AIR;
  for (const { ring: r } of lines.wide) {
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2)
      high = Math.max(high, highestAlong(clear, r[q], r[q + 1], r[i], r[i + 1]));
  }
  return Math.min(0, Math.max(high, -ctx.board.thickness));
}

/** Tabs as the last lap has them: a hair longer, so that it only shaves their sides and never bites into their ends. */
export function lastTabs(lines: CutLines, pass: CutoutPass): CutLines {
  return pass.last > 0 ? { ...lines, half: lines.half + EASE } : lines;
}

/** Comes from the wider line onto the last one over `length` mm, beside the wall all the way. */
function drawIn(way: Way, wide: CutLine, last: CutLine, on: number, length: number): void {
  const { path } = way;
  const steps = Math.ceil(length / 0.5);
  for (let k = 1; k < steps; k++) {
    const p = pointAt(last, on + (length * k) / steps);
    const q = pointAt(wide, alongNearest(wide.ring, wide.at, wide.total, p.x, p.y));
    const t = k / steps;
    advance(way, { x: q.x + t * (p.x - q.x), y: q.y + t * (p.y - q.y), z: path.z }, 'link');
  }
}

/** How far it is from a place of a line to the next tab's middle, mm; a quarter of the line where there is none. */
function roomAfter(l: CutLine, s: number): number {
  const ahead = l.tabs.map((t) => (((t - s) % l.total) + l.total) % l.total);
  return ahead.length > 0 ? Math.min(...ahead) : l.total / 4;
}

/** The first `length` mm of a line at a depth, from where the tip is. */
function follow(way: Way, line: CutLine, length: number, z: number): void {
  const { path, lines, depths } = way;
  const points = atDepth(line, z, depths.tabTop, lines.half, lines.slope);
  for (let k = 1, gone = 0; k < points.length / 3; k++) {
    const [x, y, to] = [points[3 * k], points[3 * k + 1], points[3 * k + 2]];
    gone += Math.hypot(x - points[3 * k - 3], y - points[3 * k - 2]);
    if (gone > length + 1e-6) break;
    advance(way, { x, y, z: to }, to > z ? 'tabs' : 'cut');
  }
  const end = pointAt(line, length);
  if (Math.hypot(end.x - path.x, end.y - path.y) > 1e-6) advance(way, { ...end, z: path.z }, 'cut');
}

/** One cutting move, no faster downwards than the bit may plunge. */
function advance({ path, cutter }: Tool, { x, y, z }: Place, kind: MoveKind): void {
  const long = Math.hypot(x - path.x, y - path.y, z - path.z);
  path.feed(x, y, z, sinkingFeed(cutter.feed, cutter.plunge, z - path.z, long), kind);
}

function leaveWall({ path, cutter }: Tool, l: CutLine, s: number, by: number): void {
  const [p, q] = [pointAt(l, s), pointAt(l, s + Math.min(0.5, l.total / 8))];
  const long = Math.hypot(q.x - p.x, q.y - p.y) || 1;
  const [tx, ty] = [(q.x - p.x) / long, (q.y - p.y) / long];
  path.feed(path.x + by * (tx - ty), path.y + by * (ty + tx), path.z, cutter.feed, 'link');
}

function enter({ path, cutter, clear, heights }: Tool, x: number, y: number, z: number): void {
  const { approach, everything } = heights;
  const down = Math.min(everything, Math.max(z, highestAlong(clear, x, y, x, y)) + approach);
  path.hop(x, y, everything, down);
  path.feed(x, y, z, cutter.plunge, 'plunge');
}

/**
 * One lap at a depth from `s` mm along the line: sinks onto it from `from`, then once around.
 * @returns where on the line it ended, mm
 */
function lap(way: Way, line: CutLine, { s, z, from, tabs: { half, slope } }: Lap): number {
  const { path, cutter, pass, depths } = way;
  const shifted = rotated(line, s);
  const points = atDepth(shifted, z, depths.tabTop, half, slope);
  const n = points.length / 3;
  if (path.x !== points[0] || path.y !== points[1]) path.feed(points[0], points[1], from, cutter.feed, 'link');
  const first =
    from > z + 1e-9 ? enterWood(path, cutter, points, { closed: true, top: from, angle: pass.rampAngle }) : 0;
  for (let k = 1; k <= n; k++) {
    const i = (first + k) % n;
    const [x, y, to] = points.subarray(3 * i, 3 * i + 3);
    advance(way, { x, y, z: to }, Math.max(to, path.z) > z + 1e-9 ? 'tabs' : 'cut');
  }
  return (s + lengthTo(points, first)) % line.total;
}

/** Length of a closed chain up to its point i, mm in the plane. */
function lengthTo(points: Float64Array, i: number): number {
  let sum = 0;
  for (let k = 1; k <= i; k++)
    sum += Math.hypot(points[3 * k] - points[3 * k - 3], points[3 * k + 1] - points[3 * k - 2]);
  return sum;
}

function nearestLine(lines: CutLine[], x: number, y: number): number {
  let best = 0;
  let least = Infinity;
  lines.forEach((l, i) => {
    for (let k = 0; k < l.ring.length; k += 2) {
      const d = Math.hypot(l.ring[k] - x, l.ring[k + 1] - y);
      if (d < least) {
        least = d;
        best = i;
      }
    }
  });
  return best;
}
