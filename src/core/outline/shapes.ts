import { z } from '../units/zod';
import { flattenLines, flattenPath, type PathStep, readSvgPath, ringLengths } from './flatten';
import { fitPolygon, type Polygon, polygonBounds, type Ring } from './polygon';
import { strokeLines } from './union';

const positive = z.number().finite().positive();

/** Path data in which something is found, or the words for that there is nothing. */
const pathText = (find: (steps: PathStep[]) => unknown[], nothing: string) =>
  z
    .string()
    .min(1)
    .max(100_000)
    .superRefine((d, ctx) => {
      try {
        if (find(readSvgPath(d)).length > 0) return;
        ctx.addIssue({ code: 'custom', message: nothing });
      } catch (e) {
        ctx.addIssue({ code: 'custom', message: (e as Error).message });
      }
    });
const strokesData = pathText(
  (steps) => flattenLines(steps, 1),
  'the path draws nothing; such as "M 0 0 C 20 -10 40 10 60 0"',
);
const outlineData = pathText(
  (steps) => flattenPath(steps, 1),
  'the path encloses nothing; close it, such as "M 0 0 H 10 V 10 Z"',
);

/** The outlines that are made here; their size is the layer's. Lengths in mm. */
export const outlineSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('rectangle') }),
  z.object({ kind: z.literal('rounded'), radius: positive.max(2000) }),
  z.object({ kind: z.literal('oval') }),
  z.object({ kind: z.literal('circle') }),
  z.object({ kind: z.literal('arch') }),
  /** Lobes all around, bulging outwards. */
  z.object({ kind: z.literal('scalloped'), lobes: z.number().int().min(3).max(200) }),
  z.object({ kind: z.literal('cartouche') }),
  /** A regular polygon with a corner at the top. */
  z.object({ kind: z.literal('polygon'), sides: z.number().int().min(3).max(60) }),
  /** SVG path data drawn with a round pen of a width; the lines are stretched so that all of it has the layer's size. */
  z.object({ kind: z.literal('strokes'), d: strokesData, width: positive.max(500) }),
  /** SVG path data, stretched to the layer's size. */
  z.object({ kind: z.literal('path'), d: outlineData }),
]);
export type Outline = z.infer<typeof outlineSchema>;

/** What is done to an outline's edge. */
export const edgeSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('plain') }),
  /** As a board that keeps the line of the tree: up to `depth` mm inwards, waves of about `length` mm. */
  z.object({
    kind: z.literal('waney'),
    depth: positive.max(200),
    length: positive.max(1000),
    seed: z.number().int().min(0).max(9999),
  }),
  /** The same notch all around. */
  z.object({
    kind: z.literal('notched'),
    count: z.number().int().min(1).max(500),
    width: positive.max(500),
    depth: positive.max(200),
  }),
]);
export type Edge = z.infer<typeof edgeSchema>;

/** Furthest that a curve's segments lie from it, mm. */
export const CURVE_TOLERANCE = 0.01;

/** An ellipse as a ring whose corners lie on it exactly. */
function ovalRing(rx: number, ry: number): Ring {
  const r = Math.max(rx, ry);
  const n = Math.max(24, Math.ceil(Math.PI / Math.acos(1 - Math.min(0.5, CURVE_TOLERANCE / r))));
  const out = new Float64Array(2 * n);
  for (let i = 0; i < n; i++) {
    out[2 * i] = rx * Math.cos((2 * Math.PI * i) / n);
    out[2 * i + 1] = ry * Math.sin((2 * Math.PI * i) / n);
  }
  return out;
}

/** An ellipse's middle and radii. */
interface Ellipse {
  cx: number;
  cy: number;
  rx: number;
  ry: number;
}

function arcPoints(out: number[], { cx, cy, rx, ry }: Ellipse, from: number, to: number): void {
  const r = Math.max(rx, ry);
  const n = Math.max(
    2,
    Math.ceil(Math.abs(to - from) / (2 * Math.acos(1 - Math.min(0.5, CURVE_TOLERANCE / Math.max(r, 1e-6))))),
  );
  for (let i = 0; i <= n; i++) {
    const t = from + ((to - from) * i) / n;
    out.push(cx + rx * Math.cos(t), cy + ry * Math.sin(t));
  }
}

function roundedRing(x: number, y: number, radius: number): Ring {
  const r = Math.min(radius, x / 2, y / 2);
  const [a, b] = [x / 2 - r, y / 2 - r];
  const out: number[] = [];
  const q = Math.PI / 2;
  arcPoints(out, { cx: a, cy: b, rx: r, ry: r }, 0, q);
  arcPoints(out, { cx: -a, cy: b, rx: r, ry: r }, q, 2 * q);
  arcPoints(out, { cx: -a, cy: -b, rx: r, ry: r }, 2 * q, 3 * q);
  arcPoints(out, { cx: a, cy: -b, rx: r, ry: r }, 3 * q, 4 * q);
  return Float64Array.from(out);
}

/** Round-headed: a rectangle under half an ellipse no higher than half its width. */
function archRing(x: number, y: number): Ring {
  const rise = Math.min(x / 2, y);
  const out = [-x / 2, -y / 2, x / 2, -y / 2];
  arcPoints(out, { cx: 0, cy: y / 2 - rise, rx: x / 2, ry: rise }, 0, Math.PI);
  return Float64Array.from(out);
}

/** Lobes between points spread evenly along an inner ellipse; each a half circle's share over its chord. */
function scallopedRing(x: number, y: number, lobes: number): Ring {
  const inner = ovalRing(x / 2, y / 2);
  const { at, total } = ringLengths(inner);
  const point = (s: number): [number, number] => {
    let i = 0;
    while (i + 1 < at.length && at[i + 1] <= s) i++;
    const q = (i + 1) % at.length;
    const end = i + 1 < at.length ? at[i + 1] : total;
    const t = end > at[i] ? (s - at[i]) / (end - at[i]) : 0;
    return [
      inner[2 * i] + t * (inner[2 * q] - inner[2 * i]),
      inner[2 * i + 1] + t * (inner[2 * q + 1] - inner[2 * i + 1]),
    ];
  };
  const out: number[] = [];
  for (let l = 0; l < lobes; l++) {
    const [ax, ay] = point((total * l) / lobes);
    const [bx, by] = point((total * (l + 1)) / lobes);
    const half = Math.hypot(bx - ax, by - ay) / 2;
    // The ring runs counter-clockwise, so that the way out lies at its right hand.
    const [ux, uy] = [(bx - ax) / (2 * half), (by - ay) / (2 * half)];
    const n = Math.max(6, Math.ceil(Math.PI / (2 * Math.acos(1 - Math.min(0.5, CURVE_TOLERANCE / half)))));
    for (let i = 0; i < n; i++) {
      const t = (Math.PI * i) / n;
      const along = half * (1 - Math.cos(t));
      const away = 0.7 * half * Math.sin(t);
      out.push(ax + ux * along + uy * away, ay + uy * along - ux * away);
    }
  }
  return Float64Array.from(out);
}

/** A shield of scrolls: straight on the sides, a keel above and below, hollowed shoulders. Unit box. */
const CARTOUCHE: PathStep[] = [
  ['M', 0.5, -0.14],
  ['C', 0.44, -0.08, 0.44, 0.08, 0.5, 0.14],
  ['C', 0.5, 0.3, 0.4, 0.34, 0.33, 0.34],
  ['C', 0.3, 0.42, 0.22, 0.44, 0.16, 0.4],
  ['C', 0.1, 0.42, 0.06, 0.5, 0, 0.5],
  ['C', -0.06, 0.5, -0.1, 0.42, -0.16, 0.4],
  ['C', -0.22, 0.44, -0.3, 0.42, -0.33, 0.34],
  ['C', -0.4, 0.34, -0.5, 0.3, -0.5, 0.14],
  ['C', -0.44, 0.08, -0.44, -0.08, -0.5, -0.14],
  ['C', -0.5, -0.3, -0.4, -0.34, -0.33, -0.34],
  ['C', -0.3, -0.42, -0.22, -0.44, -0.16, -0.4],
  ['C', -0.1, -0.42, -0.06, -0.5, 0, -0.5],
  ['C', 0.06, -0.5, 0.1, -0.42, 0.16, -0.4],
  ['C', 0.22, -0.44, 0.3, -0.42, 0.33, -0.34],
  ['C', 0.4, -0.34, 0.5, -0.3, 0.5, -0.14],
  ['Z'],
];

/** A regular polygon in a circle of radius 1, a corner at the top. */
function regularRing(sides: number): Ring {
  return Float64Array.from(
    Array.from({ length: sides }, (_, i) => {
      const a = Math.PI / 2 + (2 * Math.PI * i) / sides;
      return [Math.cos(a), Math.sin(a)];
    }).flat(),
  );
}

/** Lines stretched so that the pen's width around them fills x by y mm; a straight line keeps to its middle. */
function strokesPolygon(d: string, width: number, x: number, y: number): Polygon {
  const steps = readSvgPath(d);
  const rough = polygonBounds(flattenLines(steps, 1).map((l) => l.points));
  const [w, h] = [rough.x1 - rough.x0, rough.y1 - rough.y0];
  const k = Math.max(x / Math.max(w, 1e-9), y / Math.max(h, 1e-9), 1e-9);
  const lines = flattenLines(steps, CURVE_TOLERANCE / Math.min(k, 1e6));
  const b = polygonBounds(lines.map((l) => l.points));
  const scale = (long: number, to: number) => (long > 1e-9 ? Math.max(0, to - width) / long : 0);
  const [sx, sy] = [scale(b.x1 - b.x0, x), scale(b.y1 - b.y0, y)];
  const placed = lines.map((l) => ({
    closed: l.closed,
    points: l.points.map((v, i) => (i % 2 === 0 ? (v - (b.x0 + b.x1) / 2) * sx : (v - (b.y0 + b.y1) / 2) * sy)),
  }));
  return strokeLines(placed, width, CURVE_TOLERANCE / 2);
}

/** An outline as a polygon of `x` by `y` mm around 0, 0, its curves within CURVE_TOLERANCE. */
export function outlinePolygon(o: Outline, x: number, y: number): Polygon {
  switch (o.kind) {
    case 'rectangle':
      return [Float64Array.of(x / 2, y / 2, -x / 2, y / 2, -x / 2, -y / 2, x / 2, -y / 2)];
    case 'rounded':
      return [roundedRing(x, y, o.radius)];
    case 'oval':
      return [ovalRing(x / 2, y / 2)];
    case 'circle':
      return [ovalRing(Math.min(x, y) / 2, Math.min(x, y) / 2)];
    case 'arch':
      return [archRing(x, y)];
    case 'scalloped':
      return fitPolygon([scallopedRing(x, y, o.lobes)], x, y);
    case 'cartouche':
      return fitPolygon(flattenPath(CARTOUCHE, CURVE_TOLERANCE / Math.max(x, y)), x, y);
    case 'polygon':
      return fitPolygon([regularRing(o.sides)], x, y);
    case 'strokes':
      return strokesPolygon(o.d, o.width, x, y);
    case 'path': {
      const steps = readSvgPath(o.d);
      // Once to learn its size, then at the tolerance that it has when stretched.
      const rough = flattenPath(steps, 1);
      let [w, h] = [0, 0];
      for (const r of rough) {
        for (let i = 0; i < r.length; i += 2) {
          w = Math.max(w, Math.abs(r[i] - rough[0][0]));
          h = Math.max(h, Math.abs(r[i + 1] - rough[0][1]));
        }
      }
      const k = Math.max(x / Math.max(w, 1e-9), y / Math.max(h, 1e-9));
      return fitPolygon(flattenPath(steps, CURVE_TOLERANCE / k), x, y);
    }
  }
}

/** Even numbers in 0..1 from whole ones, the same on every machine (a 32-bit mix of Jenkins's family). */
export function hashNoise(n: number, seed: number): number {
  let h = Math.imul(n ^ 0x9e3779b9, 0x85ebca6b) ^ Math.imul(seed + 0x7f4a7c15, 0xc2b2ae35);
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return ((h ^ (h >>> 15)) >>> 0) / 2 ** 32;
}

/** How far inwards an edge moves its outline at `s` mm of a ring of `total`. */
function inset(e: Exclude<Edge, { kind: 'plain' }>, s: number, total: number): number {
  if (e.kind === 'notched') {
    const pitch = total / e.count;
    const u = Math.abs((s % pitch) - pitch / 2) / (Math.min(e.width, pitch) / 2);
    return u >= 1 ? 0 : (e.depth * (1 + Math.cos(Math.PI * u))) / 2;
  }
  const waves = Math.max(2, Math.round(total / e.length));
  const wave = (n: number, seed: number) => {
    const u = (s / total) * n;
    const i = Math.floor(u);
    const f = u - i;
    const t = f * f * (3 - 2 * f);
    return hashNoise(i % n, seed) * (1 - t) + hashNoise((i + 1) % n, seed) * t;
  };
  return e.depth * (0.75 * wave(waves, e.seed) + 0.25 * wave(3 * waves, e.seed + 1));
}

/** The polygon with its outer rings' edges worked: each ring is walked in steps and moved inwards. */
export function workEdge(p: Polygon, e: Edge): Polygon {
  if (e.kind === 'plain') return p;
  return p.map((ring) => {
    const { at, total } = ringLengths(ring);
    let area = 0;
    for (let i = 0, q = ring.length - 2; i < ring.length; q = i, i += 2)
      area += ring[q] * ring[i + 1] - ring[i] * ring[q + 1];
    const turn = area >= 0 ? 1 : -1;
    const step = Math.max(0.05, Math.min(0.5, (e.kind === 'notched' ? e.width : e.length) / 24));
    const n = Math.max(12, Math.ceil(total / step));
    const out = new Float64Array(2 * n);
    let i = 0;
    for (let k = 0; k < n; k++) {
      const s = (total * k) / n;
      while (i + 1 < at.length && at[i + 1] <= s) i++;
      const q = (i + 1) % at.length;
      const end = i + 1 < at.length ? at[i + 1] : total;
      const dx = ring[2 * q] - ring[2 * i];
      const dy = ring[2 * q + 1] - ring[2 * i + 1];
      const len = Math.hypot(dx, dy) || 1;
      const t = end > at[i] ? (s - at[i]) / (end - at[i]) : 0;
      const d = turn * inset(e, s, total);
      out[2 * k] = ring[2 * i] + t * dx - (dy / len) * d;
      out[2 * k + 1] = ring[2 * i + 1] + t * dy + (dx / len) * d;
    }
    return out;
  });
}
