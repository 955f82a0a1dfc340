/** Open models made here, sampled on a grid: heights from 0 at the base, 1 at most, over a unit wide sheet; null where there is nothing. */
type Heights = (x: number, y: number) => number | null;

/** Places a sheet is sampled at along its width. */
const SAMPLES = 260;

/** A sheet of triangles over a surface `aspect` times as high as wide; open below and at its sides. */
function sheet(at: Heights, aspect: number): Float32Array {
  const [nx, ny] = [SAMPLES, Math.round(SAMPLES * aspect)];
  const point = (i: number, j: number) => {
    const [x, y] = [i / nx, (aspect * j) / ny];
    const z = at(x, y);
    return z === null ? null : [x, y, z];
  };
  const rows = Array.from({ length: ny + 1 }, (_, j) => Array.from({ length: nx + 1 }, (_, i) => point(i, j)));
  const out: number[] = [];
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const [a, b, c, d] = [rows[j][i], rows[j][i + 1], rows[j + 1][i + 1], rows[j + 1][i]];
      if (a && b && c) out.push(...a, ...b, ...c);
      if (a && c && d) out.push(...a, ...c, ...d);
    }
  }
  return Float32Array.from(out);
}

/** A rod from a to b, `ra` and `rb` wide at its ends, lying at a height: its upper side at a place, or null. */
function rod(a: number[], b: number[], [ra, rb]: [number, number], lift: number) {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const long = dx * dx + dy * dy;
  return (x: number, y: number): number | null => {
    const t = Math.min(1, Math.max(0, ((x - a[0]) * dx + (y - a[1]) * dy) / long));
    const r = ra + t * (rb - ra);
    const d = Math.hypot(x - a[0] - t * dx, y - a[1] - t * dy);
    return d < r ? lift + Math.sqrt(r * r - d * d) : null;
  };
}

const highest = (parts: Heights[]) => (x: number, y: number) =>
  parts.reduce<number | null>((z, p) => {
    const v = p(x, y);
    return v === null ? z : Math.max(z ?? 0, v);
  }, null);

/** A standing animal from its side: body, neck, head, tail, and four legs that leave narrow gaps, upright at their sides. */
export const standing = (): Float32Array =>
  sheet(
    highest([
      rod([0.25, 0.6], [0.68, 0.6], [0.15, 0.14], 0.06),
      rod([0.7, 0.62], [0.84, 0.85], [0.1, 0.06], 0.08),
      rod([0.84, 0.86], [0.95, 0.8], [0.055, 0.035], 0.1),
      rod([0.12, 0.62], [0.05, 0.3], [0.035, 0.025], 0.12),
      rod([0.2, 0.52], [0.17, 0.06], [0.055, 0.035], 0.1),
      rod([0.32, 0.5], [0.3, 0.06], [0.055, 0.035], 0.16),
      rod([0.62, 0.5], [0.6, 0.06], [0.05, 0.035], 0.16),
      rod([0.72, 0.52], [0.76, 0.06], [0.05, 0.035], 0.1),
    ]),
    0.95,
  );

/** Folds of a wing that lies between two angles about a root: sharp pleats that widen outwards, and a tip that is cut off round. */
function wing(root: number[], from: number, to: number, [reach, folds]: [number, number]): Heights {
  return (x, y) => {
    const [dx, dy] = [x - root[0], y - root[1]];
    const r = Math.hypot(dx, dy);
    const t = (Math.atan2(dy, dx) - from) / (to - from);
    if (r > reach || t < 0 || t > 1) return null;
    const pleat = Math.abs(((t * folds) % 1) - 0.5) * 2;
    return 0.05 + 0.17 * (r / reach) * (1 - 0.85 * pleat) + 0.03 * (1 - pleat);
  };
}

/** A moth from above: four folded wings with narrow clefts between them, and a round body. */
export const moth = (): Float32Array =>
  sheet(
    highest([
      rod([0.5, 0.2], [0.5, 0.62], [0.035, 0.05], 0.14),
      wing([0.53, 0.48], -0.05, 1.05, [0.46, 5]),
      wing([0.53, 0.42], -1.15, -0.16, [0.4, 4]),
      wing([0.47, 0.48], Math.PI - 1.05, Math.PI + 0.05, [0.46, 5]),
      wing([0.47, 0.42], -Math.PI + 0.16, -Math.PI + 1.15, [0.4, 4]),
    ]),
    0.9,
  );
