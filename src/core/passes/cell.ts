import { cutterOf, type Job } from '../doc/job';
import type { SetupView } from '../setup/view';
import { kindOf } from './registry';

/** Most cells of a board's height field: 320 MB a field. A board of 1200 x 600 mm has as many at the cell that a ball of 3.175 mm asks for. */
export const MAX_CELLS = 80e6;
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

/** Bytes a cell that planning and proving a setup hold at most (35 measured on 73 million cells, `npm run bench`): while it is planned, and what each setup keeps until the end. */
const HELD = 15;
const KEPT = 22;

/** Memory that a job takes at most while it is planned, bytes. */
export function memoryFor(job: Pick<Job, 'boards' | 'cutters' | 'cell'>): number {
  const setups = job.boards.flatMap((board) => {
    const cells = (board.x * board.y) / cellOf({ ...job, board }).cell ** 2;
    return board.setups.map(() => cells);
  });
  return HELD * Math.max(0, ...setups) + KEPT * setups.reduce((s, c) => s + c, 0);
}
