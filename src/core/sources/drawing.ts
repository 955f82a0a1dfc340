import { flattenLines, readSvgPath } from '../outline/flatten';
import { polygonBounds } from '../outline/polygon';
import { SourceError } from './source-error';

/** Lines of a vector drawing, in mm. */
export interface Drawing {
  /** SVG path data, y down. */
  d: string;
  /** Whether all of it are open lines, to be drawn with a pen, and how wide that is, mm. */
  pen: number | null;
  /** What it measures, mm. */
  size: { x: number; y: number };
}

/** Longest path data that is taken over, characters. */
const MOST = 100_000;

/** A drawing of path data in mm, checked and measured. @throws SourceError naming the file */
export function makeDrawing(d: string, pen: number | null, file: string): Drawing {
  if (d.length > MOST)
    throw new SourceError(
      `${file}: its lines take ${d.length} characters, more than ${MOST}; leave some out, or simplify them`,
    );
  const lines = flattenLines(readSvgPath(d), 0.05);
  if (lines.length === 0) throw new SourceError(`${file}: there are no lines in it; choose another drawing`);
  const open = lines.every((l) => !l.closed);
  const b = polygonBounds(lines.map((l) => l.points));
  const width = open ? (pen ?? 1) : 0;
  const size = { x: b.x1 - b.x0 + width, y: b.y1 - b.y0 + width };
  if (!(size.x > 0 && size.y > 0))
    throw new SourceError(`${file}: measures ${size.x} x ${size.y} mm; a drawing needs both`);
  return { d, pen: open ? width : null, size };
}
