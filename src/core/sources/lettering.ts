import * as module from 'opentype.js';
import type { Words } from '../doc/words';
import { flattenPath, type PathStep } from '../outline/flatten';
import { type Bounds, type Polygon, polygonBounds } from '../outline/polygon';
import { CURVE_TOLERANCE } from '../outline/shapes';
import { alongStroke, readStroke, type Stroke } from '../outline/stroke';
import { unionRings } from '../outline/union';
import { SourceError } from './source-error';

// Node sees the package as CommonJS, whose names lie under `default`; bundlers see its own names.
const opentype = ((module as { default?: typeof module }).default ?? module) as typeof module;

export type Font = module.Font;

/** Largest font that is read, bytes. */
const MAX_FONT = 40e6;

/** Reads a TTF, OTF or WOFF font. @throws SourceError for what is none, or has no outlines */
export function readFont(bytes: Uint8Array, file: string): Font {
  if (bytes.length > MAX_FONT)
    throw new SourceError(
      `${file}: has ${(bytes.length / 1e6).toFixed(0)} MB, more than ${MAX_FONT / 1e6} for a font; choose one of fewer letters`,
    );
  let font: Font;
  try {
    font = opentype.parse(bytes.slice().buffer as ArrayBuffer);
  } catch {
    throw new SourceError(`${file}: begins like a font but cannot be read as TTF, OTF or WOFF; choose another`);
  }
  let drawn = 0;
  for (let i = 0; i < Math.min(font.glyphs.length, 400) && drawn === 0; i++) {
    drawn += font.glyphs.get(i).getPath(0, 0, 100).commands.length;
  }
  if (drawn === 0) throw new SourceError(`${file}: has no outlines, only pictures of letters; choose another font`);
  return font;
}

/** Height of a capital as a share of the font's em: from its table, or measured on an H. */
export function capitalShare(font: Font): number {
  const told = (font.tables.os2 as { sCapHeight?: number } | undefined)?.sCapHeight;
  if (told && told > 0) return told / font.unitsPerEm;
  const box = font.charToGlyph('H').getBoundingBox();
  return box.y2 > 0 ? box.y2 / font.unitsPerEm : 0.7;
}

export interface LaidWords {
  /** One clean polygon, its bounds around 0, 0. */
  polygon: Polygon;
  size: { x: number; y: number };
  /** Where the layout's own origin (line's start, arc's middle) lies from the middle of the bounds, mm. */
  origin: { x: number; y: number };
  /** Letters that the font does not have. */
  missing: string[];
}

interface Placed {
  glyph: module.Glyph;
  /** Left of the letter on its line, and half its advance, mm. */
  x: number;
  half: number;
}

/**
 * The letters of one line, from x = 0, with kerning, spacing and nudges; `first` is its first letter's place in the text. Every
 * letter stays one of its own: ligatures would fill the spaces that are set by hand.
 */
function setLine(
  w: Words,
  font: Font,
  line: string[],
  first: number,
): { letters: Placed[]; width: number; em: number } {
  const em = w.height / capitalShare(font);
  const k = (em * w.stretch) / font.unitsPerEm;
  const letters: Placed[] = [];
  let x = 0;
  let width = 0;
  let before: module.Glyph | null = null;
  line.forEach((c, n) => {
    const glyph = font.charToGlyph(c);
    if (before && w.kerning) x += font.getKerningValue(before, glyph) * k;
    x += (w.nudges[String(first + n)] ?? 0) + (n > 0 ? w.spacing : 0);
    const advance = (glyph.advanceWidth ?? 0) * k;
    letters.push({ glyph, x, half: advance / 2 });
    x += advance;
    width = x;
    before = glyph;
  });
  return { letters, width, em };
}

/** Where a letter whose middle is `s` mm along stands: a point of the line and the way it runs there. */
type Track = (s: number, up: number) => { x: number; y: number; c: number; n: number };

function trackOf(w: Words): { track: Track; length: number | null } {
  if (w.line.kind === 'straight') return { track: (s, up) => ({ x: s, y: up, c: 1, n: 0 }), length: null };
  if (w.line.kind === 'arc') {
    const { radius, under } = w.line;
    const track: Track = (s, up) => {
      if (under) {
        // Read from the outside left to right along the lower half: the letters' heads look to the middle.
        const r = Math.max(0.1, radius - up);
        const a = -Math.PI / 2 + s / radius;
        return { x: r * Math.cos(a), y: r * Math.sin(a), c: -Math.sin(a), n: Math.cos(a) };
      }
      const r = radius + up;
      const a = Math.PI / 2 - s / radius;
      return { x: r * Math.cos(a), y: r * Math.sin(a), c: Math.sin(a), n: -Math.cos(a) };
    };
    return { track, length: null };
  }
  const stroke = curveOf(w.line.d);
  const track: Track = (s, up) => {
    const p = alongStroke(stroke, s);
    return { ...p, x: p.x - p.n * up, y: p.y + p.c * up };
  };
  return { track, length: stroke.total };
}

function curveOf(d: string): Stroke {
  try {
    return readStroke(d, CURVE_TOLERANCE);
  } catch (e) {
    throw new SourceError(`the words' curve: ${(e as Error).message}`);
  }
}

/**
 * Sets words: every letter's outline on its line, arc or curve, all joined into one polygon. Curves of letters are within
 * CURVE_TOLERANCE.
 * @throws SourceError when no letter has an outline
 */
export function layWords(w: Words, font: Font): LaidWords {
  const rings: Polygon = [];
  const missing = new Set<string>();
  const { track, length } = trackOf(w);
  let first = 0;
  w.text.split('\n').forEach((text, row) => {
    const line = [...text];
    const { letters, width, em } = setLine(w, font, line, first);
    first += line.length + 1;
    for (const c of line) if (font.charToGlyphIndex(c) === 0) missing.add(c);
    const up = -row * w.lineGap * w.height;
    let from = w.align === 'left' ? 0 : w.align === 'right' ? -width : -width / 2;
    if (length !== null) from = w.align === 'left' ? 0 : w.align === 'right' ? length - width : (length - width) / 2;
    for (const { glyph, x, half } of letters) {
      const p = track(from + x + half, up);
      const steps: PathStep[] = [];
      // Letters stand upright at their middle and are turned with the line there.
      const put = (gx: number, gy: number): [number, number] => {
        const [u, v] = [gx * w.stretch - half, -gy];
        return [p.x + u * p.c - v * p.n, p.y + u * p.n + v * p.c];
      };
      for (const c of glyph.getPath(0, 0, em).commands) {
        if (c.type === 'M' || c.type === 'L') steps.push([c.type, ...put(c.x, c.y)]);
        else if (c.type === 'Q') steps.push(['Q', ...put(c.x1, c.y1), ...put(c.x, c.y)]);
        else if (c.type === 'C') steps.push(['C', ...put(c.x1, c.y1), ...put(c.x2, c.y2), ...put(c.x, c.y)]);
        else steps.push(['Z']);
      }
      rings.push(...flattenPath(steps, CURVE_TOLERANCE));
    }
  });
  if (rings.length === 0)
    throw new SourceError(
      `"${w.text.slice(0, 40)}": ${w.fontName} has no outlines for these letters; choose another font`,
    );
  const polygon = unionRings(rings);
  const b: Bounds = polygonBounds(polygon);
  const [mx, my] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  for (const r of polygon) {
    for (let i = 0; i < r.length; i += 2) {
      r[i] -= mx;
      r[i + 1] -= my;
    }
  }
  return {
    polygon,
    size: { x: b.x1 - b.x0, y: b.y1 - b.y0 },
    origin: { x: -mx, y: -my },
    missing: [...missing],
  };
}
