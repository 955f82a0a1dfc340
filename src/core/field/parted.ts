import { boardGrid, cellAt, type Grid, type HeightField, makeField, poolField } from './height-field';

/**
 * A field in parts: rectangles with cells of their own that do not overlap. `around` is what lies beyond them: a board of x by y mm with its
 * corner at 0, 0 that is `height` mm high there; null where there is nothing but one part.
 */
export interface PartedField {
  parts: HeightField[];
  around: { x: number; y: number; height: number } | null;
}

/** Most cells of a grid over a whole board that parts are put together on: 96 MB a field. */
const MOST_CELLS = 24e6;

/** The grid over a whole board on which its parts are put together, its cells no smaller than `cell` mm and not many more than `most`. */
export function gridOver({ x, y }: { x: number; y: number }, cell: number, most = MOST_CELLS): Grid {
  return boardGrid(x, y, Math.max(cell, Math.sqrt((x * y) / most)));
}

/** The cells of a grid that lie within a part: first and last column and row, the last ones left out. */
function within(g: Grid, part: Grid): { i0: number; i1: number; j0: number; j1: number } {
  const [a, b] = [part.originX - part.cell / 2, part.originY - part.cell / 2];
  const first = (from: number, origin: number) => Math.max(0, Math.ceil((from - origin) / g.cell - 1e-6));
  return {
    i0: first(a, g.originX),
    j0: first(b, g.originY),
    i1: Math.min(g.width, first(a + part.width * part.cell, g.originX)),
    j1: Math.min(g.height, first(b + part.height * part.cell, g.originY)),
  };
}

/**
 * A parted field on cells of about `cell` mm that hold the highest (or lowest) of the cells whose middles lie in them, so that it bounds the
 * parts from above (below). Of one part alone its own cells pooled. May be the part itself, which is not to be changed.
 */
export function pooledOver(f: PartedField, cell: number, kind: 'max' | 'min'): HeightField {
  const { parts, around } = f;
  if (!around) {
    const factor = Math.max(1, Math.round(cell / parts[0].cell));
    return factor === 1 ? parts[0] : poolField(parts[0], factor, kind);
  }
  const out = makeField(gridOver(around, Math.max(cell, ...parts.map((p) => p.cell))), around.height);
  const worst = kind === 'max' ? -Infinity : Infinity;
  for (const p of parts) {
    const { i0, i1, j0, j1 } = within(out, p);
    for (let j = j0; j < j1; j++) out.data.fill(worst, j * out.width + i0, j * out.width + Math.max(i0, i1));
  }
  for (const p of parts) {
    const column = Int32Array.from({ length: p.width }, (_, i) =>
      indexOf(p.originX + i * p.cell, out.originX, out.cell, out.width),
    );
    for (let j = 0; j < p.height; j++) {
      const row = indexOf(p.originY + j * p.cell, out.originY, out.cell, out.height) * out.width;
      for (let i = 0; i < p.width; i++) {
        const [k, v] = [row + column[i], p.data[j * p.width + i]];
        if (kind === 'max' ? v > out.data[k] : v < out.data[k]) out.data[k] = v;
      }
    }
  }
  // A cell whose middle lies on a part's very rim may hold none of its cells' middles.
  for (let k = 0; k < out.data.length; k++) if (out.data[k] === worst) out.data[k] = around.height;
  return out;
}

const indexOf = (at: number, origin: number, cell: number, n: number) =>
  Math.min(n - 1, Math.max(0, Math.round((at - origin) / cell)));

/**
 * Values of parts on one grid over the whole board, each cell that of the part's nearest: for pictures of it.
 * @param beyond the value where no part is
 */
export function spreadOver<T extends Float32Array | Uint8Array>(
  grid: Grid,
  parts: { grid: Grid; data: T }[],
  beyond: number,
): T {
  const Made = parts[0].data.constructor as new (n: number) => T;
  const out = new Made(grid.width * grid.height).fill(beyond) as T;
  for (const { grid: g, data } of parts) {
    const { i0, i1, j0, j1 } = within(grid, g);
    for (let j = j0; j < j1; j++) {
      for (let i = i0; i < i1; i++) {
        const k = cellAt(g, grid.originX + i * grid.cell, grid.originY + j * grid.cell);
        if (k >= 0) out[j * grid.width + i] = data[k];
      }
    }
  }
  return out;
}
