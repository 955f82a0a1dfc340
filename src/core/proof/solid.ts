import { type Grid, type HeightField, makeField } from '../field/height-field';
import { type Frame, gridThrough, turnedCells } from '../setup/frame';
import { type Hollow, turnedHollow } from './hollow';

/**
 * A board as all its setups' programs leave it: two heights over every cell, in the first setup's coordinates, mm. Where the top does not
 * lie above the bottom there is no wood.
 */
export interface Solid {
  grid: Grid;
  top: Float32Array;
  bottom: Float32Array;
}

/** A board while its setups are cut. */
export interface StandingBoard extends Solid {
  /** Whether `top` is still the field that the board began with. */
  untouched: boolean;
  /** What is hollow beneath its surfaces, in its own heights; null where nothing is. */
  hollow: Hollow | null;
}

/** A whole board: its top at 0, its underside a thickness below. */
export function wholeBoard(grid: Grid, thickness: number): StandingBoard {
  return {
    grid,
    top: makeField(grid, 0).data,
    bottom: makeField(grid, -thickness).data,
    untouched: true,
    hollow: null,
  };
}

/**
 * The surface that is up in a setup, in its own coordinates. Where there is no wood it lies at the underside, so that nothing counts as
 * cut there twice.
 */
export function surfaceOf(solid: Solid, frame: Frame): HeightField {
  const { grid, top, bottom } = solid;
  const { thickness, turned } = frame;
  const out = new Float32Array(top.length);
  for (let k = 0; k < out.length; k++) {
    if (top[k] <= bottom[k]) out[k] = -thickness;
    else out[k] = turned ? -thickness - bottom[k] : top[k];
  }
  return { ...gridThrough(frame, grid), data: turned ? turnedCells(out, grid.width, turned) : out };
}

/**
 * How much wood stands over every cell as it lies in a setup, mm; never below 0.
 * @param surface of the side that is up, as that setup has left it so far
 */
export function woodUnder(solid: Solid, frame: Frame, surface: Float32Array): HeightField {
  const { grid, top, bottom } = solid;
  const { turned, thickness } = frame;
  const data = new Float32Array(top.length);
  const [last, far] = [grid.width - 1, top.length - grid.width];
  for (let row = 0; row < top.length; row += grid.width) {
    for (let i = 0; i < grid.width; i++) {
      const k = row + i;
      if (top[k] <= bottom[k]) continue;
      const own = cellInSetup(turned, row, i, last, far);
      data[own] = Math.max(0, turned ? top[k] + thickness + surface[own] : surface[own] - bottom[k]);
    }
  }
  return { ...gridThrough(frame, grid), data };
}

/** The cell of a setup's field that lies over cell i of a row of the solid, given the last of a row and the first of the last row. */
function cellInSetup(turned: Frame['turned'], row: number, i: number, last: number, far: number): number {
  if (!turned) return row + i;
  return turned.about === 'about-y' ? row + last - i : far - row + i;
}

/** Whether more than `least` mm of wood stands over every cell; the surface as for woodUnder. */
export function standsEverywhere(solid: Solid, frame: Frame, surface: Float32Array, least: number): boolean {
  const { grid, top, bottom } = solid;
  const { turned, thickness } = frame;
  const [last, far] = [grid.width - 1, top.length - grid.width];
  for (let row = 0; row < top.length; row += grid.width) {
    for (let i = 0; i < grid.width; i++) {
      const k = row + i;
      const own = surface[cellInSetup(turned, row, i, last, far)];
      if (top[k] <= bottom[k] || (turned ? top[k] + thickness + own : own - bottom[k]) <= least) return false;
    }
  }
  return true;
}

/**
 * Puts the surface that a setup has left back into the solid.
 * @returns the surface as it stood before, which is the caller's
 */
export function replaceSurface(solid: StandingBoard, frame: Frame, surface: Float32Array): HeightField {
  const { grid, top, bottom, untouched } = solid;
  if (untouched && !frame.turned && top.every((v, k) => v > bottom[k])) {
    // Of a large board every field counts: nobody else holds the first one.
    Object.assign(solid, { top: surface, untouched: false });
    return { ...gridThrough(frame, grid), data: top };
  }
  const before = surfaceOf(solid, frame);
  putSurface(solid, frame, surface);
  return before;
}

function putSurface(solid: Solid, frame: Frame, surface: Float32Array): void {
  const { grid, top, bottom } = solid;
  const { turned } = frame;
  if (!turned) {
    // What a setup has left is its own, and is not written over by the next.
    const next = top.slice();
    for (let k = 0; k < top.length; k++) if (top[k] > bottom[k]) next[k] = surface[k];
    solid.top = next;
    return;
  }
  const own = turnedCells(surface, grid.width, turned);
  for (let k = 0; k < bottom.length; k++) if (top[k] > bottom[k]) bottom[k] = -frame.thickness - own[k];
}

/** What is hollow of a board as it lies in a setup, or what is so there as it lies in the solid: turning twice gives it back. */
export function hollowThrough(hollow: Hollow | null, { grid }: Solid, frame: Frame): Hollow | null {
  if (!hollow || !frame.turned) return hollow;
  return turnedHollow(hollow, grid.width, frame.turned, frame.thickness);
}

/** The underside of a board as it lies in a setup, in its own coordinates: negative, no deeper than the board is thick. */
export function undersideOf({ grid, top, bottom }: Solid, { turned, thickness }: Frame): Float32Array {
  if (!turned) return bottom;
  const out = top.slice();
  for (let k = 0; k < out.length; k++) out[k] = -thickness - Math.min(0, top[k]);
  return turnedCells(out, grid.width, turned);
}

/** Raises the side that is up in a setup by what an uneven board has too much, in the setup's coordinates, mm. */
export function raiseBy(solid: Solid, frame: Frame, over: Float32Array): void {
  const { grid, top, bottom } = solid;
  const { turned } = frame;
  if (!turned) {
    for (let k = 0; k < top.length; k++) top[k] += over[k];
    return;
  }
  const own = turnedCells(over, grid.width, turned);
  for (let k = 0; k < bottom.length; k++) bottom[k] -= own[k];
}
