import type { Groove } from '../../arrange/grooves';
import type { Cutter } from '../../cutter/cutter';
import { enterWood } from '../../motion/enter';
import { Path, sinkingFeed } from '../../motion/path';
import { clearHeights, highestAlong, lowerStock, type PassContext, type Tool } from '../context';
import { type Line, linesOf } from './lines';
import type { LetterPass } from './schema';

/** Angles this near each other are the same, degrees. */
const SAME_ANGLE = 0.5;
/** Ends of lines nearer than this are one place, mm. */
const TOUCH = 1e-3;
/** Lines from one that is named in the program to the next. */
const SAID = 25;

/** A groove that runs over an edge of what lies beneath it: where, and how high that steps there, mm. */
export interface LetterEdge {
  layer: string;
  x: number;
  y: number;
  step: number;
}
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
): Promise<{ path: Path; edges: LetterEdge[] }> {
  const grooves = (await ctx.grooves()).filter((g) => cutsGroove(cutter, g));
  const clear = await clearHeights(ctx, cutter.diameter / 2);
  const edges: LetterEdge[] = [];
  const lines = grooves.flatMap((g) => {
    const mine = linesOf(g, ctx, cutter);
    const edge = edgeUnder(g.layer, mine);
    if (edge) edges.push(edge);
    return mine;
  });
  const path = new Path();
  const tool = { path, cutter, clear, heights: ctx.heights };
  for (let n = 0; n < lines.length; n++) {
    const next = nearest(lines, path);
    if (!next) break;
    next.line.done = true;
    if (n % SAID === 0) path.at(['line', n + 1, lines.length]);
    cut(tool, next, { pass, angle: ctx.rampAngle });
  }
  if (!path.cuts) return { path: new Path(), edges };
  path.rapid(path.x, path.y, ctx.heights.everything);
  await lowerStock(ctx, path, 0, cutter);
  return { path, edges };
}

interface Next {
  line: Line;
  turned: boolean;
}

/** The line to cut next: one that begins where the tip is, else the nearest, from its shallower end. */
function nearest(lines: Line[], path: Path): Next | null {
  let best: Next | null = null;
  let least = Infinity;
  for (const line of lines) {
    if (line.done) continue;
    const p = line.points;
    const n = p.length;
    for (const turned of line.closed ? [false] : [false, true]) {
      const [x, y] = turned ? [p[n - 3], p[n - 2]] : [p[0], p[1]];
      const d = path.moves === 0 ? x + y : Math.hypot(x - path.x, y - path.y);
      if (d < least - 1e-9) {
        least = d;
        best = { line, turned };
      }
    }
  }
  if (best && least > TOUCH && !best.line.closed) {
    const p = best.line.points;
    best.turned = p[p.length - 1] > p[2];
  }
  return best;
}

/** Cuts a line to its depth in levels of at most the stepdown, to and fro. */
function cut(tool: Tool, { line, turned }: Next, { pass, angle }: { pass: LetterPass; angle: number }): void {
  const { path, cutter } = tool;
  const n = line.points.length / 3;
  const order = Array.from({ length: n }, (_, k) => (turned ? n - 1 - k : k));
  let deepest = 0;
  for (let k = 0; k < n; k++) deepest = Math.max(deepest, line.surface[k] - line.points[3 * k + 2]);
  const levels = Math.max(1, Math.ceil(deepest / pass.stepdown - 1e-6));
  for (let level = 1; level <= levels; level++) {
    const points = new Float64Array(3 * n);
    order.forEach((k, i) => {
      const [x, y, z] = line.points.subarray(3 * k, 3 * k + 3);
      points.set([x, y, Math.max(z, line.surface[k] - level * pass.stepdown)], 3 * i);
    });
    enter(tool, points, { closed: line.closed, surface: line.surface[order[0]], angle });
    for (let i = 3; i < points.length; i += 3) {
      const [x, y, z] = points.subarray(i, i + 3);
      const dz = z - path.z;
      path.feed(x, y, z, sinkingFeed(cutter.feed, cutter.plunge, dz, Math.hypot(x - path.x, y - path.y, dz)));
    }
    if (!line.closed) order.reverse();
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
