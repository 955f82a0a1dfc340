import { type Polygon, polygonBounds } from './polygon';

/** The nearest point of an outline: how far it is, and how far along its ring it lies. */
export interface Nearest {
  distance: number;
  /** Length along the ring from its first point, mm. */
  along: number;
  ring: number;
}

/** Segments that a square of the plane may be nearest to. */
interface Leaf {
  segments: Int32Array;
  /** No place in the square is nearer to the outline than this, mm. */
  least: number;
}
type Node = Leaf | { kids: Node[]; x: number; y: number };

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
  private readonly start: Float64Array;
  private readonly ringOf: Int32Array;
  private readonly root: Node;
  /** Length of each ring, mm. */
  readonly lengths: number[] = [];

  /** @param margin mm around the polygon's bounds within which places will be asked for */
  constructor(polygon: Polygon, margin = 0) {
    const n = polygon.reduce((s, r) => s + r.length / 2, 0);
    this.ax = new Float64Array(n);
    this.ay = new Float64Array(n);
    this.dx = new Float64Array(n);
    this.dy = new Float64Array(n);
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
        along += Math.hypot(this.dx[k], this.dy[k]);
      }
      this.lengths.push(along);
    });
    const b = polygonBounds(polygon);
    const half = Math.max(b.x1 - b.x0, b.y1 - b.y0) / 2 + margin;
    this.root = this.split(
      (b.x0 + b.x1) / 2,
      (b.y0 + b.y1) / 2,
      half,
      Int32Array.from({ length: n }, (_, i) => i),
      0,
    );
  }

  private to(k: number, x: number, y: number): number {
    const px = x - this.ax[k];
    const py = y - this.ay[k];
    const dx = this.dx[k];
    const dy = this.dy[k];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? Math.max(0, Math.min(1, (px * dx + py * dy) / l2)) : 0;
    const ex = px - t * dx;
    const ey = py - t * dy;
    return ex * ex + ey * ey;
  }

  private split(x: number, y: number, half: number, segments: Int32Array, depth: number): Node {
    let near = Infinity;
    const d = new Float64Array(segments.length);
    for (let i = 0; i < segments.length; i++) {
      d[i] = Math.sqrt(this.to(segments[i], x, y));
      if (d[i] < near) near = d[i];
    }
    const most = near + 2 * half * Math.SQRT2 + 1e-9;
    const mine = segments.filter((_, i) => d[i] <= most);
    const least = near - half * Math.SQRT2;
    if (mine.length <= FEW || depth >= DEEPEST) return { segments: mine, least };
    const h = half / 2;
    const kids = [-1, 1].flatMap((sy) => [-1, 1].map((sx) => this.split(x + sx * h, y + sy * h, h, mine, depth + 1)));
    return { kids, x, y };
  }

  /**
   * The nearest point of the outline to (x, y) mm, written into `out`.
   * @param beyond how far away it no longer matters: then only some distance beyond that is told
   */
  find(x: number, y: number, out: Nearest, beyond = Infinity): Nearest {
    let node = this.root;
    while ('kids' in node) node = node.kids[(y >= node.y ? 2 : 0) + (x >= node.x ? 1 : 0)];
    const { segments } = node;
    if (node.least > beyond) {
      out.distance = node.least;
      return out;
    }
    let best = Infinity;
    let at = -1;
    for (let i = 0; i < segments.length; i++) {
      const d = this.to(segments[i], x, y);
      if (d < best) {
        best = d;
        at = segments[i];
      }
    }
    out.distance = Math.sqrt(best);
    if (at >= 0) {
      const l2 = this.dx[at] ** 2 + this.dy[at] ** 2;
      const t =
        l2 > 0 ? Math.max(0, Math.min(1, ((x - this.ax[at]) * this.dx[at] + (y - this.ay[at]) * this.dy[at]) / l2)) : 0;
      out.along = this.start[at] + t * Math.sqrt(l2);
      out.ring = this.ringOf[at];
    }
    return out;
  }
}
