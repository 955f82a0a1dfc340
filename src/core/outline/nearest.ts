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
  /** The nearest to its middle first, and how far each is from it, mm. */
  segments: Int32Array;
  from: Float64Array;
  /** No place in the square is nearer to the outline than this, mm. */
  least: number;
  x: number;
  y: number;
  half: number;
  depth: number;
  quarters: (Square | undefined)[] | null;
}

const FEW = 12;
const DEEPEST = 9;

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
  /** Square of each segment's length, mm2. */
  private readonly long2: Float64Array;
  private readonly start: Float64Array;
  private readonly ringOf: Int32Array;
  private readonly root: Square;
  /** The square that was looked into last: places are asked for one beside the other. */
  private last: Square;
  /** Of what was found last: the square of its distance, mm2, and how far along its segment it lies, 0 to 1. */
  private best = Infinity;
  private bestShare = 0;
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
    this.long2 = new Float64Array(n);
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
        this.long2[k] = this.dx[k] * this.dx[k] + this.dy[k] * this.dy[k];
        along += long;
      }
      this.lengths.push(along);
    });
    const b = polygonBounds(polygon);
    const half = Math.max(b.x1 - b.x0, b.y1 - b.y0) / 2 + margin;
    const all = Int32Array.from({ length: n }, (_, i) => i);
    this.root = this.square((b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2, half, all, 0);
    this.last = this.root;
  }

  /** Square of the distance of a place from a segment, mm2. */
  private to(k: number, x: number, y: number): number {
    const t = this.share(k, x, y);
    const ex = x - this.ax[k] - t * this.dx[k];
    const ey = y - this.ay[k] - t * this.dy[k];
    return ex * ex + ey * ey;
  }

  private square(x: number, y: number, half: number, segments: Int32Array, depth: number): Square {
    let near = Infinity;
    const n = segments.length;
    const d = new Float64Array(n);
    for (let i = 0; i < n; i++) {
      d[i] = Math.sqrt(this.to(segments[i], x, y));
      if (d[i] < near) near = d[i];
    }
    const most = near + 2 * half * Math.SQRT2 + 1e-9;
    const mine: number[] = [];
    for (let i = 0; i < n; i++) if (d[i] <= most) mine.push(i);
    mine.sort((a, b) => d[a] - d[b]);
    const whole = mine.length <= FEW || depth >= DEEPEST;
    return {
      segments: Int32Array.from(mine, (i) => segments[i]),
      from: Float64Array.from(mine, (i) => d[i]),
      least: near - half * Math.SQRT2,
      x,
      y,
      half,
      depth,
      quarters: whole ? null : new Array(4),
    };
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
    out.distance = Math.sqrt(this.best);
    if (at < 0) return out;
    out.along = this.start[at] + this.bestShare * 2 * this.half[at];
    out.ring = this.ringOf[at];
    return out;
  }

  /** How far along x from a place all of a row is known to lie further from the outline than `beyond`, mm; the place itself where it may not. */
  clearTo(x: number, y: number, beyond: number): number {
    const leaf = this.leafAt(x, y, beyond);
    return leaf.least > beyond ? leaf.x + leaf.half : x;
  }

  /** The nearest place of the outline itself, mm. */
  foot(x: number, y: number): [number, number] {
    const at = this.nearestIn(this.leafAt(x, y, Infinity), x, y);
    if (at < 0) return [x, y];
    const t = this.bestShare;
    return [this.ax[at] + t * this.dx[at], this.ay[at] + t * this.dy[at]];
  }

  /** The smallest square around a place, or the first that is known to lie further off than `beyond`. */
  private leafAt(x: number, y: number, beyond: number): Square {
    let s = this.last;
    if (!(Math.abs(x - s.x) <= s.half && Math.abs(y - s.y) <= s.half)) s = this.root;
    while (s.quarters && s.least <= beyond) {
      const q = (y >= s.y ? 2 : 0) + (x >= s.x ? 1 : 0);
      const h = s.half / 2;
      s.quarters[q] ??= this.square(s.x + (q & 1 ? h : -h), s.y + (q & 2 ? h : -h), h, s.segments, s.depth + 1);
      s = s.quarters[q] as Square;
    }
    this.last = s;
    return s;
  }

  /** The segment nearest to a place, -1 where there is none; `best` is then the square of its distance, mm2. */
  private nearestIn({ segments, from, x: mx, y: my }: Square, x: number, y: number): number {
    let best = Infinity;
    let at = -1;
    // So far from the middle, a place is nearer to nothing than the middle is by more than that.
    const off = segments.length > 1 ? Math.sqrt((x - mx) * (x - mx) + (y - my) * (y - my)) + 1e-9 : 0;
    for (let i = 0; i < segments.length; i++) {
      const least = from[i] - off;
      if (least > 0 && least * least > best) break;
      const k = segments[i];
      const t = this.share(k, x, y);
      const ex = x - this.ax[k] - t * this.dx[k];
      const ey = y - this.ay[k] - t * this.dy[k];
      const to = ex * ex + ey * ey;
      // Where two are as near, the first of the outline counts.
      if (to < best || (to === best && k < at)) {
        best = to;
        at = k;
        this.bestShare = t;
      }
    }
    this.best = best;
    return at;
  }

  /** How far along a segment its place lies that is nearest, 0 to 1. */
  private share(k: number, x: number, y: number): number {
    if (this.long2[k] === 0) return 0;
    return Math.max(0, Math.min(1, ((x - this.ax[k]) * this.dx[k] + (y - this.ay[k]) * this.dy[k]) / this.long2[k]));
  }
}
