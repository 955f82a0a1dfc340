import type { SetupView } from '../setup/view';
import { dowelsOf, type Play, playOf } from './dowels';

/** By how much an edge is missed that is found by eye, and by one thickness of paper (trade handbook, section 6; common practice, no source), mm. */
export const BY_EYE = 0.5;
export const BY_PAPER = 0.05;

/**
 * How far beside its place a board can come to lie in a setup, by how that finds it again. On dowels it is what their clearance leaves. Against a fence
 * the board is shifted by what its edge is touched off wrongly by and, where it is turned over towards another edge, by as much again for the width that
 * was measured. By eye both its near corners can be off, to opposite sides, which turns it by twice that over the length of its edge (arithmetic).
 * Null where it is to lie on dowels that no setup makes holes for.
 */
export function registerError(view: SetupView): Play | null {
  const { board, setup } = view;
  if (setup.register === 'dowels') {
    const pass = dowelsOf(board);
    return pass && playOf(view, pass);
  }
  const far = Math.hypot(board.x, board.y) / 2;
  if (setup.register === 'fence') return { shift: 2 * BY_PAPER, turn: 0, corner: Math.hypot(2 * BY_PAPER, BY_PAPER) };
  const angle = Math.atan((2 * BY_EYE) / Math.max(board.x, board.y));
  return { shift: BY_EYE, turn: (angle * 180) / Math.PI, corner: Math.SQRT2 * BY_EYE + 2 * far * Math.sin(angle / 2) };
}
