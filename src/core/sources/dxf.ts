import DxfParser, { type IDxf, type IEntity } from 'dxf-parser';
import { type Drawing, makeDrawing } from './drawing';
import { SourceError } from './source-error';

/** Drawing units of DXF ($INSUNITS) in mm, as far as boards are drawn in them. */
const UNITS: Record<number, number> = { 1: 25.4, 2: 304.8, 4: 1, 5: 10, 6: 1000 };
/** Chords of arcs and curves lie this near to them, mm. */
const CHORD = 0.005;
/** Ends of lines that are this near to each other are one place, mm. */
const TOUCH = 0.005;
/** Deepest that blocks may hold blocks. */
const DEEPEST = 8;

interface Point {
  x: number;
  y: number;
}
type Line = Point[];
type Loose = IEntity & Record<string, unknown>;

/** An arc about a centre from one angle to another, counter-clockwise, in chords. */
function arc(c: Point, r: number, from: number, to: number, k: number): Line {
  let sweep = to - from;
  while (sweep <= 0) sweep += 2 * Math.PI;
  const n = Math.max(2, Math.ceil(sweep / (2 * Math.acos(1 - Math.min(0.5, CHORD / Math.max(r * k, CHORD))))));
  return Array.from({ length: n + 1 }, (_, i) => {
    const a = from + (sweep * i) / n;
    return { x: c.x + r * Math.cos(a), y: c.y + r * Math.sin(a) };
  });
}

/** Between two corners of a polyline: a bulge is the tangent of a quarter of the arc's angle. */
function bulged(a: Point, b: Point, bulge: number, k: number): Line {
  if (!bulge) return [b];
  const angle = 4 * Math.atan(bulge);
  const chord = Math.hypot(b.x - a.x, b.y - a.y);
  const r = chord / 2 / Math.sin(Math.abs(angle) / 2);
  const off = r * Math.cos(angle / 2) * Math.sign(bulge);
  const c = {
    x: (a.x + b.x) / 2 - ((b.y - a.y) / chord) * off,
    y: (a.y + b.y) / 2 + ((b.x - a.x) / chord) * off,
  };
  const [t0, t1] = [Math.atan2(a.y - c.y, a.x - c.x), Math.atan2(b.y - c.y, b.x - c.x)];
  const line = bulge > 0 ? arc(c, r, t0, t1, k) : arc(c, r, t1, t0, k).reverse();
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

/** The lines of an entity; null for one that draws none. */
function linesOf(e: Loose, k: number): Line | null {
  switch (e.type) {
    case 'LINE':
      return (e.vertices as Point[]).slice(0, 2);
    case 'LWPOLYLINE':
    case 'POLYLINE': {
      const v = e.vertices as (Point & { bulge?: number })[];
      if (v.length < 2) return null;
      const out: Line = [v[0]];
      const last = e.shape ? v.length : v.length - 1;
      for (let i = 0; i < last; i++) out.push(...bulged(v[i], v[(i + 1) % v.length], v[i].bulge ?? 0, k));
      return out;
    }
    case 'CIRCLE': {
      const line = arc(e.center as Point, e.radius as number, 0, 2 * Math.PI, k);
      line[line.length - 1] = line[0];
      return line;
    }
    case 'ARC':
      return arc(e.center as Point, e.radius as number, e.startAngle as number, e.endAngle as number, k);
    case 'ELLIPSE': {
      const c = e.center as Point;
      const m = e.majorAxisEndPoint as Point;
      const ratio = e.axisRatio as number;
      const unit = arc({ x: 0, y: 0 }, 1, e.startAngle as number, e.endAngle as number, k * Math.hypot(m.x, m.y));
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

/** Lines whose ends meet, joined into longer ones. */
function joined(lines: Line[]): Line[] {
  const key = (p: Point) => `${Math.round(p.x / TOUCH)},${Math.round(p.y / TOUCH)}`;
  const ends = new Map<string, Set<Line>>();
  const put = (l: Line) => {
    for (const p of [l[0], l[l.length - 1]]) {
      const list = ends.get(key(p)) ?? new Set();
      list.add(l);
      ends.set(key(p), list);
    }
  };
  const drop = (l: Line) => {
    for (const p of [l[0], l[l.length - 1]]) ends.get(key(p))?.delete(l);
  };
  const left = new Set(lines);
  for (const l of lines) put(l);
  const out: Line[] = [];
  for (const start of lines) {
    if (!left.delete(start)) continue;
    drop(start);
    let line = start;
    for (let side = 0; side < 2; side++) {
      for (;;) {
        const tip = line[line.length - 1];
        if (line.length > 2 && key(tip) === key(line[0])) break;
        const next = [...(ends.get(key(tip)) ?? [])][0];
        if (!next) break;
        left.delete(next);
        drop(next);
        line = [...line, ...(key(next[0]) === key(tip) ? next : [...next].reverse()).slice(1)];
      }
      line = [...line].reverse();
    }
    out.push(line);
  }
  return out;
}

/**
 * Reads the lines of a DXF drawing: lines, polylines with their bulges, arcs, circles, ellipses, splines, and blocks where they are
 * inserted. Ends that meet are joined. Units as the drawing says, else mm.
 * @throws SourceError naming the file
 */
export function readDxf(text: string, file: string): { drawing: Drawing; notes: string[] } {
  let dxf: IDxf | null;
  try {
    dxf = new DxfParser().parseSync(text);
  } catch {
    throw new SourceError(
      `${file}: begins like a DXF drawing but is damaged or cut short; export it again as ASCII DXF`,
    );
  }
  if (!dxf) throw new SourceError(`${file}: is not a DXF drawing; export it again as ASCII DXF`);
  const notes: string[] = [];
  const code = Number(dxf.header?.$INSUNITS ?? 0);
  const k = UNITS[code] ?? 1;
  if (!UNITS[code]) notes.push('says no unit; taken as mm');
  const lines: Line[] = [];
  const left = new Set<string>();
  const walk = (entities: IEntity[], place: (p: Point) => Point, depth: number) => {
    for (const entity of entities) {
      const e = entity as Loose;
      if (e.type === 'INSERT') {
        const block = dxf.blocks?.[e.name as string];
        if (!block || depth >= DEEPEST) continue;
        const at = e.position as Point;
        const a = (((e.rotation as number) ?? 0) * Math.PI) / 180;
        const [sx, sy] = [(e.xScale as number) ?? 1, (e.yScale as number) ?? 1];
        const base = (block.position ?? { x: 0, y: 0 }) as Point;
        walk(
          block.entities ?? [],
          (p) => {
            const [x, y] = [(p.x - base.x) * sx, (p.y - base.y) * sy];
            return place({ x: at.x + x * Math.cos(a) - y * Math.sin(a), y: at.y + x * Math.sin(a) + y * Math.cos(a) });
          },
          depth + 1,
        );
        continue;
      }
      const line = linesOf(e, k);
      if (!line) left.add(e.type);
      else if (line.length >= 2) lines.push(line.map(place).map((p) => ({ x: p.x * k, y: p.y * k })));
    }
  };
  walk(dxf.entities ?? [], (p) => p, 0);
  if (left.size > 0) notes.push(`what is not lines is left out: ${[...left].join(', ')}`);
  if (lines.some((l) => l.some((p) => !Number.isFinite(p.x + p.y))))
    throw new SourceError(`${file}: has places that are no numbers; export it again`);
  const num = (v: number) => String(Number(v.toFixed(3)));
  const d = joined(lines)
    .map((l) => {
      const closed = l.length > 3 && Math.hypot(l[0].x - l[l.length - 1].x, l[0].y - l[l.length - 1].y) <= 2 * TOUCH;
      const points = closed ? l.slice(0, -1) : l;
      return `M${points.map((p) => `${num(p.x)} ${num(-p.y)}`).join('L')}${closed ? 'Z' : ''}`;
    })
    .join('');
  if (d === '') throw new SourceError(`${file}: there are no lines in it; choose another drawing`);
  return { drawing: makeDrawing(d, null, file), notes };
}
