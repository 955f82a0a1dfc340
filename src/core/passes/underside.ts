import type { HeightField } from '../field/height-field';

/** A board's underside as the setups before this one have left it, in this setup's coordinates. */
export interface Underside {
  /** Stands for it in the keys of stages. */
  key: string;
  /** How wide the cells are that it is known on, mm. */
  cell: number;
  /** The lowest that wood reaches within r mm of a place, mm; never lower than it is, and 0 where there is none. */
  lowest(x: number, y: number, r: number): number;
}

/** The highest of a field's cells that reach nearer to a place than r mm; null where none does. */
export function highestAbout(f: HeightField, x: number, y: number, r: number): number | null {
  const i0 = Math.max(0, Math.ceil((x - r - f.originX) / f.cell - 0.5));
  const i1 = Math.min(f.width - 1, Math.floor((x + r - f.originX) / f.cell + 0.5));
  const j0 = Math.max(0, Math.ceil((y - r - f.originY) / f.cell - 0.5));
  const j1 = Math.min(f.height - 1, Math.floor((y + r - f.originY) / f.cell + 0.5));
  let high: number | null = null;
  const half = f.cell / 2;
  for (let j = j0; j <= j1; j++) {
    const dy = Math.max(0, Math.abs(f.originY + j * f.cell - y) - half);
    for (let i = i0; i <= i1; i++) {
      const dx = Math.max(0, Math.abs(f.originX + i * f.cell - x) - half);
      if (dx * dx + dy * dy > r * r) continue;
      const v = f.data[j * f.width + i];
      if (high === null || v > high) high = v;
    }
  }
  return high;
}

/** Points along closed rings, no further apart than a step, mm. */
function* alongRings(rings: { ring: ArrayLike<number> }[], step: number): Generator<[number, number]> {
  for (const { ring: r } of rings)
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) {
      const [dx, dy] = [r[i] - r[q], r[i + 1] - r[q + 1]];
      const n = Math.max(1, Math.ceil(Math.hypot(dx, dy) / step));
      for (let k = 0; k < n; k++) yield [r[q] + (dx * k) / n, r[q + 1] + (dy * k) / n];
    }
}

/**
 * How far down wood stands under the middle half of a bit of radius R that runs along closed rings, mm; the board's thickness where nothing is cut from
 * below. Beside that stands the piece's own wall, and what a round tip has left at its foot: where more is left there than the cut goes down to, the
 * proof finds the piece still joined.
 * @returns where it is thickest, which is cut through, and where it is thinnest, from which tabs are
 * counted: none is thinner than was asked for but by the hollow that a round tip leaves within that half
 */
export function thicknessAlong(
  { under, board }: { under: Underside | null; board: { thickness: number } },
  rings: { ring: ArrayLike<number> }[],
  R: number,
): { most: number; least: number } {
  const { thickness } = board;
  if (!under) return { most: thickness, least: thickness };
  let [most, least] = [0, thickness];
  const r = Math.max(0.1, Math.min(R / 2, R - 1.5 * under.cell));
  for (const [x, y] of alongRings(rings, R / 4)) {
    const here = -under.lowest(x, y, r);
    most = Math.max(most, here);
    least = Math.min(least, here);
  }
  return { most: Math.min(thickness, most), least };
}
