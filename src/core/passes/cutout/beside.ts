import { crossings, type Polygon, type Ring } from '../../outline/polygon';
import { offsetPolygon } from '../../outline/union';

/** Waste beside a cut that is narrower than this holds no tab, mm. */
const NARROW = 0.5;
/** Furthest that the cut's outer edge lies from a true arc, mm. */
const ARC = 0.05;

/** Whether a place lies within one of the rings that go round something; what lies in their holes counts as within. */
function within(outer: Ring[], x: number, y: number): boolean {
  return outer.some((r) => crossings([r], y).filter((c) => c <= x).length % 2 === 1);
}

const outerOf = (p: Polygon): Ring[] =>
  p.filter((r) => {
    let twice = 0;
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) twice += r[q] * r[i + 1] - r[i] * r[q + 1];
    return twice > 0;
  });

/**
 * What a tab stands on beside a cut around an outline: whether the waste that lies just beyond the cut, on the far side of a place of its line, goes on
 * to the board's frame. Slivers that the cut frees between turns of an outline hold nothing; the slug within a hole is held by its tab itself.
 * @param outline the piece's, its inside at the left, mm
 * @param width of the cut, mm
 */
export function besideCut(
  outline: Polygon,
  width: number,
): (place: { x: number; y: number }, foot: readonly [number, number]) => boolean {
  const piece = outerOf(outline);
  const freed = outerOf(offsetPolygon(outline, width + NARROW, ARC));
  return ({ x, y }, [fx, fy]) => {
    const d = Math.hypot(x - fx, y - fy) || 1;
    const far = (width + 2 * NARROW) / d;
    const [bx, by] = [fx + (x - fx) * far, fy + (y - fy) * far];
    return within(piece, bx, by) || !within(freed, bx, by);
  };
}
