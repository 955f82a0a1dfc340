import { distanceOutside } from '../field/distance';
import { AIR, type HeightField, makeField } from '../field/height-field';
import type { Area } from '../plan/job';

/** What a cell of the mask says: the target must be met, the board's own surface must stay, anything may remain. */
export const MASK = { cut: 255, keep: 128, waste: 0 } as const;

export interface TargetInput {
  /** Relief heights over the board's grid, 0..rise mm above the base; AIR where the relief is not. */
  relief: HeightField;
  /** 'image': black ground does not belong to the relief; 'mesh': all the mesh covers does. */
  kind: 'mesh' | 'image';
  mode: 'raised' | 'sunk';
  rise: number;
  skin: number;
  /** Areas of the passes with their trench widths resolved, mm. */
  areas: { area: Area; trench: number }[];
}

/**
 * A trench that ends less than this from the board's edge goes on to the edge, mm: the strip would be too thin to stand
 * and would break off under the bit.
 */
export const FRAIL = 4;

export interface Target {
  /** Surface wanted, mm over the board's own top (which is 0). */
  field: HeightField;
  mask: Uint8Array;
  /** Distance of every cell from the relief's outline, mm; 0 inside. */
  outside: Float32Array;
  /** The relief's base plane, mm (negative). */
  ground: number;
}

/** Whether (x, y) mm lies in an area; `outside` is the distance from the relief's outline there. */
export function inArea(area: Area, trench: number, mode: 'raised' | 'sunk', x: number, y: number, outside: number): boolean {
  if (mode === 'sunk' && outside > 0) return false;
  if (area.kind === 'relief') return outside <= trench;
  if (area.kind === 'face') return true;
  return x >= area.x0 && x <= area.x1 && y >= area.y0 && y <= area.y1;
}

/**
 * Seats the relief in the board: inside its outline base + height; on ground that a pass may clear, the base plane;
 * everywhere else the board's own top, kept.
 */
export function buildTarget(input: TargetInput): Target {
  const { relief, mode, rise, skin } = input;
  const { width, height, cell, originX, originY } = relief;
  const ground = -skin - rise;
  const inside = new Uint8Array(width * height);
  for (let k = 0; k < inside.length; k++) {
    const v = relief.data[k];
    if (v !== AIR && (input.kind === 'mesh' || v > 1e-6)) inside[k] = 1;
  }
  const outside = distanceOutside(inside, width, height);
  for (let k = 0; k < outside.length; k++) outside[k] *= cell;
  const field = makeField(relief, 0);
  const mask = new Uint8Array(width * height).fill(MASK.keep);
  for (let j = 0; j < height; j++) {
    const y = originY + j * cell;
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      const x = originX + i * cell;
      const edge = Math.min(x, y, width * cell - x, height * cell - y);
      const frail = edge < FRAIL ? FRAIL : 0;
      let cut = false;
      let open = false;
      for (const { area, trench } of input.areas) {
        if (!inArea(area, area.kind === 'relief' && trench > 0 ? trench + frail : trench, mode, x, y, outside[k])) continue;
        open = true;
        if (inside[k] || area.kind !== 'relief') cut = true;
      }
      if (!open) continue;
      mask[k] = cut ? MASK.cut : MASK.waste;
      field.data[k] = ground + (inside[k] ? relief.data[k] : 0);
    }
  }
  return { field, mask, outside, ground };
}
