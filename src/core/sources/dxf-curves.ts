import type { IEntity } from 'dxf-parser';

export interface Point {
  x: number;
  y: number;
}
export type Line = Point[];
export type Loose = IEntity & Record<string, unknown>;

/** An arc about a centre from one angle to another, counter-clockwise, in chords that lie within `tolerance` of it. */
function arc(c: Point, r: number, from: number, to: number, tolerance: number): Line {
  let sweep = to - from;
  while (sweep <= 0) sweep += 2 * Math.PI;
  const n = Math.max(2, Math.ceil(sweep / (2 * Math.acos(1 - Math.min(0.5, tolerance / Math.max(r, tolerance))))));
  return Array.from({ length: n + 1 }, (_, i) => {
    const a = from + (sweep * i) / n;
    return { x: c.x + r * Math.cos(a), y: c.y + r * Math.sin(a) };
  });
}

/** Between two corners of a polyline: a bulge is the tangent of a quarter of the arc's angle. */
function bulged(a: Point, b: Point, bulge: number, tolerance: number): Line {
  const chord = Math.hypot(b.x - a.x, b.y - a.y);
  if (!bulge || chord === 0) return [b];
  const angle = 4 * Math.atan(bulge);
  const r = chord / 2 / Math.sin(Math.abs(angle) / 2);
  const off = r * Math.cos(angle / 2) * Math.sign(bulge);
  const c = {
    x: (a.x + b.x) / 2 - ((b.y - a.y) / chord) * off,
    y: (a.y + b.y) / 2 + ((b.x - a.x) / chord) * off,
  };
  const [t0, t1] = [Math.atan2(a.y - c.y, a.x - c.x), Math.atan2(b.y - c.y, b.x - c.x)];
  const line = bulge > 0 ? arc(c, r, t0, t1, tolerance) : arc(c, r, t1, t0, tolerance).reverse();
  return [...line.slice(1, -1), b];
}

/** A B-spline by de Boor's algorithm (any text on splines). */
function spline(degree: number, knots: number[], control: Point[]): Line {
  const n = control.length;
  const [from, to] = [knots[degree], knots[n]];
  const steps = 24 * n;
  return Array.from({ length: steps + 1 }, (_, s) => {
    const t = from + ((to - from) * s) / steps;
    let span = degree;
    while (span < n - 1 && knots[span + 1] <= t) span++;
    const d = control.slice(span - degree, span + 1).map((p) => ({ ...p }));
    for (let r = 1; r <= degree; r++) {
      for (let j = degree; j >= r; j--) {
        const i = span - degree + j;
        const wide = knots[i + degree - r + 1] - knots[i];
        const a = wide > 0 ? (t - knots[i]) / wide : 0;
        d[j] = { x: (1 - a) * d[j - 1].x + a * d[j].x, y: (1 - a) * d[j - 1].y + a * d[j].y };
      }
    }
    return d[degree];
  });
}

/** The line of an entity in the drawing's own units, curves in chords within `tolerance` of them; null for one that draws none. */
export function lineOf(e: Loose, tolerance: number): Line | null {
  switch (e.type) {
    case 'LINE':
      return (e.vertices as Point[]).slice(0, 2);
    case 'LWPOLYLINE':
    case 'POLYLINE': {
      const v = e.vertices as (Point & { bulge?: number })[];
      if (v.length < 2) return null;
      const out: Line = [v[0]];
      const last = e.shape ? v.length : v.length - 1;
      for (let i = 0; i < last; i++) out.push(...bulged(v[i], v[(i + 1) % v.length], v[i].bulge ?? 0, tolerance));
      return out;
    }
    case 'CIRCLE': {
      const line = arc(e.center as Point, e.radius as number, 0, 2 * Math.PI, tolerance);
      line[line.length - 1] = line[0];
      return line;
    }
    case 'ARC':
      return arc(e.center as Point, e.radius as number, e.startAngle as number, e.endAngle as number, tolerance);
    case 'ELLIPSE': {
      const c = e.center as Point;
      const m = e.majorAxisEndPoint as Point;
      const ratio = e.axisRatio as number;
      const own = tolerance / Math.max(Math.hypot(m.x, m.y), 1e-12);
      const unit = arc({ x: 0, y: 0 }, 1, e.startAngle as number, e.endAngle as number, own);
      return unit.map((p) => ({ x: c.x + p.x * m.x - p.y * ratio * m.y, y: c.y + p.x * m.y + p.y * ratio * m.x }));
    }
    case 'SPLINE': {
      const control = e.controlPoints as Point[] | undefined;
      const knots = e.knotValues as number[] | undefined;
      const degree = e.degreeOfSplineCurve as number;
      if (!control || !knots || knots.length < control.length + degree + 1) return (e.fitPoints as Point[]) ?? null;
      return spline(degree, knots, control);
    }
    default:
      return null;
  }
}

/** Lines whose ends are nearer than `touch`, joined into longer ones. */
export function joinLines(lines: Line[], touch: number): Line[] {
  const key = (p: Point) => `${Math.round(p.x / touch)},${Math.round(p.y / touch)}`;
  const ends = new Map<string, Set<Line>>();
  const both = (l: Line) => [key(l[0]), key(l[l.length - 1])];
  for (const l of lines)
    for (const k of both(l)) {
      const list = ends.get(k) ?? new Set();
      list.add(l);
      ends.set(k, list);
    }
  const left = new Set(lines);
  const take = (l: Line) => {
    left.delete(l);
    for (const k of both(l)) ends.get(k)?.delete(l);
  };
  /** Follows lines from the end of one as far as they go. */
  const follow = (line: Line): Line => {
    for (;;) {
      const tip = key(line[line.length - 1]);
      if (line.length > 2 && tip === key(line[0])) return line;
      const [next] = ends.get(tip) ?? [];
      if (!next) return line;
      take(next);
      const onward = key(next[0]) === tip ? next : [...next].reverse();
      for (let i = 1; i < onward.length; i++) line.push(onward[i]);
    }
  };
  const out: Line[] = [];
  for (const start of lines) {
    if (!left.has(start)) continue;
    take(start);
    out.push(follow(follow([...start]).reverse()));
  }
  return out;
}
