import { type Layout, onScreen, type SectionLine } from '../board-view/layout';

/** The most and the least that heights are drawn taller than lengths. */
const TALLEST = 8;
const FLATTEST = 0.02;
/** As much more of heights than stands in view is left free above and below. */
const FREE = 0.12;
/** Left of a section that does not lie below its own place, pixels. */
const LEFT = 12;

interface Room {
  width: number;
  height: number;
}

/** Whether a section runs straight up the board. */
export const isAcross = ({ x0, y0, x1, y1 }: SectionLine): boolean => Math.abs(x1 - x0) < 0.02 * Math.abs(y1 - y0);

export const lengthOf = ({ x0, y0, x1, y1 }: SectionLine): number => Math.hypot(x1 - x0, y1 - y0);

/** The place on a line that lies a share of it from its start. */
export const placeOn = (s: SectionLine, t: number): { x: number; y: number } => ({
  x: s.x0 + (s.x1 - s.x0) * t,
  y: s.y0 + (s.y1 - s.y0) * t,
});

/** How far along a line the place nearest to another lies, as a share of it; null for a line without length. */
export function shareOn(s: SectionLine, p: { x: number; y: number }): number | null {
  const length = lengthOf(s);
  if (length === 0) return null;
  return ((p.x - s.x0) * (s.x1 - s.x0) + (p.y - s.y0) * (s.y1 - s.y0)) / length ** 2;
}

/** Whether a section runs so nearly along the board that it lies below its own place in the strip. */
const isBelow = (s: SectionLine): boolean => Math.abs(s.x1 - s.x0) >= 0.99 * lengthOf(s);

/** The shares of a section between which it is in view (Liang and Barsky 1984); null where none of it is. */
function inRoom(section: SectionLine, layout: Layout, bounds: [number, number][]): [number, number] | null {
  const { px, py } = onScreen(layout);
  const start = [px(section.x0), py(section.y0)];
  const way = [px(section.x1) - start[0], py(section.y1) - start[1]];
  let [from, to] = [0, 1];
  bounds.forEach(([low, high], k) => {
    for (const [p, q] of [
      [-way[k], start[k] - low],
      [way[k], high - start[k]],
    ]) {
      if (p < 0) from = Math.max(from, q / p);
      else if (p > 0) to = Math.min(to, q / p);
      else if (q < 0) to = -1;
    }
  });
  return from < to ? [from, to] : null;
}

/** Whether some of a section is in view. */
export const isInView = (section: SectionLine, layout: Layout, { width, height }: Room): boolean =>
  inRoom(section, layout, [
    [0, width],
    [0, height],
  ]) !== null;

/** The stretch of a section that is in view, or that lies above or below what is; all of it where none is. */
export function stretchInView(section: SectionLine, layout: Layout, { width, height }: Room): SectionLine {
  const stretch = inRoom(section, layout, [[0, width], isBelow(section) ? [-Infinity, Infinity] : [0, height]]);
  if (!stretch) return section;
  const [from, to] = stretch;
  const [a, b] = [placeOn(section, from), placeOn(section, to)];
  return { x0: a.x, y0: a.y, x1: b.x, y1: b.y };
}

/** Where a stretch of a section lies in the strip: below its own place on the board as long as it runs more across than up, from the left otherwise. */
export function stripAlong(s: SectionLine, layout: Layout, board: { x: number }) {
  const length = lengthOf(s);
  const below = isBelow(s);
  const { px } = onScreen(layout);
  const forward = !below || px(s.x1) >= px(s.x0);
  const left = below ? Math.min(px(s.x0), px(s.x1)) : Math.max(LEFT, Math.min(px(0), px(board.x)));
  const long = length * layout.scale;
  return {
    left,
    end: left + long,
    /** Pixels of a share of the way. */
    at: (t: number) => left + (forward ? t : 1 - t) * long,
    /** And back. */
    share: (pixel: number) => (forward ? (pixel - left) / long : 1 - (pixel - left) / long),
  };
}

/** The heights from one array to the next, highest and lowest. */
export function spanOfHeights(some: (ArrayLike<number> | null)[], floor: number): { top: number; low: number } {
  let [top, low] = [-Infinity, Infinity];
  for (const h of some) {
    if (!h) continue;
    for (let i = 0; i < h.length; i++) {
      const z = Math.max(floor, h[i]);
      if (z > top) top = z;
      if (z < low) low = z;
    }
  }
  return top >= low ? { top, low } : { top: 0, low: floor };
}

/** How heights are drawn: from `top` down, `tall` times as tall as lengths, as far as there is room. */
export function stripTall(span: { top: number; low: number }, scale: number, room: number, free: boolean) {
  const more = free ? FREE * Math.max(span.top - span.low, 0.5) : 0;
  const [top, low] = [span.top + more, span.low - more];
  const tall = Math.min(TALLEST, Math.max(FLATTEST, room / ((top - low) * scale)));
  return { top, tall, v: tall * scale };
}

/** Round heights that are told beside the strip, so far apart that their figures do not touch. */
export function heightMarks(top: number, low: number, v: number, unit: number, apart: number): number[] {
  const least = apart / v / unit;
  const ten = 10 ** Math.floor(Math.log10(least));
  const step = ([1, 2, 5].find((n) => n * ten >= least) ?? 10) * ten * unit;
  const out: number[] = [];
  for (let k = Math.ceil(low / step - 1e-9); k * step <= top + 1e-9 * step; k++) out.push(k * step);
  return out;
}
