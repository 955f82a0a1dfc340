import type { Board } from '../doc/board';
import { boardGrid, drumGrid, type Grid } from '../field/height-field';

/** The grid of cells of about `cell` mm over a board, or round a drum, where they are a little smaller so that they go round. */
export const gridOfBoard = (
  { x, y, thickness, drum }: Pick<Board, 'x' | 'y' | 'thickness' | 'drum'>,
  cell: number,
): Grid => (drum ? drumGrid(x, thickness, cell) : boardGrid(x, y, cell));
