import { Delaunay } from 'd3-delaunay';
import type { Polygon } from './polygon';

/** Angle between the two nearest places of the outline from which a line counts as the middle of something, rad. */
const OPEN = (40 * Math.PI) / 180;
/** Places of a chain may lie this far off the line that is kept of them, mm, in plan and in distance. */
const STRAIGHT = 0.003;
/** Lines shorter than this are one place, mm. */
const NOWHERE = 1e-6;

interface Sites {
  xy: Float64Array;
  /** Direction of the edge before and after each site; the same on an edge's inside. */
  before: Float64Array;
  after: Float64Array;
  ring: Int32Array;
  /** First site of each site's ring, and how many the ring has. */
  first: Int32Array;
  count: Int32Array;
  /** 1 where the outline turns to the left, as at the point of a letter, by more than OPEN. */
  point: Uint8Array;
}

/** Sites along rings that have their inside at the left, no further apart than the spacing, every corner among them. */
function sitesOf(polygon: Polygon, spacing: number): Sites {
  const xy: number[] = [];
  const before: number[] = [];
  const after: number[] = [];
  const ring: number[] = [];
  const first: number[] = [];
  const point: number[] = [];
  const counts: number[] = [];
  polygon.forEach((r, k) => {
    const start = xy.length / 2;
    const n = r.length / 2;
    const way = (i: number): [number, number] => {
      const a = ((i % n) + n) % n;
      const b = (a + 1) % n;
      const [dx, dy] = [r[2 * b] - r[2 * a], r[2 * b + 1] - r[2 * a + 1]];
      const l = Math.hypot(dx, dy) || 1;
      return [dx / l, dy / l];
    };
    for (let i = 0; i < n; i++) {
      const q = (i + 1) % n;
      const [dx, dy] = [r[2 * q] - r[2 * i], r[2 * q + 1] - r[2 * i + 1]];
      const parts = Math.max(1, Math.ceil(Math.hypot(dx, dy) / spacing));
      const [ax, ay] = way(i);
      const [bx, by] = way(i - 1);
      for (let s = 0; s < parts; s++) {
        xy.push(r[2 * i] + (dx * s) / parts, r[2 * i + 1] + (dy * s) / parts);
        before.push(s === 0 ? bx : ax, s === 0 ? by : ay);
        after.push(ax, ay);
        ring.push(k);
        first.push(start);
        point.push(s === 0 && Math.atan2(bx * ay - by * ax, bx * ax + by * ay) > OPEN ? 1 : 0);
      }
    }
    counts.push(xy.length / 2 - start);
  });
  return {
    xy: Float64Array.from(xy),
    before: Float64Array.from(before),
    after: Float64Array.from(after),
    ring: Int32Array.from(ring),
    first: Int32Array.from(first),
    count: Int32Array.from(ring, (k) => counts[k]),
    point: Uint8Array.from(point),
  };
}

/** Whether a place lies inside, judged at the site that it is nearest to: at the left of the edges there. */
function isInside(s: Sites, k: number, x: number, y: number): boolean {
  const [dx, dy] = [x - s.xy[2 * k], y - s.xy[2 * k + 1]];
  const a = s.before[2 * k] * dy - s.before[2 * k + 1] * dx > 0;
  const b = s.after[2 * k] * dy - s.after[2 * k + 1] * dx > 0;
  const left = s.before[2 * k] * s.after[2 * k + 1] - s.before[2 * k + 1] * s.after[2 * k] >= 0;
  return left ? a && b : a || b;
}

function neighbours(s: Sites, a: number, b: number): boolean {
  if (s.ring[a] !== s.ring[b]) return false;
  const d = Math.abs(a - b);
  return d === 1 || d === s.count[a] - 1;
}

/**
 * The medial axis of a polygon: the middles of all that is inside it, as chains of x y distance triples, where distance is the
 * exact one from the outline. It is the part of the Voronoi diagram of places along the outline that lies inside and between places
 * that face each other (Amenta, Bern and Eppstein 1998 on samples dense enough; the angle by which they face each other prunes what
 * sampling adds), and it is drawn out to every point of the outline.
 * @param polygon rings that have their inside at the left (counter-clockwise outside, clockwise holes), mm
 * @param spacing of the places along the outline, mm: well below its narrowest part
 */
export function medialAxis(polygon: Polygon, spacing: number): Float64Array[] {
  const s = sitesOf(polygon, spacing);
  const n = s.xy.length / 2;
  if (n < 3) return [];
  const { triangles, halfedges } = new Delaunay(s.xy);
  const T = triangles.length / 3;
  const cx = new Float64Array(T);
  const cy = new Float64Array(T);
  const inside = new Uint8Array(T);
  for (let t = 0; t < T; t++) {
    const [a, b, c] = [triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]];
    const [ax, ay] = [s.xy[2 * a], s.xy[2 * a + 1]];
    const [bx, by] = [s.xy[2 * b] - ax, s.xy[2 * b + 1] - ay];
    const [qx, qy] = [s.xy[2 * c] - ax, s.xy[2 * c + 1] - ay];
    const d = 2 * (bx * qy - by * qx);
    const [b2, q2] = [bx * bx + by * by, qx * qx + qy * qy];
    cx[t] = ax + (qy * b2 - by * q2) / d;
    cy[t] = ay + (bx * q2 - qx * b2) / d;
    if (Number.isFinite(cx[t]) && Number.isFinite(cy[t])) inside[t] = isInside(s, a, cx[t], cy[t]) ? 1 : 0;
  }
  // Up to three ways lead away from the middle of a triangle.
  const links = new Links(T);
  const cosOpen = Math.cos(OPEN);
  for (let e = 0; e < halfedges.length; e++) {
    const o = halfedges[e];
    if (o < e) continue;
    const t = Math.floor(e / 3);
    const u = Math.floor(o / 3);
    if (!inside[t] || !inside[u]) continue;
    const p = triangles[e];
    const q = triangles[o];
    if (neighbours(s, p, q)) continue;
    const mx = (cx[t] + cx[u]) / 2;
    const my = (cy[t] + cy[u]) / 2;
    const [px, py] = [s.xy[2 * p] - mx, s.xy[2 * p + 1] - my];
    const [qx, qy] = [s.xy[2 * q] - mx, s.xy[2 * q + 1] - my];
    if (px * qx + py * qy > cosOpen * Math.hypot(px, py) * Math.hypot(qx, qy)) continue;
    links.join(t, u);
  }
  const away = (t: number) => distanceAt(s, triangles, t, cx[t], cy[t]);
  return chainsOf(links, cx, cy, away, (t) => pointBeside(s, triangles, t, cx, cy, spacing));
}

/** Exact distance of a triangle's middle from the outline: from the edges beside the three places that it is nearest to. */
function distanceAt(s: Sites, triangles: ArrayLike<number>, t: number, x: number, y: number): number {
  let least = Infinity;
  for (let v = 0; v < 3; v++) {
    const k = triangles[3 * t + v];
    const [px, py] = [x - s.xy[2 * k], y - s.xy[2 * k + 1]];
    const there = px * px + py * py;
    // Along either edge: no nearer than the place itself when it lies on the other side of it.
    const ahead = px * s.after[2 * k] + py * s.after[2 * k + 1];
    const behind = -(px * s.before[2 * k] + py * s.before[2 * k + 1]);
    least = Math.min(least, there - Math.max(0, ahead) ** 2, there - Math.max(0, behind) ** 2);
  }
  return Math.sqrt(Math.max(0, least));
}

/** The point of the outline that an end of the axis runs out to, if there is one beside it. */
function pointBeside(
  s: Sites,
  triangles: ArrayLike<number>,
  t: number,
  cx: Float64Array,
  cy: Float64Array,
  spacing: number,
): [number, number] | null {
  let best: [number, number] | null = null;
  let least = 4 * spacing;
  for (let v = 0; v < 3; v++) {
    const k = triangles[3 * t + v];
    // The point itself is a corner of the triangle, or one place on.
    for (const q of [k, k + 1, k - 1]) {
      const at = s.first[k] + ((((q - s.first[k]) % s.count[k]) + s.count[k]) % s.count[k]);
      if (!s.point[at]) continue;
      const d = Math.hypot(s.xy[2 * at] - cx[t], s.xy[2 * at + 1] - cy[t]);
      if (d < least) {
        least = d;
        best = [s.xy[2 * at], s.xy[2 * at + 1]];
      }
    }
  }
  return best;
}

/** A graph whose places have up to three neighbours; ways that have been walked are marked. */
class Links {
  private readonly to: Int32Array;
  private readonly walked: Uint8Array;
  readonly degree: Uint8Array;

  constructor(readonly length: number) {
    this.to = new Int32Array(3 * length);
    this.walked = new Uint8Array(3 * length);
    this.degree = new Uint8Array(length);
  }
  join(a: number, b: number): void {
    this.to[3 * a + this.degree[a]++] = b;
    this.to[3 * b + this.degree[b]++] = a;
  }
  /** A neighbour that the way to has not been walked yet, other than `not`; -1 for none. */
  open(a: number, not = -1): number {
    for (let k = 0; k < this.degree[a]; k++) {
      const b = this.to[3 * a + k];
      if (!this.walked[3 * a + k] && b !== not) return b;
    }
    return -1;
  }
  walk(a: number, b: number): void {
    for (const [p, q] of [
      [a, b],
      [b, a],
    ])
      for (let k = 0; k < this.degree[p]; k++) if (this.to[3 * p + k] === q) this.walked[3 * p + k] = 1;
  }
}

/** Walks a graph of places into chains between its ends and junctions, each with its distances, thinned. */
function chainsOf(
  links: Links,
  cx: Float64Array,
  cy: Float64Array,
  away: (t: number) => number,
  tip: (t: number) => [number, number] | null,
): Float64Array[] {
  const out: Float64Array[] = [];
  const walk = (from: number, next: number) => {
    const chain: number[] = [];
    const put = (x: number, y: number, d: number) => chain.push(x, y, d);
    const place = (t: number) => put(cx[t], cy[t], away(t));
    const end = (t: number) => {
      const p = links.degree[t] === 1 ? tip(t) : null;
      if (p) put(p[0], p[1], 0);
    };
    end(from);
    place(from);
    let [a, b] = [from, next];
    for (;;) {
      links.walk(a, b);
      place(b);
      if (links.degree[b] !== 2 || b === from) break;
      const on = links.open(b, a);
      if (on < 0) break;
      [a, b] = [b, on];
    }
    end(b);
    // Where sites lie on one circle several middles fall on one place: that is no line.
    const thin = thinChain(Float64Array.from(chain), STRAIGHT);
    if (thin.length > 6 || Math.hypot(thin[3] - thin[0], thin[4] - thin[1]) > NOWHERE) out.push(thin);
  };
  // Ends first, then junctions, then closed rings.
  for (const degree of [1, 3, 2]) {
    for (let t = 0; t < links.length; t++) {
      if (links.degree[t] !== degree) continue;
      for (let u = links.open(t); u >= 0; u = links.open(t)) walk(t, u);
    }
  }
  return out;
}

/** A chain of triples without those that lie within `tolerance` of the line between their neighbours (Douglas and Peucker 1973). */
export function thinChain(chain: Float64Array, tolerance: number): Float64Array {
  const n = chain.length / 3;
  const keep = new Uint8Array(n);
  keep[0] = keep[n - 1] = 1;
  const stack: [number, number][] = [[0, n - 1]];
  while (stack.length > 0) {
    const [a, b] = stack.pop()!;
    const [dx, dy, dz] = [0, 1, 2].map((c) => chain[3 * b + c] - chain[3 * a + c]);
    const l2 = dx * dx + dy * dy + dz * dz;
    let worst = tolerance;
    let at = -1;
    for (let k = a + 1; k < b; k++) {
      const [px, py, pz] = [0, 1, 2].map((c) => chain[3 * k + c] - chain[3 * a + c]);
      const t = l2 > 0 ? Math.max(0, Math.min(1, (px * dx + py * dy + pz * dz) / l2)) : 0;
      const d = Math.hypot(px - t * dx, py - t * dy, pz - t * dz);
      if (d > worst) {
        worst = d;
        at = k;
      }
    }
    if (at < 0) continue;
    keep[at] = 1;
    stack.push([a, at], [at, b]);
  }
  const out: number[] = [];
  for (let k = 0; k < n; k++) if (keep[k]) out.push(chain[3 * k], chain[3 * k + 1], chain[3 * k + 2]);
  return Float64Array.from(out);
}
