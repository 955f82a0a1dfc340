import type { Area } from '../doc/pass-parts';
import { distanceInside, distanceOutside } from '../field/distance';
import { cellAt, type Grid, goesRound, type HeightField, makeField } from '../field/height-field';
import type { CellsWithin } from './cells-within';

/** What a cell of the mask says: the target must be met, the board's own surface must stay, anything may remain. */
export const MASK = { cut: 255, keep: 128, waste: 0 } as const;

export interface TargetInput {
  grid: Grid;
  /** The composite over its base plane, mm, and where it is. */
  z: Float32Array;
  cover: Uint8Array;
  mode: 'raised' | 'sunk';
  /** Its highest and lowest point, mm. */
  peak: number;
  low: number;
  skin: number;
  /** How far the base plane of a sunk piece lies below the board's top less the skin, mm. */
  drop: number;
  /** Where the passes work. */
  regions: Region[];
  /** Below which width kept board counts as frail, mm; FRAIL for planning, `frailToProve` for what a cut is held against. */
  frail?: number;
}

/**
 * Kept board that is left narrower than this between a trench and the board's edge is cleared with the trench, mm: so thin a
 * strip would break off under the bit.
 */
export const FRAIL = 4;

/** Cell of the coarse grid on which frail strips are looked for, mm. */
const FRAIL_CELL = 0.4;

/**
 * The width that the proof counts as frail, mm: planning and proof measure strips on grids of their own, each to within a cell, and one that
 * planning has just found too thin to stand must not be kept board to the proof. @param cell of planning, mm
 */
export const frailToProve = (cell: number): number => FRAIL + 2 * Math.max(FRAIL_CELL, cell);

/**
 * Which cells of a coarse grid are kept board that stands firm: a morphological opening of the board beyond the trenches
 * by a disc so far `across`, mm.
 */
function firmBoard(
  outside: Float32Array,
  grid: Grid,
  trench: number,
  across: number,
): { firm: Uint8Array; factor: number; width: number } {
  const factor = Math.max(1, Math.round(FRAIL_CELL / grid.cell));
  // One more cell on every side stands for the air beyond the edge.
  const width = Math.ceil(grid.width / factor) + 2;
  const height = Math.ceil(grid.height / factor) + 2;
  const kept = new Uint8Array(width * height);
  for (let j = 1; j < height - 1; j++) {
    const y = Math.min(grid.height - 1, (j - 1) * factor + (factor >> 1));
    for (let i = 1; i < width - 1; i++) {
      const x = Math.min(grid.width - 1, (i - 1) * factor + (factor >> 1));
      if (outside[y * grid.width + x] > trench) kept[j * width + i] = 1;
    }
  }
  const r = across / 2 / (factor * grid.cell);
  const depth = distanceInside(kept, width, height);
  const core = new Uint8Array(depth.length);
  for (let k = 0; k < core.length; k++) if (depth[k] > r) core[k] = 1;
  const away = distanceOutside(core, width, height);
  const firm = new Uint8Array(away.length);
  for (let k = 0; k < firm.length; k++) if (away[k] <= r) firm[k] = 1;
  return { firm, factor, width };
}

export interface Target {
  /** Surface wanted, mm over the board's own top (which is 0). */
  field: HeightField;
  mask: Uint8Array;
  /** Distance of every cell from the relief's outline, mm; 0 inside. */
  outside: Float32Array;
  /** Lowest that any pass goes, mm (negative): the base plane of a raised piece, the deepest place of a sunk one. */
  ground: number;
}

/** What a cut surface is held against: a target without the distances that only planning needs. */
export type Wanted = Omit<Target, 'outside'>;

/** Where a pass works: its area, its trench worked out (mm), and the polygon of an area that is an outline. */
export interface Region {
  area: Area;
  trench: number;
  within: CellsWithin | null;
}

/** Whether (x, y) mm lies in a region widened by `wider` mm where it ends at a trench; `outside` is the distance from the relief's outline there. */
export function inRegion(
  { area, trench, within }: Region,
  mode: 'raised' | 'sunk',
  { x, y }: { x: number; y: number },
  outside: number,
  wider = 0,
): boolean {
  if (mode === 'sunk' && outside > 0) return false;
  if (area.kind === 'relief') return outside <= trench + wider;
  if (area.kind === 'face') return true;
  if (area.kind === 'outline') {
    if (!within) return false;
    const { grid, cells } = within;
    return cells[cellAt(grid, x, y)] === 1;
  }
  return x >= area.x0 && x <= area.x1 && y >= area.y0 && y <= area.y1;
}

/** Height of the base plane of a piece, mm over the board's top. */
export const datumOf = ({ mode, skin, drop, peak }: Pick<TargetInput, 'mode' | 'skin' | 'drop' | 'peak'>): number =>
  mode === 'sunk' ? -skin - drop : -skin - peak;

/**
 * Seats the composite in the board: inside its outline datum + height; on ground that a pass may clear, the base plane;
 * everywhere else the board's own top, kept.
 */
export function buildTarget(input: TargetInput): Target {
  const { grid, z, cover: inside, mode, low, frail: across = FRAIL } = input;
  const { width, height, cell, originX, originY } = grid;
  const datum = datumOf(input);
  const ground = mode === 'sunk' ? datum + Math.min(0, low) : datum;
  const outside = distanceOutside(inside, width, height, goesRound(grid));
  for (let k = 0; k < outside.length; k++) outside[k] *= cell;
  const field = makeField(grid, 0);
  const mask = new Uint8Array(width * height).fill(MASK.keep);
  // Of passes over the relief the one with the widest trench opens all that the others do.
  const [relief] = input.regions.filter((a) => a.area.kind === 'relief').sort((a, b) => b.trench - a.trench);
  const regions = input.regions.filter((a) => a.area.kind !== 'relief' || a === relief);
  const widest = mode === 'raised' && relief?.trench > 0 ? relief : undefined;
  const standing = widest ? firmBoard(outside, grid, widest.trench, across) : null;
  const frail = (i: number, j: number, k: number) =>
    widest !== undefined &&
    standing !== null &&
    outside[k] <= widest.trench + across &&
    !standing.firm[(Math.floor(j / standing.factor) + 1) * standing.width + Math.floor(i / standing.factor) + 1];
  for (let j = 0; j < height; j++) {
    const y = originY + j * cell;
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      const x = originX + i * cell;
      let cut = false;
      let open = false;
      for (const r of regions) {
        if (!inRegion(r, mode, { x, y }, outside[k]) && !(r === widest && frail(i, j, k))) continue;
        open = true;
        if (inside[k] || r.area.kind !== 'relief') cut = true;
      }
      if (!open) continue;
      mask[k] = cut ? MASK.cut : MASK.waste;
      field.data[k] = datum + (inside[k] ? z[k] : 0);
    }
  }
  return { field, mask, outside, ground };
}

/** Keeps the stretches of a target between two x, mm, as they are before anything is cut. */
export function keepStretches({ field, mask }: Pick<Target, 'field' | 'mask'>, stretches: number[][]): void {
  const { width, cell, originX } = field;
  for (let i = 0; i < width; i++) {
    const x = originX + i * cell;
    if (!stretches.some(([from, to]) => x >= from && x <= to)) continue;
    for (let k = i; k < mask.length; k += width) {
      mask[k] = MASK.keep;
      field.data[k] = 0;
    }
  }
}
