import svgpath from 'svgpath';
import { flattenLines, readSvgPath } from '../outline/flatten';
import { polygonBounds } from '../outline/polygon';
import { MM_PER_INCH } from '../units/length';
import { SourceError } from './source-error';

/** Areas of a drawing, or its open lines of one width; mm. */
export interface DrawingPiece {
  /** SVG path data, y down. */
  d: string;
  /** Width of the pen that draws its lines, mm; null for areas. */
  pen: number | null;
  size: { x: number; y: number };
  /** Its middle from the drawing's, y up. */
  middle: { x: number; y: number };
}

/** A vector drawing. */
export interface Drawing {
  pieces: DrawingPiece[];
  size: { x: number; y: number };
  /** Whether the file says its unit. Where it does not, its numbers stand as mm until a person says what they are. */
  unitKnown: boolean;
}

/** What a reader has found in a file: path data, areas or lines of a width. */
export interface Drawn {
  d: string;
  pen: number | null;
}

/** Longest path data that is taken over, characters. */
const MOST = 100_000;

/** Pens that differ by less are one, mm. */
const PEN = 0.005;

/** Pen of lines of which no width is known, mm. */
const THIN = 1;

/** Most widths of lines that are kept apart. */
const PENS = 12;

/** Parts of a kind together: all areas, and all lines of a width, in the order in which they are first met. */
function together(parts: Drawn[]): Drawn[] {
  const groups: { pen: number | null; d: string[] }[] = [];
  for (const { d, pen } of parts) {
    const same = groups.find((g) =>
      pen === null || g.pen === null ? g.pen === pen : Math.abs(g.pen - pen) < PEN || groups.length >= PENS,
    );
    if (same) same.d.push(d);
    else groups.push({ pen, d: [d] });
  }
  return groups.map((g) => ({ pen: g.pen, d: g.d.join(' ') }));
}

/** A drawing of path data in mm, checked and measured. @throws SourceError naming the file */
export function makeDrawing(parts: Drawn[], unitKnown: boolean, file: string): Drawing {
  const length = parts.reduce((n, p) => n + p.d.length, 0);
  if (length > MOST)
    throw new SourceError(
      `${file}: its lines take ${length} characters, more than ${MOST}; leave some out, or simplify them`,
    );
  const found = together(parts).flatMap(({ d, pen }) => {
    const lines = flattenLines(readSvgPath(d), 0.05).filter((l) => pen !== null || l.points.length >= 6);
    if (lines.length === 0) return [];
    const b = polygonBounds(lines.map((l) => l.points));
    const wide = (pen ?? 0) / 2;
    return [{ d, pen, x0: b.x0 - wide, x1: b.x1 + wide, y0: b.y0 - wide, y1: b.y1 + wide }];
  });
  if (found.length === 0) throw new SourceError(`${file}: there are no lines in it; choose another drawing`);
  const [x0, x1] = [Math.min(...found.map((f) => f.x0)), Math.max(...found.map((f) => f.x1))];
  const [y0, y1] = [Math.min(...found.map((f) => f.y0)), Math.max(...found.map((f) => f.y1))];
  const size = { x: x1 - x0, y: y1 - y0 };
  if (!(size.x > 0 && size.y > 0))
    throw new SourceError(`${file}: measures ${size.x} x ${size.y} mm; a drawing needs both`);
  const pieces = found.map((f) => ({
    d: f.d,
    pen: f.pen,
    size: { x: f.x1 - f.x0, y: f.y1 - f.y0 },
    // Flattened points have y up already.
    middle: { x: (f.x0 + f.x1 - x0 - x1) / 2, y: (f.y0 + f.y1 - y0 - y1) / 2 },
  }));
  return { pieces, size, unitKnown };
}

/** Width of lines that are drawn with a pen of none that is known, mm. */
export const penOf = (known: number): number => (known > 0 ? known : THIN);

/** A drawing whose numbers were inches. Lines of which no width was known keep theirs. */
export function inInches(drawing: Drawing): Drawing {
  const k = MM_PER_INCH;
  const times = (p: { x: number; y: number }) => ({ x: p.x * k, y: p.y * k });
  return {
    unitKnown: true,
    size: times(drawing.size),
    pieces: drawing.pieces.map((p) => ({
      d: svgpath(p.d).scale(k).round(4).toString(),
      pen: p.pen === null || p.pen === THIN ? p.pen : p.pen * k,
      size: times(p.size),
      middle: times(p.middle),
    })),
  };
}
