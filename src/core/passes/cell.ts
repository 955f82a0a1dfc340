import { cutterOf } from '../doc/job';
import type { Pass } from '../doc/pass';
import type { SetupView } from '../setup/view';
import { kindOf } from './registry';

/** Most cells of one height field: 320 MB. A board of 1200 x 600 mm has as many at the cell that a ball of 3.175 mm asks for. */
export const MAX_CELLS = 80e6;
/** The coarsest and the finest cell that is worked out, mm. */
const COARSEST = 0.25;
const FINEST = 0.01;

/**
 * The cell that passes ask for, mm. A path computed on a grid cuts too deep by at most e along the normal while c <= 2 cos(steepest)
 * sqrt(e R); with e = 0.02 mm at 73 degrees that is R / 16 for a ball (bound derived from the chord of a circle; measured on wheat-like
 * reliefs).
 */
export function cellWanted(view: Pick<SetupView, 'cell' | 'cutters'>, passes: Pass[]): number {
  let wanted = COARSEST;
  for (const p of passes) {
    const c = cutterOf(view, p);
    if (c) wanted = Math.min(wanted, kindOf(p).cell(c));
  }
  return Math.max(FINEST, view.cell ?? Math.floor(wanted * 1000) / 1000);
}

/** The cell that so much ground is planned with where one of `wanted` mm is asked for. @param area mm2 */
export const cellFor = (wanted: number, area: number): number => Math.max(wanted, Math.sqrt(area / MAX_CELLS));

/**
 * Cell of the height fields of a board that is planned as a whole, which all its setups share.
 * @returns cell: what is planned with, wanted: what the bits ask for, mm
 */
export function cellOf(view: Pick<SetupView, 'cell' | 'board' | 'cutters'>): { cell: number; wanted: number } {
  const { board } = view;
  const wanted = cellWanted(
    view,
    board.setups.flatMap((s) => s.passes),
  );
  return { cell: cellFor(wanted, board.x * board.y), wanted };
}
