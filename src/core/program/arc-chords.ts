/** Most that chords lie off their arc, mm. */
const ARC_CHORD = 0.002;

type Point = readonly [number, number];

/** An arc's ends in its plane's first and second axis, and which way round it goes. */
export interface Ends {
  from: Point;
  to: Point;
  clockwise: boolean;
}

/** Centre of an arc by its radius, mm; a positive one is the arc of at most half a turn. @param fail throws for one that cannot be */
export function centreByRadius(r: number, { from, to, clockwise }: Ends, fail: (what: string) => never): Point {
  const R = Math.abs(r);
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const d = Math.hypot(dx, dy);
  if (d < 1e-9) fail('a radius arc that ends where it starts');
  if (d / 2 > R * 1.001) fail(`an arc of radius ${R} mm cannot span ${d.toFixed(3)} mm`);
  const h = Math.sqrt(Math.max(0, R * R - (d * d) / 4));
  const side = clockwise === r > 0 ? 1 : -1;
  return [(from[0] + to[0]) / 2 + (side * h * dy) / d, (from[1] + to[1]) / 2 - (side * h * dx) / d];
}

/** The ends of an arc's chords with the share of the arc that lies before each, the last one 1. @param fail throws for an arc whose ends do not lie on it */
export function* chordsOf(
  { from, to, clockwise }: Ends,
  [ca, cb]: Point,
  fail: (what: string) => never,
): Generator<[number, number, number]> {
  const R = Math.hypot(from[0] - ca, from[1] - cb);
  const R1 = Math.hypot(to[0] - ca, to[1] - cb);
  if (Math.abs(R - R1) > Math.max(0.01, R * 0.001))
    fail(`the arc's ends lie ${R.toFixed(3)} and ${R1.toFixed(3)} mm from its centre`);
  const t0 = Math.atan2(from[1] - cb, from[0] - ca);
  let sweep = Math.atan2(to[1] - cb, to[0] - ca) - t0;
  if (clockwise) while (sweep >= -1e-9) sweep -= 2 * Math.PI;
  else while (sweep <= 1e-9) sweep += 2 * Math.PI;
  const step = 2 * Math.acos(Math.max(0, 1 - ARC_CHORD / Math.max(R, ARC_CHORD)));
  const n = Math.max(1, Math.ceil(Math.abs(sweep) / Math.max(step, 1e-3)));
  for (let i = 1; i <= n; i++) {
    const t = t0 + (sweep * i) / n;
    yield [ca + R * Math.cos(t), cb + R * Math.sin(t), i / n];
  }
}
