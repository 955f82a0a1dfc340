import type { Cutter } from '../../cutter/cutter';
import { unrolled } from '../../field/drum';
import { Path } from '../../motion/path';
import { beyondEnds, type PassContext } from '../context';
import { cornerOver } from './blank';
import type { TurnPass } from './schema';

/** How far beyond a free end the bit's own edge goes, so that no rim is left, mm. */
const OVERCUT = 1;
/** Pieces of a turn: the spindle's load is told by where the bit is. */
const PIECES = 8;
/** Turns from one that is named in the program to the next. */
const SAID = 10;

/** How high the blank stands over the drum, mm, and in how many levels it is turned down. */
export function turnLevels(pass: TurnPass, board: { thickness: number }): { high: number; levels: number } {
  const high = Math.max(0, cornerOver(pass, board));
  return { high, levels: Math.ceil(high / pass.stepdown - 1e-6) };
}

/** Where along the drum the bit's axis begins and ends: as near to what holds it as the bit may come. */
function reachAlong({ board }: Pick<PassContext, 'board'>, R: number): [number, number] {
  const { chuck, tailStock } = board.drum ?? { chuck: 0, tailStock: 0 };
  return [
    chuck > 0 ? chuck + R : Math.max(-R, -OVERCUT - R / 2),
    tailStock > 0 ? board.x - tailStock - R : board.x + Math.min(R, OVERCUT + R / 2),
  ];
}

/**
 * Turns a blank down to the drum, level by level in spirals: down onto the level over one turn, once round where it begins, a stepover further a turn,
 * and once round where it ends. The next level goes back.
 */
export function planTurn(ctx: PassContext, pass: TurnPass, cutter: Cutter): Path {
  const path = new Path();
  const { board, heights } = ctx;
  const { high, levels } = turnLevels(pass, board);
  const turn = unrolled(board.thickness);
  let [from, to] = reachAlong(ctx, cutter.diameter / 2);
  if (levels === 0 || to < from || beyondEnds(ctx, from, cutter.diameter / 2)) return path;
  path.rapid(from, 0, heights.everything);
  path.feed(from, 0, high, cutter.plunge, 'plunge');
  const along = Math.max(1, Math.ceil((to - from) / pass.stepover));
  let y = 0;
  for (let n = 1; n <= levels; n++) {
    const [was, z] = [high - (high * (n - 1)) / levels, high - (high * n) / levels];
    for (let k = 1; k <= PIECES; k++)
      path.feed(
        from,
        y + (turn * k) / PIECES,
        was + ((z - was) * k) / PIECES,
        Math.min(cutter.feed, cutter.plunge),
        'helix',
      );
    y += turn;
    for (let t = 0; t < along + 2; t++) {
      if (t % SAID === 0) path.at(['level', n, levels], ['turn', t + 1, along + 2]);
      for (let k = 1; k <= PIECES; k++) {
        const gone = Math.min(along, Math.max(0, t - 1 + k / PIECES));
        path.feed(from + ((to - from) * gone) / along, y + (turn * k) / PIECES, z, cutter.feed);
      }
      y += turn;
    }
    [from, to] = [to, from];
  }
  path.rapid(path.x, path.y, heights.everything);
  return path;
}
