import { type Drum, inTurn, rowInTurn, unrolled } from './drum';

/**
 * A grid of heights. `data` holds `height` rows of `width` values in mm, row 0 the southernmost; the centre of cell
 * (i, j) lies at (originX + i * cell, originY + j * cell).
 */
export interface HeightField {
  width: number;
  height: number;
  /** Side of a cell in mm. */
  cell: number;
  /** Centre of the first cell, mm. */
  originX: number;
  originY: number;
  /** Where it lies around a drum; absent on a board. */
  drum?: Drum;
  data: Float32Array;
}

/** Stands for "no material here": far below anything a machine reaches, and exact in a 32-bit float. */
export const AIR = -1e6;

export type Grid = Omit<HeightField, 'data'>;

/** A field over `grid` with every cell at `value`. */
export function makeField(grid: Grid, value = 0): HeightField {
  const data = new Float32Array(grid.width * grid.height);
  if (value !== 0) data.fill(value);
  return { ...gridOf(grid), data };
}

export function gridOf({ width, height, cell, originX, originY, drum }: Grid): Grid {
  return { width, height, cell, originX, originY, ...(drum ? { drum } : {}) };
}

/** Whether a grid goes once round a drum, so that its last row lies beside its first. */
export const goesRound = ({ drum, height }: Grid): boolean => drum?.rows === height;

/** The grid of cells whose centres lie `cell` apart over a board of `x` by `y` mm with its corner at 0, 0. */
export function boardGrid(x: number, y: number, cell: number): Grid {
  const width = Math.max(1, Math.round(x / cell));
  const height = Math.max(1, Math.round(y / cell));
  return { width, height, cell, originX: cell / 2, originY: cell / 2 };
}

/** Rows of a drum's grid are a multiple of this, so that coarser cells go round as well. */
const ROWS = 24;

/** The grid of cells of at most `cell` mm around a drum that is `x` mm long, its sheet wound once round it. */
export function drumGrid(x: number, radius: number, cell: number): Grid {
  const rows = ROWS * Math.max(1, Math.ceil(unrolled(radius) / cell / ROWS - 1e-6));
  const own = unrolled(radius) / rows;
  return { ...boardGrid(x, unrolled(radius), own), height: rows, drum: { radius, rows } };
}

/**
 * The grid that the proof looks with: a quarter of a cell aside along both axes, so that its cells lie halfway between all that a plan on
 * this grid has read, which reads edges every half cell.
 */
export function gridBetween(g: Grid): Grid {
  return { ...gridOf(g), originX: g.originX + g.cell / 4, originY: g.originY + g.cell / 4 };
}

/** Middle of the k-th cell of a grid, mm. */
export function cellPlace(g: Grid, k: number): { x: number; y: number } {
  const i = k % g.width;
  return { x: g.originX + i * g.cell, y: g.originY + ((k - i) / g.width) * g.cell };
}

/** The row of a grid that a place lies in, which may be beyond its edge; round a drum all turns are one. */
function rowAt(g: Grid, y: number): number {
  if (!g.drum) return Math.round((y - g.originY) / g.cell);
  const j = Math.round((inTurn(g.drum, y) - g.originY) / g.cell);
  return goesRound(g) ? rowInTurn(g.drum, j) : j;
}

/** The cell of a grid that a place lies in; -1 beyond its edge. */
export function cellAt(g: Grid, x: number, y: number): number {
  const i = Math.round((x - g.originX) / g.cell);
  const j = rowAt(g, y);
  return i < 0 || j < 0 || i >= g.width || j >= g.height ? -1 : j * g.width + i;
}

/** The cell of a grid nearest to a place. */
export function nearestCell(g: Grid, x: number, y: number): number {
  const i = Math.min(g.width - 1, Math.max(0, Math.round((x - g.originX) / g.cell)));
  const j = Math.min(g.height - 1, Math.max(0, rowAt(g, y)));
  return j * g.width + i;
}

/** The field with `n` more cells of `value` on every side; of one that goes round a drum the rows beyond its seam are those on the other side of it. @param rows how many above and below, where that is another number */
export function padField(f: HeightField, n: number, value: number, rows = n): HeightField {
  const out = makeField(
    {
      ...gridOf(f),
      width: f.width + 2 * n,
      height: f.height + 2 * rows,
      originX: f.originX - n * f.cell,
      originY: f.originY - rows * f.cell,
    },
    value,
  );
  const beyond = f.drum && goesRound(f) ? rows : 0;
  for (let j = -beyond; j < f.height + beyond; j++) {
    const from = (f.drum && beyond > 0 ? rowInTurn(f.drum, j) : j) * f.width;
    out.data.set(f.data.subarray(from, from + f.width), (j + rows) * out.width + n);
  }
  return out;
}

/** The cells of a field that a box in mm touches, at least one. */
export function cropField(f: HeightField, b: { x0: number; y0: number; x1: number; y1: number }): HeightField {
  const i0 = Math.min(f.width - 1, Math.max(0, Math.floor((b.x0 - f.originX) / f.cell)));
  const j0 = Math.min(f.height - 1, Math.max(0, Math.floor((b.y0 - f.originY) / f.cell)));
  const width = Math.max(i0, Math.min(f.width - 1, Math.ceil((b.x1 - f.originX) / f.cell))) - i0 + 1;
  const height = Math.max(j0, Math.min(f.height - 1, Math.ceil((b.y1 - f.originY) / f.cell))) - j0 + 1;
  const data = new Float32Array(width * height);
  for (let j = 0; j < height; j++) {
    const from = (j0 + j) * f.width + i0;
    data.set(f.data.subarray(from, from + width), j * width);
  }
  const [originX, originY] = [f.originX + i0 * f.cell, f.originY + j0 * f.cell];
  return { ...gridOf(f), width, height, originX, originY, data };
}

/**
 * Coarser field of `factor` times the cell; each value is the highest (or lowest) of the fine cells whose centres lie
 * within `reach` fine cells of the coarse cell's own square, so that it bounds the fine field from above (below). Round a drum the factor is the
 * next smaller one that divides its rows.
 */
export function poolField(f: HeightField, factor: number, kind: 'max' | 'min', reach = 0): HeightField {
  // Round a drum coarse cells meet at the seam too.
  if (f.drum) while (f.drum.rows % factor !== 0) factor--;
  const width = Math.ceil(f.width / factor);
  const height = Math.ceil(f.height / factor);
  const out = makeField({
    width,
    height,
    cell: f.cell * factor,
    originX: f.originX + ((factor - 1) / 2) * f.cell,
    originY: f.originY + ((factor - 1) / 2) * f.cell,
    ...(f.drum ? { drum: { ...f.drum, rows: f.drum.rows / factor } } : {}),
  });
  const max = kind === 'max';
  for (let j = 0; j < height; j++) {
    const y0 = Math.max(0, j * factor - reach);
    const y1 = Math.min(f.height, (j + 1) * factor + reach);
    for (let i = 0; i < width; i++) {
      const x0 = Math.max(0, i * factor - reach);
      const x1 = Math.min(f.width, (i + 1) * factor + reach);
      let v = max ? -Infinity : Infinity;
      for (let y = y0; y < y1; y++) {
        for (let k = y * f.width + x0, e = y * f.width + x1; k < e; k++) {
          const d = f.data[k];
          if (max ? d > v : d < v) v = d;
        }
      }
      out.data[j * width + i] = v;
    }
  }
  return out;
}

/**
 * Height at (x, y) mm by bilinear interpolation, clamped to the grid's edge. Where the four neighbours differ by more
 * than `cliff` mm the highest of them is taken, so that a wall is never read as a slope that a bit could cut into.
 */
export function sampleField(f: HeightField, x: number, y: number, cliff = Infinity): number {
  let u = (x - f.originX) / f.cell;
  const round = f.drum && goesRound(f);
  let v = ((f.drum ? inTurn(f.drum, y) : y) - f.originY) / f.cell;
  u = u < 0 ? 0 : u > f.width - 1 ? f.width - 1 : u;
  if (round) v = v < 0 ? v + f.height : v;
  else v = v < 0 ? 0 : v > f.height - 1 ? f.height - 1 : v;
  const i = Math.min(Math.floor(u), Math.max(0, f.width - 2));
  const j = Math.min(Math.floor(v), Math.max(0, f.height - (round ? 1 : 2)));
  const di = f.width > 1 ? 1 : 0;
  // Beside the last row of a turn lies the first.
  const dj = f.height > 1 ? (j + 1 < f.height ? f.width : -j * f.width) : 0;
  const fx = u - i;
  const fy = v - j;
  const k = j * f.width + i;
  const a = f.data[k];
  const b = fx > 1e-9 ? f.data[k + di] : a;
  const c = fy > 1e-9 ? f.data[k + dj] : a;
  const d = fx > 1e-9 ? (fy > 1e-9 ? f.data[k + di + dj] : b) : c;
  const hi = Math.max(a, b, c, d);
  if (hi - Math.min(a, b, c, d) > cliff) return hi;
  return (a * (1 - fx) + b * fx) * (1 - fy) + (c * (1 - fx) + d * fx) * fy;
}

/** The field with x and y exchanged. */
export function transposeField(f: HeightField): HeightField {
  const out = makeField({ width: f.height, height: f.width, cell: f.cell, originX: f.originY, originY: f.originX });
  const BLOCK = 32;
  for (let j0 = 0; j0 < f.height; j0 += BLOCK) {
    for (let i0 = 0; i0 < f.width; i0 += BLOCK) {
      for (let j = j0; j < Math.min(f.height, j0 + BLOCK); j++) {
        for (let i = i0; i < Math.min(f.width, i0 + BLOCK); i++) out.data[i * f.height + j] = f.data[j * f.width + i];
      }
    }
  }
  return out;
}
