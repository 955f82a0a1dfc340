import { type Polygon, polygonBounds } from './polygon';

/** The nearest point of an outline: how far it is, and how far along its ring it lies. */
export interface Nearest {
  distance: number;
  /** Length along the ring from its first point, mm. */
  along: number;
  ring: number;
}

/** A square of the plane with the segments that can be nearest to any of its places. Its quarters are made when they are asked for. */
interface Square {
  segments: Int32Array;
  /** No place in the square is nearer to the outline than this, mm. */
  least: number;
  x: number;
  y: number;
  half: number;
  depth: number;
  quarters: (Square | undefined)[] | null;
}

const FEW = 12;
const DEEPEST = 7;

/**
 * Exact nearest points of a polygon's edges, for many places within a box. A quadtree keeps for every square the
 * segments that can be nearest to any of its points: those no further from its middle than the nearest one and the
 * square's own diagonal (triangle inequality).
 */
export class NearestOutline {
  private readonly ax: Float64Array;
  private readonly ay: Float64Array;
  private readonly dx: Float64Array;
  private readonly dy: Float64Array;
  private readonly half: Float64Array;
  private readonly start: Float64Array;
  private readonly ringOf: Int32Array;
  private readonly root: Square;
  /** Length of each ring, mm. */
  readonly lengths: number[] = [];

  /** @param margin mm around the polygon's bounds within which places will be asked for */
  constructor(polygon: Polygon, margin = 0) {
    const n = polygon.reduce((s, r) => s + r.length / 2, 0);
    this.ax = new Float64Array(n);
    this.ay = new Float64Array(n);
    this.dx = new Float64Array(n);
    this.dy = new Float64Array(n);
    this.half = new Float64Array(n);
    this.start = new Float64Array(n);
    this.ringOf = new Int32Array(n);
    let k = 0;
    polygon.forEach((r, ring) => {
      let along = 0;
      for (let i = 0; i < r.length; i += 2, k++) {
        const q = (i + 2) % r.length;
        this.ax[k] = r[i];
        this.ay[k] = r[i + 1];
        this.dx[k] = r[q] - r[i];
        this.dy[k] = r[q + 1] - r[i + 1];
        this.start[k] = along;
        this.ringOf[k] = ring;
        const long = Math.hypot(this.dx[k], this.dy[k]);
        this.half[k] = long / 2;
        along += long;
      }
      this.lengths.push(along);
    });
    const b = polygonBounds(polygon);
    const half = Math.max(b.x1 - b.x0, b.y1 - b.y0) / 2 + margin;
    const all = Int32Array.from({ length: n }, (_, i) => i);
    this.root = this.square((b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2, half, all, 0);
  }

  private to(k: number, x: number, y: number): number {
    const t = this.share(k, x, y);
    const ex = x - this.ax[k] - t * this.dx[k];
    const ey = y - this.ay[k] - t * this.dy[k];
    return ex * ex + ey * ey;
  }

  private square(x: number, y: number, half: number, segments: Int32Array, depth: number): Square {
    // By the middles of segments and their half lengths: a little more is kept than need be, for much less work.
    let near = Infinity;
    const n = segments.length;
    const d = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      const k = segments[i];
      const px = x - this.ax[k] - this.dx[k] / 2;
      const py = y - this.ay[k] - this.dy[k] / 2;
      const m = Math.sqrt(px * px + py * py);
      d[i] = m - this.half[k];
      if (m + this.half[k] < near) near = m + this.half[k];
    }
    const most = near + 2 * half * Math.SQRT2 + 1e-9;
    let kept = 0;
    let least = Infinity;
    const mine = new Int32Array(n);
    for (let i = 0; i < n; i++) {
      if (d[i] < least) least = d[i];
      if (d[i] <= most) mine[kept++] = segments[i];
    }
    least -= half * Math.SQRT2;
    const whole = kept <= FEW || depth >= DEEPEST;
    return { segments: mine.slice(0, kept), least, x, y, half, depth, quarters: whole ? null : new Array(4) };
  }

  /**
   * The nearest point of the outline to (x, y) mm, written into `out`.
   * @param beyond how far away it no longer matters: then only some distance beyond that is told
   */
  find(x: number, y: number, out: Nearest, beyond = Infinity): Nearest {
    const leaf = this.leafAt(x, y, beyond);
    if (leaf.least > beyond) {
      out.distance = leaf.least;
      return out;
    }
    const at = this.nearestIn(leaf, x, y);
    if (at < 0) {
      out.distance = Infinity;
      return out;
    }
    out.distance = Math.sqrt(this.to(at, x, y));
    out.along = this.start[at] + this.share(at, x, y) * Math.hypot(this.dx[at], this.dy[at]);
    out.ring = this.ringOf[at];
    return out;
  }

  /** The nearest place of the outline itself, mm. */
  foot(x: number, y: number): [number, number] {
    const at = this.nearestIn(this.leafAt(x, y, Infinity), x, y);
    if (at < 0) return [x, y];
    const t = this.share(at, x, y);
    return [this.ax[at] + t * this.dx[at], this.ay[at] + t * this.dy[at]];
  }

  /** The smallest square around a place, or the first that is known to lie further off than `beyond`. */
  private leafAt(x: number, y: number, beyond: number): Square {
    let s = this.root;
    while (s.quarters && s.least <= beyond) {
      const q = (y >= s.y ? 2 : 0) + (x >= s.x ? 1 : 0);
      const h = s.half / 2;
      s.quarters[q] ??= this.square(s.x + (q & 1 ? h : -h), s.y + (q & 2 ? h : -h), h, s.segments, s.depth + 1);
      s = s.quarters[q] as Square;
    }
    return s;
  }

  private nearestIn({ segments }: Square, x: number, y: number): number {
    let best = Infinity;
    let at = -1;
    for (let i = 0; i < segments.length; i++) {
      const d = this.to(segments[i], x, y);
      if (d < best) {
        best = d;
        at = segments[i];
      }
    }
    return at;
  }

  /** How far along a segment its place lies that is nearest, 0 to 1. */
  private share(k: number, x: number, y: number): number {
    const l2 = this.dx[k] * this.dx[k] + this.dy[k] * this.dy[k];
    if (l2 === 0) return 0;
    return Math.max(0, Math.min(1, ((x - this.ax[k]) * this.dx[k] + (y - this.ay[k]) * this.dy[k]) / l2));
  }
}
