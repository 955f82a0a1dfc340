import type { Layer } from '@/core/doc/layer';
import { AIR } from '@/core/field/height-field';
import type { SelectedSection } from './looks';

/** Size of the drawing and what is kept free around the section, pixels. */
export const DRAWING = { width: 274, height: 150, side: 18, top: 14, bottom: 22 };

/** Heights are drawn at most so many times as high as they are wide. */
const MOST_TALL = 8;

/** How a section lies in its drawing. */
export interface Scale {
  /** Pixels per mm along the section and in height. */
  across: number;
  tall: number;
  x(s: number): number;
  y(z: number): number;
}

/** The scale at which a section, and all that is marked in it, fits its drawing. */
export function scaleOf(section: SelectedSection, marks: number[]): Scale {
  const { width, height, side, top, bottom } = DRAWING;
  let [low, high] = [Math.min(0, ...marks), Math.max(1, ...marks)];
  for (const heights of [section.beneath, section.withThem, section.end]) {
    for (const v of heights) {
      if (v < low) low = v;
      if (v > high) high = v;
    }
  }
  const across = (width - 2 * side) / Math.max(section.length, 1e-6);
  const tall = Math.min((height - top - bottom) / (high - low), MOST_TALL * across);
  // What is flat lies in the middle of the drawing.
  const free = height - top - bottom - tall * (high - low);
  return { across, tall, x: (s) => side + s * across, y: (z) => top + free / 2 + (high - z) * tall };
}

/** Where the handles of one layer's section stand: distances along it, mm, and heights over the base plane, mm. */
export interface Marks {
  /** The layer's own ends along the section, and its foot at its low one. */
  from: number;
  to: number;
  foot: number;
  /** Its highest place, and its height there. */
  topAt: number;
  top: number;
  /** The foot at its far end as it would be without its slope, and with it. */
  level: number;
  leant: number;
  /** 1 where its heights go up, -1 where it digs. */
  way: 1 | -1;
}

/** Where a layer stands in its section. @param half half its size along the section, mm */
export function marksOf(
  { own, beneath, length }: SelectedSection,
  l: { join: string; lift: number; rise: number; slope: number },
  half: number,
): Marks {
  const way = l.join === 'carve' ? -1 : 1;
  const onGround = l.join === 'carve' || l.join === 'stack';
  const n = own.length;
  const cell = (s: number) => Math.min(n - 1, Math.max(0, Math.round((s / length) * (n - 1))));
  const footAt = (s: number) => (onGround ? beneath[cell(s)] : 0) + way * l.lift;
  let best = -1;
  for (let k = 0; k < n; k++) if (own[k] !== AIR && (best < 0 || own[k] > own[best])) best = k;
  const topAt = best < 0 ? length / 2 : (best / (n - 1)) * length;
  const [from, to] = [length / 2 - half, length / 2 + half];
  const lean = Math.tan((l.slope * Math.PI) / 180) * half;
  return {
    from,
    to,
    foot: footAt(from),
    topAt,
    top: footAt(topAt) + way * (best < 0 ? l.rise : own[best]),
    level: footAt(to),
    leant: footAt(to) + way * lean,
    way,
  };
}

/** Where several layers stand in their section together: where they change the ground, most of all at their top. */
export function marksTogether({ beneath, withThem, length }: SelectedSection, some: Layer[]): Marks {
  const n = beneath.length;
  const change = (k: number) => Math.abs(withThem[k] - beneath[k]);
  let [first, last, best] = [-1, -1, 0];
  for (let k = 0; k < n; k++) {
    if (change(k) < 1e-3) continue;
    if (first < 0) first = k;
    last = k;
    if (change(k) > change(best)) best = k;
  }
  const at = (k: number) => (k / (n - 1)) * length;
  const [a, b] = first < 0 ? [0, n - 1] : [first, last];
  const lift = Math.min(...some.map((l) => l.lift));
  const way = some.every((l) => l.join === 'carve') ? -1 : 1;
  return {
    from: at(a),
    to: at(b),
    foot: beneath[a] + way * lift,
    topAt: at(best),
    top: withThem[best],
    level: beneath[b],
    leant: beneath[b],
    way,
  };
}
