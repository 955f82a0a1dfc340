/** A closed ring x0 y0 x1 y1 ... in mm; the first point is not repeated. */
export type Ring = Float64Array;

/** Rings whose even-odd filling is the shape: an outer line, its holes, islands in them. */
export type Polygon = Ring[];

/** A ring the other way round, so that what was at its left is at its right. */
export function turnedRing(r: Ring): Ring {
  const out = new Float64Array(r.length);
  for (let i = 0, q = r.length - 2; i < r.length; i += 2, q -= 2) {
    out[i] = r[q];
    out[i + 1] = r[q + 1];
  }
  return out;
}

export interface Bounds {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** The box around boxes. */
export function joinBounds(all: Bounds[]): Bounds {
  return {
    x0: Math.min(...all.map((b) => b.x0)),
    y0: Math.min(...all.map((b) => b.y0)),
    x1: Math.max(...all.map((b) => b.x1)),
    y1: Math.max(...all.map((b) => b.y1)),
  };
}

/** The smallest upright box around a polygon; all zero for an empty one. */
export function polygonBounds(p: Polygon): Bounds {
  const b = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (const r of p) {
    for (let i = 0; i < r.length; i += 2) {
      b.x0 = Math.min(b.x0, r[i]);
      b.x1 = Math.max(b.x1, r[i]);
      b.y0 = Math.min(b.y0, r[i + 1]);
      b.y1 = Math.max(b.y1, r[i + 1]);
    }
  }
  return b.x0 === Infinity ? { x0: 0, y0: 0, x1: 0, y1: 0 } : b;
}

/** x' = a x + c y + e, y' = b x + d y + f: the six numbers in the order of SVG's matrix(). */
export type Affine = [number, number, number, number, number, number];

export function applyAffine(p: Polygon, [a, b, c, d, e, f]: Affine): Polygon {
  return p.map((r) => {
    const out = new Float64Array(r.length);
    for (let i = 0; i < r.length; i += 2) {
      out[i] = a * r[i] + c * r[i + 1] + e;
      out[i + 1] = b * r[i] + d * r[i + 1] + f;
    }
    return out;
  });
}

/** One place mapped. */
export function applyPoint([a, b, c, d, e, f]: Affine, x: number, y: number): [number, number] {
  return [a * x + c * y + e, b * x + d * y + f];
}

/** The affine map of a piece scaled by sx, sy about its middle, turned by `degrees` counter-clockwise, with the middle at (x, y). */
export function placing(sx: number, sy: number, degrees: number, x: number, y: number): Affine {
  const c = Math.cos((degrees * Math.PI) / 180);
  const s = Math.sin((degrees * Math.PI) / 180);
  return [sx * c, sx * s, -sy * s, sy * c, x, y];
}

/** The inverse of an affine map. @throws RangeError when it flattens the plane */
export function invertAffine([a, b, c, d, e, f]: Affine): Affine {
  const det = a * d - b * c;
  if (!(Math.abs(det) > 1e-12)) throw new RangeError('a size of 0 cannot be undone');
  const [ia, ib, ic, id] = [d / det, -b / det, -c / det, a / det];
  return [ia, ib, ic, id, -(ia * e + ic * f), -(ib * e + id * f)];
}

/** Moves and stretches a polygon so that its bounds become a box of `x` by `y` mm around 0, 0. */
export function fitPolygon(p: Polygon, x: number, y: number): Polygon {
  const b = polygonBounds(p);
  const sx = b.x1 > b.x0 ? x / (b.x1 - b.x0) : 1;
  const sy = b.y1 > b.y0 ? y / (b.y1 - b.y0) : 1;
  return applyAffine(p, [sx, 0, 0, sy, (-sx * (b.x0 + b.x1)) / 2, (-sy * (b.y0 + b.y1)) / 2]);
}

/** Whether a place lies within a polygon, by even-odd filling. */
export const isInside = (p: Polygon, x: number, y: number): boolean =>
  crossings(p, y).filter((c) => c <= x).length % 2 === 1;

/** Crossings of a horizontal line with a polygon's edges, sorted; between the first and second it is inside, and so on. */
export function crossings(p: Polygon, y: number): number[] {
  const out: number[] = [];
  for (const r of p) {
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) {
      const y0 = r[q + 1];
      const y1 = r[i + 1];
      // Half-open edges: a corner on the line counts once.
      if (y0 > y === y1 > y) continue;
      out.push(r[q] + ((y - y0) / (y1 - y0)) * (r[i] - r[q]));
    }
  }
  return out.sort((a, b) => a - b);
}

/** The crossings of a polygon with the lines y = from + j step, j from 0 to rows - 1, each as `crossings` gives them; edges cost the rows they meet. */
export function rowCrossings(p: Polygon, from: number, step: number, rows: number): number[][] {
  const out: number[][] = Array.from({ length: rows }, () => []);
  for (const r of p) {
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) {
      const y0 = r[q + 1];
      const y1 = r[i + 1];
      const j0 = Math.max(0, Math.ceil((Math.min(y0, y1) - from) / step) - 1);
      const j1 = Math.min(rows - 1, Math.floor((Math.max(y0, y1) - from) / step) + 1);
      for (let j = j0; j <= j1; j++) {
        const y = from + j * step;
        if (y0 > y === y1 > y) continue;
        out[j].push(r[q] + ((y - y0) / (y1 - y0)) * (r[i] - r[q]));
      }
    }
  }
  for (const row of out) row.sort((a, b) => a - b);
  return out;
}
