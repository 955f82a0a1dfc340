import { ringArea } from '../../field/contours';
import { type Polygon, polygonBounds } from '../../outline/polygon';
import { joinPolygons, offsetPolygon } from '../../outline/union';

/** An inside corner that a bit cannot enter. */
export interface TightCorner {
  x: number;
  y: number;
  /** Area that stays uncut there, mm2. */
  area: number;
  /** Diameter of the largest bit that goes in, mm; 0 for a corner so sharp that none does. */
  most: number;
}

const ARC = 0.002;
/** Less than this left standing counts as nothing, mm2: a sharp corner by a bit 0.43 mm across. */
const NOTHING = 0.01;
/** Bits smaller than this do not count, mm. */
const LEAST = 0.6;
const MOST_CORNERS = 24;

/** What a bit of radius r leaves standing along an outline that it cuts on its outside (or inside). */
function leftBy(outline: Polygon, inside: boolean, r: number): Polygon {
  return inside
    ? joinPolygons('difference', outline, offsetPolygon(offsetPolygon(outline, -r, ARC), r, ARC))
    : joinPolygons('difference', offsetPolygon(offsetPolygon(outline, r, ARC), -r, ARC), outline);
}

/** Area of the rings that touch a box grown by `by` mm. */
function areaIn(p: Polygon, box: { x0: number; y0: number; x1: number; y1: number }, by: number): number {
  let sum = 0;
  for (const r of p) {
    const b = polygonBounds([r]);
    if (b.x1 < box.x0 - by || b.x0 > box.x1 + by || b.y1 < box.y0 - by || b.y0 > box.y1 + by) continue;
    sum += Math.abs(ringArea(r));
  }
  return sum;
}

/**
 * The inside corners along an outline that a bit does not enter: what closing the outline by the bit's radius fills. The largest
 * bit that leaves nothing there is found by halving.
 * @param outline rings with their inside at the left, mm
 * @param inside whether the bit runs inside of it
 * @param r the bit's radius, mm
 */
export function tightCorners(outline: Polygon, inside: boolean, r: number): TightCorner[] {
  const left = leftBy(outline, inside, r).filter((p) => ringArea(p) > NOTHING);
  left.sort((a, b) => ringArea(b) - ringArea(a));
  return left.slice(0, MOST_CORNERS).map((ring) => {
    const box = polygonBounds([ring]);
    let good = 0;
    let bad = r;
    while (bad - good > 0.02) {
      const m = (good + bad) / 2;
      if (areaIn(leftBy(outline, inside, m), box, 0) < NOTHING) good = m;
      else bad = m;
    }
    return {
      x: (box.x0 + box.x1) / 2,
      y: (box.y0 + box.y1) / 2,
      area: ringArea(ring),
      most: 2 * good >= LEAST ? 2 * good : 0,
    };
  });
}
