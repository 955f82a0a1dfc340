import type { Groove } from '../../arrange/grooves';
import type { Cutter } from '../../cutter/cutter';
import { enterWood } from '../../motion/enter';
import { shortestHop } from '../../motion/link';
import { type MoveKind, Path, sinkingFeed } from '../../motion/path';
import { clearHeights, highestAlong, lowerStock, type PassContext, type Tool } from '../context';
import type { Slot } from '../slots';
import { type Line, linesOf } from './lines';
import type { LetterPass } from './schema';
import { type Going, TOUCH, Web } from './web';

/** Angles this near each other are the same, degrees. */
const SAME_ANGLE = 0.5;
/** Lines from one that is named in the program to the next. */
const SAID = 25;

/** A groove that runs over an edge of what lies beneath it: where, and how high that steps there, mm. */
export interface LetterEdge {
  layer: string;
  x: number;
  y: number;
  step: number;
}
/** Lines that a bit runs along within an outline, as plain data that can be stored. Round a drum they are what letters leave there: no layer's shape is theirs. */
export interface LetterCut {
  /** Its rings, x y each, and the lines, x y z each, mm. */
  polygon: number[][];
  chains: number[][];
}

/** What a pass for letters has to say of itself. */
export interface LetterFacts {
  edges: LetterEdge[];
  cuts: LetterCut[];
}

/** A ring of x y z points that ends where it begins. */
const ringOf = (points: Float64Array) => [...points, ...points.subarray(0, 3)];

/** What letters round a drum leave in the target, each within its own outline. */
export const letterSlots = (facts: LetterFacts, cutter: Cutter): Slot[] =>
  facts.cuts.map(({ polygon, chains }) => ({
    cutter,
    chains: chains.map((c) => Float64Array.from(c)),
    loose: null,
    through: false,
    within: polygon.map((r) => Float64Array.from(r)),
  }));

/** The ground beneath letters steps over an edge when it changes by so much, mm, and so steeply. */
const STEP_LEAST = 1;
const STEP_SLOPE = 1.5;

/** The highest edge that the lines of a groove run over; null when they run over none. */
function edgeUnder(layer: string, lines: Line[]): LetterEdge | null {
  let worst: LetterEdge | null = null;
  for (const { points: p, surface } of lines) {
    for (let k = 1; k < surface.length; k++) {
      const step = Math.abs(surface[k] - surface[k - 1]);
      if (step < STEP_LEAST || step <= (worst?.step ?? 0)) continue;
      const run = Math.hypot(p[3 * k] - p[3 * k - 3], p[3 * k + 1] - p[3 * k - 2]);
      if (step > STEP_SLOPE * run) worst = { layer, x: p[3 * k], y: p[3 * k + 1], step };
    }
  }
  return worst;
}

/** Whether a bit leaves the walls of a groove. */
export const cutsGroove = (c: Cutter, g: Pick<Groove, 'angle'>) =>
  c.shape === 'v' && Math.abs(c.includedAngle - g.angle) <= SAME_ANGLE;

/**
 * V carving: the tip follows the medial axis of the outlines, as deep as the bit's walls then reach the outline (depth = distance /
 * tan(half the angle)), drawn up to nothing in every point. Where that would be deeper than the groove's deepest, the walls are
 * followed at that depth. Depth counts from the surface beside the outline, so that letters follow a relief; and the tip is
 * never lower than the target lets the whole bit be.
 */
export async function planLetters(
  ctx: PassContext,
  pass: LetterPass,
  cutter: Cutter,
): Promise<{ path: Path; facts: LetterFacts }> {
  const grooves = (await ctx.grooves()).filter((g) => cutsGroove(cutter, g));
  const clear = await clearHeights(ctx, cutter.diameter / 2);
  const edges: LetterEdge[] = [];
  const cuts: LetterCut[] = [];
  const lines = grooves.flatMap((g) => {
    const mine = linesOf(g, ctx, cutter);
    const edge = edgeUnder(g.layer, mine);
    if (edge) edges.push(edge);
    if (ctx.board.drum)
      cuts.push({
        polygon: g.polygon.map((r) => Array.from(r)),
        chains: mine.map(({ points, closed }) => (closed ? ringOf(points) : Array.from(points))),
      });
    return mine;
  });
  const path = new Path();
  const tool = { path, cutter, clear, heights: ctx.heights };
  const { between, approach } = ctx.heights;
  const web = new Web(lines, shortestHop(ctx.machine, cutter, between, approach / 2));
  for (let n = 0; n < lines.length; n++) {
    const next = web.next(path.moves > 0 ? path : null);
    if (!next) break;
    if (n % SAID === 0) path.at(['line', n + 1, lines.length]);
    for (const way of next.back) follow(tool, placesOf(way), 'link');
    cut(tool, next, { pass, angle: ctx.rampAngle });
  }
  if (!path.cuts) return { path: new Path(), facts: { edges, cuts } };
  path.rapid(path.x, path.y, ctx.heights.everything);
  await lowerStock(ctx, path, 0, cutter);
  return { path, facts: { edges, cuts } };
}

/** The points of a line, x y z each, in the order in which it is gone along, no deeper under the surface than `most`. */
function placesOf({ line, turned }: Going, most = Infinity): Float64Array {
  const n = line.points.length / 3;
  const out = new Float64Array(3 * n);
  for (let i = 0; i < n; i++) {
    const k = turned ? n - 1 - i : i;
    const [x, y, z] = line.points.subarray(3 * k, 3 * k + 3);
    out.set([x, y, Math.max(z, line.surface[k] - most)], 3 * i);
  }
  return out;
}

/** Along points from the second on, no faster downwards than the bit may plunge. */
function follow({ path, cutter }: Tool, points: Float64Array, kind: MoveKind): void {
  for (let i = 3; i < points.length; i += 3) {
    const [x, y, z] = points.subarray(i, i + 3);
    const dz = z - path.z;
    path.feed(x, y, z, sinkingFeed(cutter.feed, cutter.plunge, dz, Math.hypot(x - path.x, y - path.y, dz)), kind);
  }
}

/** Cuts a line to its depth in levels of at most the stepdown, to and fro. */
function cut(tool: Tool, { line, turned }: Going, { pass, angle }: { pass: LetterPass; angle: number }): void {
  const n = line.points.length / 3;
  let deepest = 0;
  for (let k = 0; k < n; k++) deepest = Math.max(deepest, line.surface[k] - line.points[3 * k + 2]);
  const levels = Math.max(1, Math.ceil(deepest / pass.stepdown - 1e-6));
  let back = turned;
  for (let level = 1; level <= levels; level++) {
    const points = placesOf({ line, turned: back }, level * pass.stepdown);
    enter(tool, points, { closed: line.closed, surface: line.surface[back ? n - 1 : 0], angle });
    follow(tool, points, 'cut');
    if (!line.closed) back = !back;
  }
}

/** Brings the tip to the first point: on along the wood where it is there already, else over it and down. */
function enter(
  tool: Tool,
  points: Float64Array,
  { closed, surface, angle }: { closed: boolean; surface: number; angle: number },
): void {
  const { path, cutter, clear, heights } = tool;
  const [x, y] = points;
  if (path.moves > 0 && Math.hypot(x - path.x, y - path.y) < TOUCH && path.z <= surface) {
    // The end of what was cut just now.
    enterWood(path, cutter, points, { closed, top: path.z, angle });
    return;
  }
  if (path.moves === 0) path.rapid(x, y, heights.everything);
  const over = Math.max(highestAlong(clear, path.x, path.y, x, y), surface) + heights.between;
  const stock = Math.max(highestAlong(clear, x, y, x, y), surface);
  path.hop(x, y, over, stock + heights.approach / 2);
  enterWood(path, cutter, points, { closed, top: surface, angle });
}
