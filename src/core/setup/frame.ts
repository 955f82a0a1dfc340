import type { Board } from '../doc/board';
import type { Flip, Turning } from '../doc/parts';
import type { Origin, Setup } from '../doc/setup';
import type { Grid } from '../field/height-field';
import type { Bounds } from '../outline/polygon';

/**
 * How a board lies in one setup as seen from another. Coordinates of a setup count from the lower left corner and the top of the board as
 * it lies, mm; of a board turned over, z and the coordinate across the axis run the other way.
 */
export interface Frame {
  /** Null where the same side is up in both. */
  turned: Turning | null;
  /** The board's, mm. */
  thickness: number;
}

/** How a board is turned over, as a person does it. */
export const FLIP_WORDS: Record<Flip, string> = { 'about-y': 'left to right', 'about-x': 'near edge to far edge' };

/** How a board is turned from one side to the other; the same both ways. */
export function turningOf({ flip, x, y }: Pick<Board, 'flip' | 'x' | 'y'>): Turning {
  return { about: flip, over: flip === 'about-y' ? x : y };
}

/** The frame between two setups of a board; the same both ways. */
export function frameBetween(
  board: Pick<Board, 'flip' | 'x' | 'y' | 'thickness'>,
  a: Pick<Setup, 'up'>,
  b: Pick<Setup, 'up'>,
): Frame {
  return { turned: a.up === b.up ? null : turningOf(board), thickness: board.thickness };
}

/** A place of a board as it is seen from the other side. */
export function turnedPlace<T extends { x: number; y: number }>({ about, over }: Turning, p: T): T {
  return about === 'about-y' ? { ...p, x: over - p.x } : { ...p, y: over - p.y };
}

/** A place of one setup in the other. */
export function placeThrough<T extends { x: number; y: number }>({ turned }: Frame, p: T): T {
  return turned ? turnedPlace(turned, p) : p;
}

/** A box of a board as it is seen from the other side. */
export function turnedBox<T extends Bounds>({ about, over }: Turning, b: T): T {
  return about === 'about-y' ? { ...b, x0: over - b.x1, x1: over - b.x0 } : { ...b, y0: over - b.y1, y1: over - b.y0 };
}

/** A box of one setup in the other. */
export function boxThrough<T extends Bounds>({ turned }: Frame, b: T): T {
  return turned ? turnedBox(turned, b) : b;
}

/** A grid over a board turned over: the same cells, seen from the other side. */
export function turnedGrid(g: Grid, { about, over }: Turning): Grid {
  return about === 'about-y'
    ? { ...g, originX: over - g.originX - (g.width - 1) * g.cell }
    : { ...g, originY: over - g.originY - (g.height - 1) * g.cell };
}

/** The grid of one setup in the other. */
export function gridThrough({ turned }: Frame, g: Grid): Grid {
  return turned ? turnedGrid(g, turned) : g;
}

/** Values of cells as they lie when a board is turned over: every row the other way round, or the last row first. */
export function turnedCells<T extends Float32Array | Uint8Array>(
  data: T,
  width: number,
  { about }: Pick<Turning, 'about'>,
): T {
  const out = data.slice() as T;
  if (about === 'about-y')
    for (let from = 0; from < out.length; from += width) out.subarray(from, from + width).reverse();
  else
    for (let from = 0, to = out.length - width; to >= 0; from += width, to -= width)
      out.set(data.subarray(from, from + width), to);
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
