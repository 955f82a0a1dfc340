import { Clipper, ClipType, EndType, FillRule, JoinType } from 'clipper2-ts';
import type { Polygon } from './polygon';

/** Decimals of a mm that the polygon library works with. */
const PRECISION = 4;

function toPaths(rings: Polygon) {
  return rings.map((r) => Array.from({ length: r.length / 2 }, (_, i) => ({ x: r[2 * i], y: r[2 * i + 1] })));
}

function toRings(paths: { x: number; y: number }[][]): Polygon {
  return paths.filter((p) => p.length >= 3).map((p) => Float64Array.from(p.flatMap((q) => [q.x, q.y])));
}

/**
 * Overlapping rings, each filled by its own winding, as one clean polygon: letters of a script face run into each other,
 * and their strokes cross themselves. Its rings have their inside at the left.
 */
export function unionRings(rings: Polygon): Polygon {
  return toRings(Clipper.booleanOpD(ClipType.Union, toPaths(rings), null, FillRule.NonZero, PRECISION));
}

/** The same polygon, filled by its even-odd rule, with the inside of every ring at its left. */
export function evenRings(polygon: Polygon): Polygon {
  return toRings(Clipper.booleanOpD(ClipType.Union, toPaths(polygon), null, FillRule.EvenOdd, PRECISION));
}

/** A polygon made smaller by `by` mm all around; corners that point inwards become arcs within `tolerance`. Empty when nothing is left. */
export function shrinkPolygon(polygon: Polygon, by: number, tolerance: number): Polygon {
  return toRings(
    Clipper.inflatePathsD(toPaths(polygon), -by, JoinType.Round, EndType.Polygon, 2, PRECISION, tolerance),
  );
}
