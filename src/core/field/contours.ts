/** A closed ring of points x0 y0 x1 y1 ... in grid units; the higher side is on its left. The first is not repeated. */
export type Ring = Float64Array;

/**
 * Contours of a grid of values at every whole number 0, 1, 2, ... in one visit of the cells (marching squares, saddles
 * decided by the mean of the four corners). Beyond the grid's edge counts as below every level, so that rings close.
 * @returns for each level its rings, all counter-clockwise around what is higher
 */
export function contourRings(values: Float32Array, width: number, height: number): Ring[][] {
  const next: Map<number, number>[] = [];
  const at = (i: number, j: number) => (i < 0 || j < 0 || i >= width || j >= height ? -1 : values[j * width + i]);
  // Edges are numbered over the grid widened by one on each side: 2 e for the one going east of (i, j), 2 e + 1 north.
  const W = width + 2;
  const id = (i: number, j: number) => 2 * ((j + 1) * W + i + 1);
  for (let j = -1; j < height; j++) {
    for (let i = -1; i < width; i++) {
      const a = at(i, j);
      const b = at(i + 1, j);
      const c = at(i + 1, j + 1);
      const d = at(i, j + 1);
      const high = Math.max(a, b, c, d);
      if (high < 0) continue;
      const low = Math.min(a, b, c, d);
      const south = id(i, j);
      const west = south + 1;
      const east = id(i + 1, j) + 1;
      const north = id(i, j + 1);
      for (let k = Math.max(0, Math.floor(low) + 1); k <= high; k++) {
        next[k] ??= new Map();
        const put = (from: number, to: number) => next[k].set(from, to);
        const code = (a >= k ? 1 : 0) | (b >= k ? 2 : 0) | (c >= k ? 4 : 0) | (d >= k ? 8 : 0);
        switch (code) {
          case 1:
            put(south, west);
            break;
          case 2:
            put(east, south);
            break;
          case 3:
            put(east, west);
            break;
          case 4:
            put(north, east);
            break;
          case 6:
            put(north, south);
            break;
          case 7:
            put(north, west);
            break;
          case 8:
            put(west, north);
            break;
          case 9:
            put(south, north);
            break;
          case 11:
            put(east, north);
            break;
          case 12:
            put(west, east);
            break;
          case 13:
            put(south, east);
            break;
          case 14:
            put(west, south);
            break;
          case 5:
            if ((a + b + c + d) / 4 >= k) {
              put(south, east);
              put(north, west);
            } else {
              put(south, west);
              put(north, east);
            }
            break;
          case 10:
            if ((a + b + c + d) / 4 >= k) {
              put(east, north);
              put(west, south);
            } else {
              put(east, south);
              put(west, north);
            }
            break;
        }
      }
    }
  }
  const point = (edge: number, k: number, out: number[]) => {
    const e = edge >> 1;
    const i = (e % W) - 1;
    const j = Math.floor(e / W) - 1;
    const up = edge & 1;
    const v0 = at(i, j);
    const v1 = up ? at(i, j + 1) : at(i + 1, j);
    const t = Math.min(1, Math.max(0, (k - v0) / (v1 - v0)));
    out.push(up ? i : i + t, up ? j + t : j);
  };
  const levels: Ring[][] = [];
  for (let k = 0; k < next.length; k++) {
    levels[k] = [];
    const map = next[k];
    if (!map) continue;
    while (map.size > 0) {
      const first = map.keys().next().value as number;
      const pts: number[] = [];
      for (let e: number | undefined = first; e !== undefined; ) {
        point(e, k, pts);
        const to: number | undefined = map.get(e);
        map.delete(e);
        e = to === first ? undefined : to;
      }
      if (pts.length >= 6) levels[k].push(Float64Array.from(pts));
    }
  }
  return levels;
}

/** Signed area of a ring, positive when counter-clockwise. */
export function ringArea(r: Ring): number {
  let s = 0;
  for (let i = 0, p = r.length - 2; i < r.length; p = i, i += 2) s += r[p] * r[i + 1] - r[i] * r[p + 1];
  return s / 2;
}

export function ringLength(r: Ring): number {
  let s = 0;
  for (let i = 0, p = r.length - 2; i < r.length; p = i, i += 2) s += Math.hypot(r[i] - r[p], r[i + 1] - r[p + 1]);
  return s;
}

/**
 * Marks the points of a polyline that stay between two that do, so that none lies further than `tolerance` from the result (Douglas and Peucker).
 * @param at x and y of a point @param keep 1 for what stays
 */
function simplifySpan(
  at: (i: number) => [number, number],
  from: number,
  to: number,
  tolerance: number,
  keep: Uint8Array,
): void {
  const stack: [number, number][] = [[from, to]];
  for (let span = stack.pop(); span; span = stack.pop()) {
    const [a, b] = span;
    const [ax, ay] = at(a);
    const [bx, by] = at(b);
    const [dx, dy] = [bx - ax, by - ay];
    const L2 = dx * dx + dy * dy;
    let worst = tolerance * tolerance;
    let far = -1;
    for (let i = a + 1; i < b; i++) {
      const [x, y] = at(i);
      const ex = x - ax;
      const ey = y - ay;
      const t = L2 > 0 ? Math.max(0, Math.min(1, (ex * dx + ey * dy) / L2)) : 0;
      const d = (ex - t * dx) ** 2 + (ey - t * dy) ** 2;
      if (d > worst) {
        worst = d;
        far = i;
      }
    }
    if (far >= 0) {
      keep[far] = 1;
      stack.push([a, far], [far, b]);
    }
  }
}

/** The kept points of a polyline. */
function kept(r: Float64Array, keep: Uint8Array): Float64Array {
  const out: number[] = [];
  for (let i = 0; i < r.length / 2; i++) if (keep[i]) out.push(r[2 * i], r[2 * i + 1]);
  return Float64Array.from(out);
}

/** Fewer points for an open polyline of x y pairs, none further than `tolerance` from the result. */
export function simplifyLine(r: Float64Array, tolerance: number): Float64Array {
  const n = r.length / 2;
  if (n < 3) return r;
  const keep = new Uint8Array(n);
  keep[0] = keep[n - 1] = 1;
  simplifySpan((i) => [r[2 * i], r[2 * i + 1]], 0, n - 1, tolerance, keep);
  return kept(r, keep);
}

/** Fewer points for a ring, none further than `tolerance` from the result, split at two far points. */
export function simplifyRing(r: Ring, tolerance: number): Ring {
  const n = r.length / 2;
  if (n < 5) return r;
  let far = 0;
  let best = -1;
  for (let i = 1; i < n; i++) {
    const d = (r[2 * i] - r[0]) ** 2 + (r[2 * i + 1] - r[1]) ** 2;
    if (d > best) {
      best = d;
      far = i;
    }
  }
  const keep = new Uint8Array(n + 1);
  keep[0] = keep[far] = keep[n] = 1;
  const at = (i: number): [number, number] => [r[2 * (i % n)], r[2 * (i % n) + 1]];
  simplifySpan(at, 0, far, tolerance, keep);
  simplifySpan(at, far, n, tolerance, keep);
  return kept(r, keep);
}
