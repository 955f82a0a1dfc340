import type { Layer } from '../doc/layer';
import type { Grid } from '../field/height-field';
import { type Affine, placing } from '../outline/polygon';

/** A window of a grid: its first cell, and how many. */
export interface Window {
  i: number;
  j: number;
  width: number;
  height: number;
}

/** A window with nothing in it. */
const EMPTY: Window = { i: 0, j: 0, width: 0, height: 0 };

/** The window of a grid that holds a box of the board, one cell more on every side, cut to the grid. */
export function windowOf(grid: Grid, x0: number, y0: number, x1: number, y1: number): Window {
  const i = Math.max(0, Math.floor((x0 - grid.originX) / grid.cell) - 1);
  const j = Math.max(0, Math.floor((y0 - grid.originY) / grid.cell) - 1);
  const i1 = Math.min(grid.width, Math.ceil((x1 - grid.originX) / grid.cell) + 2);
  const j1 = Math.min(grid.height, Math.ceil((y1 - grid.originY) / grid.cell) + 2);
  return i1 <= i || j1 <= j ? EMPTY : { i, j, width: i1 - i, height: j1 - j };
}

/** A grid that layers are drawn on. */
export interface DrawingGrid extends Grid {
  /** Side of the square over which pictures with finer pixels are averaged, mm; a cell where left out. */
  over?: number;
}

/** The grid of a window of a grid. */
export function windowGrid(grid: DrawingGrid, w: Window): DrawingGrid {
  return {
    ...(grid.over === undefined ? {} : { over: grid.over }),
    ...(grid.drum ? { drum: grid.drum } : {}),
    width: w.width,
    height: w.height,
    cell: grid.cell,
    originX: grid.originX + w.i * grid.cell,
    originY: grid.originY + w.j * grid.cell,
  };
}

/** From a layer's own frame (mm from its middle) to the board, for one of its copies. */
export function frameOf(l: Layer, c: { dx: number; dy: number; turn: number }): Affine {
  const a = (l.turn * Math.PI) / 180;
  const x = l.centre.x + c.dx * Math.cos(a) - c.dy * Math.sin(a);
  const y = l.centre.y + c.dx * Math.sin(a) + c.dy * Math.cos(a);
  return placing(l.mirror ? -1 : 1, 1, l.turn + c.turn, x, y);
}

/** The box on the board of a box of `x` by `y` mm around a frame's middle. */
export function boxIn([a, b, c, d, e, f]: Affine, x: number, y: number) {
  const w = (Math.abs(a) * x + Math.abs(c) * y) / 2;
  const h = (Math.abs(b) * x + Math.abs(d) * y) / 2;
  return { x0: e - w, y0: f - h, x1: e + w, y1: f + h };
}

/** One copy of a layer on a window of the grid, before slope and mask. */
export interface Piece {
  window: Window;
  heights: Float32Array;
  below: Uint8Array | null;
  thinCells: number;
  /** Exact distance from the outline, where the source has one and it was asked for. */
  edge: Float32Array | null;
}

/** Several windows of one grid as the one that holds them. */
export function joinWindows(all: Window[]): Window {
  const some = all.filter((w) => w.width > 0);
  if (some.length === 0) return EMPTY;
  const i = Math.min(...some.map((w) => w.i));
  const j = Math.min(...some.map((w) => w.j));
  return {
    i,
    j,
    width: Math.max(...some.map((w) => w.i + w.width)) - i,
    height: Math.max(...some.map((w) => w.j + w.height)) - j,
  };
}

/** What two windows of a grid have in common; of no width where they have nothing. */
export function meetWindows(a: Window, b: Window): Window {
  const i = Math.max(a.i, b.i);
  const j = Math.max(a.j, b.j);
  const width = Math.min(a.i + a.width, b.i + b.width) - i;
  const height = Math.min(a.j + a.height, b.j + b.height) - j;
  return width > 0 && height > 0 ? { i, j, width, height } : EMPTY;
}

/** A window with so many mm around it, cut to its grid. */
export function grownWindow(grid: Grid, w: Window, by: number): Window {
  const cells = Math.ceil(by / grid.cell);
  return meetWindows(
    { i: w.i - cells, j: w.j - cells, width: w.width + 2 * cells, height: w.height + 2 * cells },
    { i: 0, j: 0, width: grid.width, height: grid.height },
  );
}

/** Marks what of a mesh lies under its base plane in a raster. */
export const BELOW = -2;

/** A mesh as seen from above in its own plan: heights 0..1 over its base, AIR outside, BELOW where it lies under the base. */
export interface Raster {
  width: number;
  height: number;
  data: Float32Array;
}
