import { cutterOf } from '../doc/job';
import { kindOf } from '../passes/registry';
import type { SetupView } from '../setup/view';

/** Most cells of a board's height field: 96 MB a field, of which a plan holds about six. */
export const MAX_CELLS = 24e6;
/** The coarsest and the finest cell that is worked out, mm. */
const COARSEST = 0.25;
const FINEST = 0.01;

/**
 * Cell of the height fields of a board, which all its setups share. A path computed on a grid cuts too deep by at most e along the normal
 * while c <= 2 cos(steepest) sqrt(e R); with e = 0.02 mm at 73 degrees that is R / 16 for a ball (bound derived from the chord of a
 * circle; measured on wheat-like reliefs).
 * @returns cell: what is planned with, wanted: what the bits ask for, mm
 */
export function cellOf(view: Pick<SetupView, 'cell' | 'board' | 'cutters'>): { cell: number; wanted: number } {
  let wanted = COARSEST;
  for (const p of view.board.setups.flatMap((s) => s.passes)) {
    const c = cutterOf(view, p);
    if (c) wanted = Math.min(wanted, kindOf(p).cell(c));
  }
  wanted = Math.max(FINEST, view.cell ?? Math.floor(wanted * 1000) / 1000);
  return { cell: Math.max(wanted, Math.sqrt((view.board.x * view.board.y) / MAX_CELLS)), wanted };
}
