import type { Board } from '../../doc/board';
import { type Grid, makeField } from '../../field/height-field';
import type { TurnPass } from './schema';

type Stock = Pick<TurnPass, 'blank' | 'runOut'>;
type Drum = Pick<Board, 'x' | 'thickness'>;

/** How far a blank stands off its axis at a place along it, mm: half of what the dial moves, straight between its two places. */
export function offAxis({ runOut }: Pick<TurnPass, 'runOut'>, { x: long }: Pick<Board, 'x'>, x: number): number {
  const t = Math.min(1, Math.max(0, x / long));
  return (runOut.chuck + t * (runOut.tailStock - runOut.chuck)) / 2;
}

/** The most that a blank stands over the drum's circle anywhere, mm: the corners of square stock lie side / sqrt 2 from the axis. */
export function cornerOver({ blank, runOut }: Stock, { thickness }: Pick<Board, 'thickness'>): number {
  const own = blank.kind === 'square' ? blank.side * Math.SQRT1_2 : blank.diameter / 2;
  return own + Math.max(runOut.chuck, runOut.tailStock) / 2 - thickness;
}

/** How much wood a blank has at least over the drum's circle, mm; less than nothing where the drum does not come out of it. */
export function leastOver({ blank, runOut }: Stock, { thickness }: Pick<Board, 'thickness'>): number {
  const own = blank.kind === 'square' ? blank.side / 2 : blank.diameter / 2;
  return own - Math.max(runOut.chuck, runOut.tailStock) / 2 - thickness;
}

/**
 * How high a blank stands over the drum's circle on every ray, at most: square stock lies with its flats up, down and to the sides, and where its axis
 * is off is not known, so that it counts to every side.
 */
export function blankTops(pass: Stock, board: Drum, grid: Grid): Float32Array {
  const out = makeField(grid, 0).data;
  const { blank } = pass;
  const quarter = Math.PI / 2;
  for (let j = 0; j < grid.height; j++) {
    const a = (grid.originY + j * grid.cell) / board.thickness;
    const aside = a - quarter * Math.round(a / quarter);
    const own = blank.kind === 'square' ? blank.side / 2 / Math.cos(aside) : blank.diameter / 2;
    for (let i = 0; i < grid.width; i++)
      out[j * grid.width + i] = Math.max(0, own + offAxis(pass, board, grid.originX + i * grid.cell) - board.thickness);
  }
  return out;
}
