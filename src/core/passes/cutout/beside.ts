import { isInside, type Polygon } from '../../outline/polygon';
import { dropHoles, offsetPolygon } from '../../outline/union';

/** Waste beside a cut that is narrower than this holds no tab, mm. */
const NARROW = 0.5;
/** Furthest that the cut's outer edge lies from a true arc, mm. */
const ARC = 0.05;

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
  const piece = dropHoles(outline);
  const freed = dropHoles(offsetPolygon(outline, width + NARROW, ARC));
  return ({ x, y }, [fx, fy]) => {
    const d = Math.hypot(x - fx, y - fy) || 1;
    const far = (width + 2 * NARROW) / d;
    const [bx, by] = [fx + (x - fx) * far, fy + (y - fy) * far];
    return isInside(piece, bx, by) || !isInside(freed, bx, by);
  };
}
