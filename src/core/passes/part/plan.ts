import type { Cutter } from '../../cutter/cutter';
import type { Board } from '../../doc/board';
import { unrolled } from '../../field/drum';
import { Path, sinkingFeed } from '../../motion/path';
import { clearHeights, highestAlong, lowerStock, type PassContext } from '../context';
import type { Slot } from '../slots';
import type { PartPass } from './schema';

/** Grooves wider than their bit are gone round side by side, this share of its diameter apart. */
const OVER = 0.7;
/** Pieces of a turn: the spindle's load is told by where the bit is. */
const PIECES = 8;
/** Pieces over which the bit goes down onto the next level. */
const DOWN = 2;
/** Turns from one that is named in the program to the next. */
const SAID = 4;

/** Height of the bottom of the grooves, mm from the blank's circle. */
export const partBottom = ({ left }: Pick<PartPass, 'left'>, { thickness }: Pick<Board, 'thickness'>): number =>
  left / 2 - thickness;

/** Where along the drum the bit goes round, for each of the grooves: from the far end towards the chuck, which carries the work to the last. */
export function partPlaces({ along, width }: PartPass, { diameter }: Pick<Cutter, 'diameter'>): number[][] {
  const free = Math.max(0, width - diameter);
  const n = Math.ceil(free / (OVER * diameter));
  return along
    .slice()
    .sort((a, b) => b - a)
    .map((x) => Array.from({ length: n + 1 }, (_, i) => (n === 0 ? x : x - free / 2 + (free * i) / n)));
}

/** Round the drum at each place, a stepdown deeper a turn: down over a quarter of it, and once round on the level. */
export async function planPart(ctx: PassContext, pass: PartPass, cutter: Cutter): Promise<{ path: Path }> {
  const path = new Path();
  const turn = unrolled(ctx.board.thickness);
  const clear = await clearHeights(ctx, cutter.diameter / 2);
  const bottom = partBottom(pass, ctx.board);
  const grooves = partPlaces(pass, cutter);
  for (const [g, laps] of grooves.entries()) {
    for (const x of laps) {
      const top = Math.min(0, highestAlong(clear, x, 0, x, turn));
      if (top <= bottom) continue;
      path.hop(x, 0, ctx.heights.everything, top + ctx.heights.approach);
      path.feed(x, 0, top, cutter.plunge, 'plunge');
      const levels = Math.ceil((top - bottom) / pass.stepdown - 1e-6);
      for (let n = 1; n <= levels; n++) {
        if (n % SAID === 1) path.at(['groove', g + 1, grooves.length], ['turn', n, levels]);
        roundAt(path, cutter, { x, z: top + ((bottom - top) * n) / levels, radius: ctx.board.thickness });
      }
      path.rapid(x, path.y, ctx.heights.everything);
    }
  }
  await lowerStock(ctx, path, 0, cutter);
  return { path };
}

/** Down onto a level over the first pieces of a turn, and once round on it. Deep in a drum a piece is shorter than on its circle: the fall is held to that. */
function roundAt(path: Path, cutter: Cutter, { x, z, radius }: { x: number; z: number; radius: number }): void {
  const piece = unrolled(radius) / PIECES;
  const fall = (z - path.z) / DOWN;
  const long = piece * Math.max(0.05, (radius + z) / radius);
  const down = sinkingFeed(cutter.feed, cutter.plunge, fall, Math.hypot(long, fall));
  for (let k = 1; k < DOWN; k++) path.feed(x, path.y + piece, path.z + fall, down, 'ramp');
  path.feed(x, path.y + piece, z, down, 'ramp');
  for (let k = 0; k < PIECES; k++) path.feed(x, path.y + piece, z, cutter.feed);
}

/** What the grooves leave in the target: thin on purpose. */
export function partSlot(pass: PartPass, cutter: Cutter, board: Pick<Board, 'thickness'>): Slot {
  const turn = unrolled(board.thickness);
  const z = partBottom(pass, board);
  const chains = partPlaces(pass, cutter)
    .flat()
    .map((x) => Float64Array.from(Array.from({ length: PIECES + 1 }, (_, k) => [x, (turn * k) / PIECES, z]).flat()));
  return { cutter, chains, loose: null, through: true };
}
