import type { Cutter } from '../../cutter/cutter';
import type { Board } from '../../doc/board';
import { cutterOf } from '../../doc/job';
import type { SetupView } from '../../setup/view';
import type { CutoutPass } from './schema';

/** Left between what holds a bit and the trench's wall, mm: a board is touched off by eye to half of it (trade handbook, zeroing). */
const CLEAR = 1;
/** A shank that is wider than its flutes by less is as wide, mm. */
const AS_WIDE = 0.1;

/** What of a bit comes below the board's top in a cut-out, and how wide a trench it needs beside the outline, mm. */
export interface Room {
  bit: string;
  part: 'shank' | 'holder';
  width: number;
}

/** What is asked about a cut-out's room. */
export type RoomAsked = Pick<SetupView, 'passes' | 'cutters'> & { board: Pick<Board, 'thickness'> };

/** The part of a bit that needs the widest trench in one cut-out along the outside of a piece; null when its flutes reach over the board. */
function roomOf(pass: CutoutPass, c: Cutter, thickness: number): Room | null {
  const bottom = pass.depth === null ? -thickness - pass.into : -pass.depth;
  // The bit's axis lies half its width beside the outline; further out by what the last lap is to take.
  const axis = Math.max(0, pass.outline.grow) + c.diameter / 2 + pass.last;
  const holder = bottom + c.stickOut < 0 && c.holderDiameter > c.diameter + AS_WIDE;
  const shank = bottom + c.fluteLength < 0 && c.shankDiameter > c.diameter + AS_WIDE;
  if (holder) return { bit: c.name, part: 'holder', width: axis + c.holderDiameter / 2 + CLEAR };
  if (shank) return { bit: c.name, part: 'shank', width: axis + c.shankDiameter / 2 + CLEAR };
  return null;
}

/** The widest trench that shanks and holders of a setup's cut-outs need; null when none does. */
export function cutoutRoom({ passes, cutters, board }: RoomAsked): Room | null {
  let widest: Room | null = null;
  for (const p of passes) {
    const cutter = p.kind === 'cutout' && p.side === 'outside' ? cutterOf({ cutters }, p) : undefined;
    const room = cutter && roomOf(p as CutoutPass, cutter, board.thickness);
    if (room && room.width > (widest?.width ?? 0)) widest = room;
  }
  return widest;
}
