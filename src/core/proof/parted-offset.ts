import { inTurn, rowInTurn } from '../field/drum';
import { type HeightField, padField, poolField, sampleField } from '../field/height-field';
import type { PartedField } from '../field/parted';
import { offsetRows } from '../kernels/host';

/** A part that is asked how high it is under a bit, and its own edges, mm. */
interface Asked {
  tall: HeightField;
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/**
 * How high a surface stands under a flat bit of radius R, `wider` of its cells wider, at any place, on cells of about `cell` mm that hold the highest, or the lowest, of
 * their own; around the parts it is the board as it was.
 */
export function standingUnder(
  f: PartedField,
  { cell, kind, R, wider = 0 }: { cell: number; kind: 'max' | 'min'; R: number; wider?: number },
): (x: number, y: number) => number {
  const { around } = f;
  const asked = f.parts.map((part): Asked => {
    const pooled = poolField(part, Math.max(1, Math.round(cell / part.cell)), kind);
    // A bit at the edge of a part stands on the board beside it too.
    const reach = R + wider * pooled.cell;
    const wide = around ? padField(pooled, Math.ceil(reach / pooled.cell) + 1, around.height) : pooled;
    const [x0, y0] = [part.originX - part.cell / 2, part.originY - part.cell / 2];
    const tall = { ...wide, data: offsetRows(wide, { shape: 0, R: reach, p0: 0, p1: 0, p2: 0 }, 0) };
    return { tall, x0, y0, x1: x0 + part.width * part.cell, y1: y0 + part.height * part.cell };
  });
  return (x, y) => {
    const own = around ? asked.find((a) => x >= a.x0 && x <= a.x1 && y >= a.y0 && y <= a.y1) : asked[0];
    return own ? sampleField(own.tall, x, y) : around!.height;
  };
}

/** Highest of a surface's own cells whose middles lie within R mm of a place, mm; beyond its parts the board as it was, where that comes so near. */
export function highestUnder({ parts, around }: PartedField, { x, y }: { x: number; y: number }, R: number): number {
  let high = -Infinity;
  let inside = false;
  for (const { width, height, cell, originX, originY, data, drum } of parts) {
    const [u, v, n] = [(x - originX) / cell, ((drum ? inTurn(drum, y) : y) - originY) / cell, R / cell];
    inside ||= u >= n && v >= n && u <= width - 1 - n && v <= height - 1 - n;
    const [first, last] = drum ? [v - n, v + n] : [Math.max(0, v - n), Math.min(height - 1, v + n)];
    for (let row = Math.ceil(first); row <= last; row++) {
      const j = drum ? rowInTurn({ rows: height }, row) : row;
      for (let i = Math.max(0, Math.ceil(u - n)); i <= Math.min(width - 1, u + n); i++) {
        if ((i - u) ** 2 + (row - v) ** 2 <= n * n) high = Math.max(high, data[j * width + i]);
      }
    }
  }
  return around && !inside ? Math.max(high, around.height) : high;
}
