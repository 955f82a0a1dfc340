import { Clipper, ClipType, FillRule } from 'clipper2-ts';
import type { Polygon } from './polygon';

/** Decimals of a mm that the polygon library works with. */
const PRECISION = 4;

/**
 * Overlapping rings, each filled by its own winding, as one clean polygon: letters of a script face run into each other,
 * and their strokes cross themselves.
 */
export function unionRings(rings: Polygon): Polygon {
  const paths = rings.map((r) => Array.from({ length: r.length / 2 }, (_, i) => ({ x: r[2 * i], y: r[2 * i + 1] })));
  return Clipper.booleanOpD(ClipType.Union, paths, null, FillRule.NonZero, PRECISION)
    .filter((p) => p.length >= 3)
    .map((p) => Float64Array.from(p.flatMap((q) => [q.x, q.y])));
}
