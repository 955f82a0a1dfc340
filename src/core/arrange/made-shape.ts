import type { Drawn } from '../outline/flatten';
import { pathData } from '../outline/path-data';
import { type Polygon, polygonBounds } from '../outline/polygon';
import type { Outline } from '../outline/shapes';
import { clean } from '../units/round';

/** A shape's outline with its place on the board, mm. */
export interface MadeShape {
  outline: Outline;
  size: { x: number; y: number };
  centre: { x: number; y: number };
}

/** Lines and arcs of a made outline lie this near to its chords, mm: a little more than these lie off the curve itself. */
const TOLERANCE = 0.012;
/** Longest path data that a document takes, characters. */
const MOST = 100_000;

function placed(outline: Outline & { d: string }, points: Polygon, grow: number): MadeShape | null {
  const b = polygonBounds(points);
  if (outline.d.length > MOST)
    throw new RangeError(
      `the outline takes ${outline.d.length} characters, more than ${MOST}; smooth it more, or take fewer layers`,
    );
  const size = { x: clean(b.x1 - b.x0 + grow), y: clean(b.y1 - b.y0 + grow) };
  if (!(size.x > 0 && size.y > 0)) return null;
  return { outline, size, centre: { x: clean((b.x0 + b.x1) / 2), y: clean((b.y0 + b.y1) / 2) } };
}

/** A polygon on the board as a shape that can be a layer; null when nothing is left of it. @throws RangeError when it is too long */
export function shapeOf(polygon: Polygon): MadeShape | null {
  if (polygon.length === 0) return null;
  return placed({ kind: 'path', d: pathData(polygon, TOLERANCE, 0) }, polygon, 0);
}

/** Lines on the board as a shape drawn with a pen of a width, mm; null when there is none. @throws RangeError when they are too long */
export function strokesOf(lines: Drawn[], width: number): MadeShape | null {
  if (lines.length === 0) return null;
  const num = (v: number) => String(Number(v.toFixed(3)));
  const d = lines
    .map(({ points: p, closed }) => {
      const places = Array.from({ length: p.length / 2 }, (_, i) => `${num(p[2 * i])} ${num(-p[2 * i + 1])}`);
      return `M${places.join('L')}${closed ? 'Z' : ''}`;
    })
    .join('');
  return placed(
    { kind: 'strokes', d, width },
    lines.map((l) => l.points),
    width,
  );
}
