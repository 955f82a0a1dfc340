import { type Cutter, DRILLS } from '../../cutter/cutter';
import { Path } from '../../motion/path';
import { clearHeights, highestAlong, lowerStock, type PassContext, type Tool } from '../context';
import type { Slot } from '../slots';
import type { HolePass } from './schema';

/** Rings of a wide hole lie this share of the bit's diameter apart, so that no post is left in the middle. */
const OVER = 0.45;
/** Chords of circles lie this near to them, mm. */
const CHORD = 0.002;
/** How far above the last depth the bit comes back at a rapid, mm. */
const BACK = 0.5;

/** How far down holes go, mm from the board's top, negative. */
export function holeBottom(pass: HolePass, thickness: number): number {
  return pass.depth === null ? -thickness - pass.into : -pass.depth;
}

/** Radii of the circles that the bit's axis runs on, from the middle outwards; none when it drills. */
function circles(pass: HolePass, cutter: Cutter): number[] {
  const last = (pass.diameter - cutter.diameter) / 2;
  if (2 * last <= DRILLS) return [];
  const n = Math.ceil(last / (OVER * cutter.diameter));
  return Array.from({ length: n }, (_, i) => (last * (i + 1)) / n);
}

/**
 * Round holes, the nearest next. A bit as wide as the hole pecks: down by at most the peck, out to clear the chips, back to just
 * above where it was. A narrower one goes down in helices in climb direction, none sinking more than the peck a turn, and once
 * around at the bottom.
 */
export async function planHoles(ctx: PassContext, pass: HolePass, cutter: Cutter): Promise<{ path: Path }> {
  const path = new Path();
  const clear = await clearHeights(ctx, pass.diameter / 2);
  const bottom = holeBottom(pass, ctx.board.thickness);
  const tool = { path, cutter, clear, heights: ctx.heights };
  const places = pass.places.filter((p) => ctx.here(p.x, p.y));
  const left = [...places];
  while (left.length > 0) {
    const next = nearest(left, path);
    const { x, y } = left.splice(next, 1)[0];
    const top = Math.min(0, Math.max(highestAlong(clear, x, y, x, y), -ctx.board.thickness));
    if (top <= bottom) continue;
    const rings = circles(pass, cutter);
    const hole = { x, y, top, bottom };
    path.at(['hole', places.length - left.length, places.length]);
    if (rings.length === 0) peck(tool, hole, pass);
    for (const r of rings) helix(tool, hole, r, pass);
    path.rapid(path.x, path.y, ctx.heights.everything);
  }
  await lowerStock(ctx, path, 0, cutter);
  return { path };
}

function nearest(left: { x: number; y: number }[], path: Path): number {
  let best = 0;
  let least = Infinity;
  left.forEach((p, i) => {
    const d = path.moves === 0 ? p.x + p.y : Math.hypot(p.x - path.x, p.y - path.y);
    if (d < least - 1e-9) {
      least = d;
      best = i;
    }
  });
  return best;
}

/** One hole: its middle, and the heights between which it goes. */
interface Hole {
  x: number;
  y: number;
  top: number;
  bottom: number;
}

/**
 * Pecks of a hole, none deeper than asked. All but the first begin a little above where the last has ended: with that they go down no further than the bit
 * may at once.
 */
function pecksIn(depth: number, peck: number, { maxPlungeDepth }: Cutter): number {
  const pecks = Math.ceil(depth / peck - 1e-6);
  const most = Math.max(BACK, maxPlungeDepth - BACK);
  return pecks > 1 && depth / pecks > most ? Math.ceil(depth / most - 1e-6) : pecks;
}

function peck({ path, cutter, heights }: Tool, { x, y, top, bottom }: Hole, pass: HolePass): void {
  path.hop(x, y, heights.everything, top + heights.approach);
  const pecks = pecksIn(top - bottom, pass.peck, cutter);
  for (let n = 1; n <= pecks; n++) {
    if (n > 1) {
      path.rapid(x, y, top + heights.approach);
      path.rapid(x, y, top + ((bottom - top) * (n - 1)) / pecks + BACK);
    }
    path.feed(x, y, top + ((bottom - top) * n) / pecks, cutter.plunge, 'plunge');
  }
}

function helix({ path, cutter, heights }: Tool, { x, y, top, bottom }: Hole, r: number, pass: HolePass): void {
  path.hop(x + r, y, heights.everything, top + heights.approach);
  path.feed(x + r, y, top, cutter.plunge, 'plunge');
  const around = 2 * Math.PI * r;
  const turns = Math.ceil((top - bottom) / Math.min(pass.peck, around * Math.tan((pass.rampAngle * Math.PI) / 180)));
  const steps = Math.max(16, Math.ceil(Math.PI / Math.acos(1 - Math.min(0.5, CHORD / r))));
  const fall = (top - bottom) / turns;
  const feed = Math.max(1, Math.min(cutter.feed, Math.floor((cutter.plunge * Math.hypot(around, fall)) / fall)));
  for (let k = 1; k <= (turns + 1) * steps; k++) {
    const a = (2 * Math.PI * k) / steps;
    const z = Math.max(bottom, top - (fall * k) / steps);
    const down = z > bottom;
    path.feed(x + r * Math.cos(a), y + r * Math.sin(a), z, down ? feed : cutter.feed, down ? 'helix' : 'cut');
  }
}

/** What the holes leave in the target. */
export function holeSlot(pass: HolePass, cutter: Cutter, thickness: number): Slot {
  const bottom = holeBottom(pass, thickness);
  const chains = pass.places.flatMap(({ x, y }) => {
    const rings = circles(pass, cutter);
    if (rings.length === 0) return [Float64Array.of(x, y, 0, x, y, bottom)];
    return rings.map((r) => {
      const steps = Math.max(16, Math.ceil(Math.PI / Math.acos(1 - Math.min(0.5, CHORD / r))));
      return Float64Array.from(
        Array.from({ length: steps + 1 }, (_, k) => {
          const a = (2 * Math.PI * k) / steps;
          return [x + r * Math.cos(a), y + r * Math.sin(a), bottom];
        }).flat(),
      );
    });
  });
  return { cutter, chains, loose: null, through: bottom <= -thickness };
}
