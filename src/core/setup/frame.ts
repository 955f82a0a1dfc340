import type { Board } from '../doc/board';
import type { Origin, Setup } from '../doc/setup';
import type { Grid } from '../field/height-field';

/**
 * How a board lies in one setup as seen from another. Coordinates of a setup count from the lower left corner and the top of the board as
 * it lies, mm; a board is turned over its y axis, so that x and z run the other way.
 */
export interface Frame {
  turned: boolean;
  /** The board's width and thickness, mm. */
  width: number;
  thickness: number;
}

/** The frame between two setups of a board; the same both ways. */
export function frameBetween(board: Pick<Board, 'x' | 'thickness'>, a: Pick<Setup, 'up'>, b: Pick<Setup, 'up'>): Frame {
  return { turned: a.up !== b.up, width: board.x, thickness: board.thickness };
}

/** A place of one setup in the other. */
export function placeThrough<T extends { x: number; y: number }>(f: Frame, p: T): T {
  return f.turned ? { ...p, x: f.width - p.x } : p;
}

/** A grid over a board turned over: the same cells, seen from the other side. */
export function turnedGrid(g: Grid, width: number): Grid {
  return { ...g, originX: width - g.originX - (g.width - 1) * g.cell };
}

/** The grid of one setup in the other. */
export function gridThrough(f: Frame, g: Grid): Grid {
  return f.turned ? turnedGrid(g, f.width) : g;
}

/** Values of cells with every row the other way round. */
export function turnedRows<T extends Float32Array | Uint8Array>(data: T, width: number): T {
  const out = data.slice() as T;
  for (let from = 0; from < out.length; from += width) out.subarray(from, from + width).reverse();
  return out;
}

/** Where the programs of a setup have their zero, in its own coordinates, mm. */
export function zeroOf(
  board: Pick<Board, 'x' | 'y' | 'thickness'>,
  { zero }: Pick<Setup, 'zero'>,
): { x: number; y: number; z: number } {
  const at: Record<Origin, [number, number]> = {
    'lower-left': [0, 0],
    'lower-right': [board.x, 0],
    'upper-left': [0, board.y],
    'upper-right': [board.x, board.y],
    centre: [board.x / 2, board.y / 2],
  };
  const [x, y] = at[zero.origin];
  return { x, y, z: zero.z === 'top' ? 0 : -board.thickness };
}
