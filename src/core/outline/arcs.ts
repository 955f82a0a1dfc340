/** A block: the place where it ends, its feed, how it turns (0 straight, 2 clockwise, 3 counter-clockwise), the arc's centre, the number of the move that it ends with. */
export const BLOCK = 8;

/** Arcs flatter than this are written as lines, mm. */
const WIDEST = 2000;
/** How far a height may lie off the straight line over an arc's length, mm. */
const LEVEL = 0.001;
/** Fewest moves that an arc is worth. */
const FEWEST = 3;
const TINY = 1e-7;

interface Fit {
  /** 2 or 3 for an arc, 0 for a line. */
  turn: number;
  cx: number;
  cy: number;
}

/**
 * Whether moves a+1 .. b can be one arc from the end of move a to the end of move b. Of the circles through both ends the one
 * nearest to the points between (least squares of u^2 + v^2 - h^2 - 2 t v, with u along the chord from its middle, v across, h half
 * the chord, t the centre's place on the chord's bisector) is taken, and looked at in every corner and where every move is nearest to its centre.
 */
function arcOver(m: Float64Array, a: number, b: number, tolerance: number, most: number): Fit | null {
  const [ax, ay, az] = [m[4 * a], m[4 * a + 1], m[4 * a + 2]];
  const [bx, by, bz] = [m[4 * b], m[4 * b + 1], m[4 * b + 2]];
  const chord = Math.hypot(bx - ax, by - ay);
  if (chord < TINY) return null;
  const h = chord / 2;
  const [ux, uy] = [(bx - ax) / chord, (by - ay) / chord];
  const [mx, my] = [(ax + bx) / 2, (ay + by) / 2];
  let top = 0;
  let below = 0;
  for (let k = a + 1; k < b; k++) {
    const [dx, dy] = [m[4 * k] - mx, m[4 * k + 1] - my];
    const u = dx * ux + dy * uy;
    const v = dy * ux - dx * uy;
    top += v * (u * u + v * v - h * h);
    below += 2 * v * v;
  }
  if (below < TINY * TINY) return null;
  const off = top / below;
  const r = Math.hypot(h, off);
  if (r > WIDEST || r < tolerance) return null;
  const [cx, cy] = [mx - uy * off, my + ux * off];
  let total = 0;
  const angles = new Float64Array(b - a);
  for (let k = a; k < b; k++) {
    const [px, py, qx, qy] = [m[4 * k] - cx, m[4 * k + 1] - cy, m[4 * k + 4] - cx, m[4 * k + 5] - cy];
    if (Math.abs(Math.hypot(qx, qy) - r) > tolerance) return null;
    // Between its ends a move is nearest to the centre at the foot of the perpendicular.
    const [dx, dy] = [qx - px, qy - py];
    const l2 = dx * dx + dy * dy;
    const t = l2 > 0 ? -(px * dx + py * dy) / l2 : 0;
    if (t > 0 && t < 1 && Math.abs(Math.hypot(px + t * dx, py + t * dy) - r) > tolerance) return null;
    const turn = Math.atan2(px * qy - py * qx, px * qx + py * qy);
    if (turn === 0 || (total !== 0 && turn > 0 !== total > 0)) return null;
    total += turn;
    angles[k - a] = total;
  }
  if (Math.abs(total) > most) return null;
  for (let k = a + 1; k < b; k++)
    if (Math.abs(m[4 * k + 2] - az - ((bz - az) * angles[k - 1 - a]) / total) > LEVEL) return null;
  return { turn: total > 0 ? 3 : 2, cx, cy };
}

/** Whether moves a+1 .. b can be one line: no corner further off than the tolerance, and none going back. */
function lineOver(m: Float64Array, a: number, b: number, tolerance: number): Fit | null {
  const [ax, ay, az] = [m[4 * a], m[4 * a + 1], m[4 * a + 2]];
  const [dx, dy, dz] = [m[4 * b] - ax, m[4 * b + 1] - ay, m[4 * b + 2] - az];
  const long = Math.hypot(dx, dy);
  if (long < TINY) return null;
  let last = 0;
  for (let k = a + 1; k < b; k++) {
    const [px, py] = [m[4 * k] - ax, m[4 * k + 1] - ay];
    const on = (px * dx + py * dy) / long;
    if (on < last || on > long || Math.abs(py * dx - px * dy) / long > tolerance) return null;
    if (Math.abs(m[4 * k + 2] - az - (dz * on) / long) > LEVEL) return null;
    last = on;
  }
  return { turn: 0, cx: 0, cy: 0 };
}

/** The furthest move up to `end` that fits, and how; the reach is doubled while it fits, then halved in. */
function furthest(
  over: typeof arcOver,
  m: Float64Array,
  a: number,
  first: number,
  end: number,
  tolerance: number,
  most: number,
): { b: number; fit: Fit } | null {
  let good = first;
  if (good > end) return null;
  let fit = over(m, a, good, tolerance, most);
  if (!fit) return null;
  let bad = end + 1;
  for (let step = good - a; good < end && bad > end; step *= 2) {
    const next = Math.min(end, good + step);
    const f = over(m, a, next, tolerance, most);
    if (!f) bad = next;
    else [good, fit] = [next, f];
  }
  while (bad - good > 1) {
    const middle = (good + bad) >> 1;
    const f = over(m, a, middle, tolerance, most);
    if (f) [good, fit] = [middle, f];
    else bad = middle;
  }
  return { b: good, fit };
}

/**
 * Brings runs of cutting moves with the same feed to lines and arcs in the XY plane (with a steady climb: helices), none turning by
 * more than `most`. Rapids and upright moves stay as they are.
 * @param m moves: x y z feed each, the feed 0 for a rapid
 * @param tolerance most that a block may lie off the moves, mm
 * @param most widest turn of an arc, radians: half a circle at most
 * @returns BLOCK numbers a block
 */
export function fitArcs(m: Float64Array, tolerance: number, most = Math.PI): Float64Array {
  const n = m.length / 4;
  const out = new Float64Array((m.length / 4) * BLOCK);
  let used = 0;
  const put = (k: number, fit: Fit) => {
    out.set([m[4 * k], m[4 * k + 1], m[4 * k + 2], m[4 * k + 3], fit.turn, fit.cx, fit.cy, k], used);
    used += BLOCK;
  };
  const straight: Fit = { turn: 0, cx: 0, cy: 0 };
  for (let k = 0; k < n; ) {
    const feed = m[4 * k + 3];
    let end = k;
    while (end < n && m[4 * end + 3] === feed && (end === k || moves(m, end))) end++;
    if (k === 0 || feed <= 0 || end - k < 2 || !moves(m, k)) {
      put(k++, straight);
      continue;
    }
    const line = furthest(lineOver, m, k - 1, k + 1, end - 1, tolerance, most);
    const arc = furthest(arcOver, m, k - 1, k + FEWEST - 1, end - 1, tolerance, most);
    const best = arc && (!line || arc.b > line.b + 1) ? arc : line;
    if (best) {
      put(best.b, best.fit);
      k = best.b + 1;
    } else put(k++, straight);
  }
  return out.subarray(0, used);
}

/** Whether a move goes anywhere in the plane. */
function moves(m: Float64Array, k: number): boolean {
  return k > 0 && Math.hypot(m[4 * k] - m[4 * k - 4], m[4 * k + 1] - m[4 * k - 3]) > TINY;
}
