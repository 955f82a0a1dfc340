import { Clipper, ClipType, EndType, FillRule, JoinType } from 'clipper2-ts';
import { ringArea } from '../field/contours';
import type { Drawn } from './flatten';
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

/** How corners come out that an offset draws apart. */
export const CORNERS = ['round', 'sharp'] as const;
export type Corner = (typeof CORNERS)[number];
/** Sharp corners run out at most this many times the offset; narrower ones are cut off. */
const MITRE = 4;

/**
 * A polygon made larger by `by` mm all around, smaller where that is negative. Corners that it draws apart become arcs within
 * `tolerance` mm, or run out to a point. Empty when nothing is left.
 */
export function offsetPolygon(polygon: Polygon, by: number, tolerance: number, corner: Corner = 'round'): Polygon {
  if (by === 0) return polygon;
  const join = corner === 'round' ? JoinType.Round : JoinType.Miter;
  return toRings(Clipper.inflatePathsD(toPaths(polygon), by, join, EndType.Polygon, MITRE, PRECISION, tolerance));
}

/** Lines drawn with a round pen of a width, mm: what the pen covers, as one polygon. */
export function strokeLines(lines: Drawn[], width: number, tolerance: number): Polygon {
  const drawn = lines.flatMap(({ points, closed }) =>
    toRings(
      Clipper.inflatePathsD(
        toPaths([points]),
        width / 2,
        JoinType.Round,
        closed ? EndType.Joined : EndType.Round,
        MITRE,
        PRECISION,
        tolerance,
      ),
    ),
  );
  return unionRings(drawn);
}

export type Joining = 'union' | 'difference' | 'intersection';
const CLIPS = {
  union: ClipType.Union,
  difference: ClipType.Difference,
  intersection: ClipType.Intersection,
} as const;

/** Two polygons joined; both by the even-odd rule. Rings of the result have their inside at the left. */
export function joinPolygons(how: Joining, a: Polygon, b: Polygon): Polygon {
  return toRings(Clipper.booleanOpD(CLIPS[how], toPaths(a), toPaths(b), FillRule.EvenOdd, PRECISION));
}

/** The outer rings only: what lies in holes is filled. For polygons whose rings have their inside at the left. */
export function dropHoles(polygon: Polygon): Polygon {
  return unionRings(polygon.filter((r) => ringArea(r) > 0));
}

/**
 * A polygon with its roughness taken off: bumps and notches narrower than twice `by` mm go (closed, opened, each by offsets), the rest
 * keeps its place.
 */
export function smoothPolygon(polygon: Polygon, by: number, tolerance: number): Polygon {
  if (by <= 0) return polygon;
  const closed = offsetPolygon(offsetPolygon(polygon, by, tolerance), -2 * by, tolerance);
  return offsetPolygon(closed, by, tolerance);
}
