import { distanceInside } from '../field/distance';
import { cellPlace, type HeightField, poolField } from '../field/height-field';
import type { Frame } from '../setup/frame';
import { type Solid, surfaceOf, undersideOf } from './solid';

/** Ground that lies this near to the bed is lain on, mm. */
const TOUCHES = 0.05;
/** Cells on which it is looked for what the board lies on, no smaller than this, mm. */
const COARSE = 0.5;

/** What a board lies on in a setup that finds its other side cut. */
export interface Rests {
  /** How much of its ground it lies on, as a share of the board. */
  share: number;
  /** How far it spans at the widest without lying on anything, where that is, and how thick the wood is there, mm; the whole board and 0 where it lies on nothing. */
  span: number;
  wood: number;
  x: number;
  y: number;
}

/**
 * What a board lies on before a setup cuts it: its lowest ground, which is the other side's own top where that stands. The span is twice the longest way to
 * a place that is lain on, on cells of half a millimetre or more that count as lying where any of theirs does. Null where all of it lies flat.
 */
export function restsOf(solid: Solid, frame: Frame): Rests | null {
  const low = -frame.thickness + TOUCHES;
  if (frame.turned ? solid.top.every((v) => v >= -TOUCHES) : solid.bottom.every((v) => v <= low)) return null;
  const surface = surfaceOf(solid, frame);
  const under: HeightField = { ...surface, data: undersideOf(solid, frame) };
  const factor = Math.max(1, Math.ceil(COARSE / surface.cell));
  const [lowest, top] = [poolField(under, factor, 'min'), poolField(surface, factor, 'max')];
  const free = new Uint8Array(lowest.data.length);
  let lain = 0;
  for (let k = 0; k < free.length; k++) {
    // Where there is no wood nothing lies.
    const lies = lowest.data[k] <= low && top.data[k] > lowest.data[k];
    if (lies) lain++;
    else free[k] = 1;
  }
  if (lain === 0) {
    const { width, height, cell } = lowest;
    return { share: 0, span: Math.hypot(width, height) * cell, wood: 0, ...cellPlace(lowest, free.length >> 1) };
  }
  const away = distanceInside(free, lowest.width, lowest.height);
  let far = 0;
  for (let k = 0; k < away.length; k++) if (away[k] > away[far] && top.data[k] > lowest.data[k]) far = k;
  const wood = top.data[far] - lowest.data[far];
  return { share: lain / free.length, span: 2 * away[far] * lowest.cell, wood, ...cellPlace(lowest, far) };
}

/** How far a board spans for its thickness as it lies: 0 where it lies flat. */
export const strainOf = (r: Rests | null): number => (r === null ? 0 : r.wood > 0 ? r.span / r.wood : Infinity);
