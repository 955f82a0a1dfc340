import { rowInTurn } from './drum';
import { goesRound, type HeightField } from './height-field';

type Vec = readonly [number, number, number];
const minus = (a: Vec, b: Vec): Vec => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const dot = (a: Vec, b: Vec) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
const cross = (a: Vec, b: Vec): Vec => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

/** Squared distance of a point from the edge between two corners. */
function fromEdge(p: Vec, a: Vec, b: Vec): number {
  const ab = minus(b, a);
  const ap = minus(p, a);
  const t = Math.min(1, Math.max(0, dot(ap, ab) / dot(ab, ab)));
  const off: Vec = [ap[0] - t * ab[0], ap[1] - t * ab[1], ap[2] - t * ab[2]];
  return dot(off, off);
}

/** Squared distance of a point from a triangle: from its plane where it lies over it, else from its nearest edge. */
export function fromTriangle(p: Vec, a: Vec, b: Vec, c: Vec): number {
  const n = cross(minus(b, a), minus(c, a));
  const over = [
    [a, b],
    [b, c],
    [c, a],
  ].every(([u, v]) => dot(cross(minus(v, u), minus(p, u)), n) >= 0);
  if (over) return dot(minus(p, a), n) ** 2 / dot(n, n);
  return Math.min(fromEdge(p, a, b), fromEdge(p, b, c), fromEdge(p, c, a));
}

/** Furthest that the surface is searched for, cells. */
const FAR = 6;

/**
 * Distance of the place (x, y of cell k, z) from the surface that runs in triangles through the middles of a field's cells, mm.
 * @param most what is returned where nothing nearer lies within 6 cells, mm
 */
export function surfaceDistance(f: HeightField, k: number, z: number, most: number): number {
  const { width, height, cell, data } = f;
  const i = k % width;
  const j = (k - i) / width;
  const round = f.drum && goesRound(f) ? f.drum : null;
  const at = (a: number, b: number): Vec => [
    (a - i) * cell,
    (b - j) * cell,
    data[(round ? rowInTurn(round, b) : b) * width + a],
  ];
  const p: Vec = [0, 0, z];
  let best = most * most;
  for (let r = 0; r < FAR && r * cell < Math.sqrt(best); r++) {
    // The ring of squares of four cells that is r away from the place.
    for (let b = j - r - 1; b <= j + r; b++) {
      if (!round && (b < 0 || b + 1 >= height)) continue;
      const whole = b === j - r - 1 || b === j + r;
      for (let a = i - r - 1; a <= i + r; a += whole ? 1 : 2 * r + 1) {
        if (a < 0 || a + 1 >= width) continue;
        const [sw, se, nw, ne] = [at(a, b), at(a + 1, b), at(a, b + 1), at(a + 1, b + 1)];
        best = Math.min(best, fromTriangle(p, sw, se, ne), fromTriangle(p, sw, ne, nw));
      }
    }
  }
  return Math.sqrt(best);
}
