import { copyBounds } from '../arrange/place';
import type { SetupView } from '../setup/view';
import { dowelsOf, type Play, playOf } from './dowels';

/** By how much an edge is missed that is found by eye, and by one thickness of paper (trade handbook, section 6; common practice, no source), mm. */
const BY_EYE = 0.5;
const BY_PAPER = 0.05;

/** How much wider a jig's pocket is all around than the piece (common practice, no source), mm. */
export const JIG_CLEARANCE = 0.1;

/** The clearance that the jig of a setup leaves all around a piece, and half of what the narrowest piece is wide, mm; null where it has none. */
function jigOf({ document, board, setup }: SetupView): { clearance: number; radius: number } | null {
  const setups = document.boards.find((b) => b.jigFor === setup.id)?.setups ?? [];
  const cutoutOf = (of: typeof setups) => of.flatMap((s) => s.passes).find((p) => p.kind === 'cutout');
  const along = cutoutOf(setups);
  if (!along) return null;
  const boxes = setups.flatMap((s) => s.layers).flatMap(copyBounds);
  const radius = Math.min(...boxes.map((b) => Math.min(b.x1 - b.x0, b.y1 - b.y0) / 2));
  const piece = cutoutOf(board.setups)?.outline.grow ?? 0;
  return { clearance: Math.max(0, along.outline.grow - piece), radius };
}

/**
 * How far beside its place a board can come to lie in a setup, by how that finds it again. On dowels it is what their clearance leaves. Against a fence
 * the board is shifted by what its edge is touched off wrongly by and, where it is turned over towards another edge, by as much again for the width that
 * was measured. By eye both its near corners can be off, to opposite sides, which turns it by twice that over the length of its edge (arithmetic).
 * In a jig a piece is shifted by the clearance around it, and as it is round turned by how its mark is met, by eye.
 * Null where it is to lie on dowels that no setup makes holes for, or in a jig that there is not.
 */
export function registerError(view: SetupView): Play | null {
  const { board, setup } = view;
  if (setup.register === 'dowels') {
    const pass = dowelsOf(board);
    return pass && playOf(view, pass);
  }
  if (setup.register === 'jig') {
    const jig = jigOf(view);
    if (!jig) return null;
    const turn = Math.atan(BY_EYE / jig.radius);
    return { shift: jig.clearance, turn: (turn * 180) / Math.PI, corner: jig.clearance + BY_EYE };
  }
  const far = Math.hypot(board.x, board.y) / 2;
  if (setup.register === 'fence') return { shift: 2 * BY_PAPER, turn: 0, corner: Math.hypot(2 * BY_PAPER, BY_PAPER) };
  const angle = Math.atan((2 * BY_EYE) / Math.max(board.x, board.y));
  return { shift: BY_EYE, turn: (angle * 180) / Math.PI, corner: Math.SQRT2 * BY_EYE + 2 * far * Math.sin(angle / 2) };
}
