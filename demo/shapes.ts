/** Reliefs of the sample shop, an invented mill bakehouse, as plain functions of the place in mm. */

/** A relief over a rounded rectangle or ellipse centred on 0, 0. */
export interface Shape {
  width: number;
  height: number;
  rise: number;
  /** Distance from the centre to the outline along a direction. */
  rim(dx: number, dy: number): number;
  inside(x: number, y: number): boolean;
  /** Height over the base, mm, inside the outline. */
  at(x: number, y: number): number;
}

export function smooth(a: number, b: number, v: number): number {
  const t = Math.max(0, Math.min(1, (v - a) / (b - a)));
  return t * t * (3 - 2 * t);
}

/** A dome with a soft foot over an ellipse of half axes a, b turned by `turn` radians. */
export function dome(
  x: number,
  y: number,
  cx: number,
  cy: number,
  a: number,
  b: number,
  turn: number,
  h: number,
): number {
  const c = Math.cos(turn);
  const s = Math.sin(turn);
  const u = ((x - cx) * c + (y - cy) * s) / a;
  const v = (-(x - cx) * s + (y - cy) * c) / b;
  return h * Math.max(0, 1 - u * u - v * v) ** 1.5;
}

/** A round bar from (x0, y0) to (x1, y1), half as thick as wide. */
export function bar(
  x: number,
  y: number,
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  r: number,
  h: number,
): number {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const t = Math.max(0, Math.min(1, ((x - x0) * dx + (y - y0) * dy) / (dx * dx + dy * dy)));
  const d = Math.hypot(x - x0 - t * dx, y - y0 - t * dy) / r;
  return h * Math.max(0, 1 - d * d) ** 1.5;
}

/** Inside distance to the edge of a rounded rectangle of half sizes a, b and corner radius r. */
function insideRounded(x: number, y: number, a: number, b: number, r: number): number {
  const qx = Math.abs(x) - (a - r);
  const qy = Math.abs(y) - (b - r);
  return r - Math.hypot(Math.max(qx, 0), Math.max(qy, 0)) - Math.min(Math.max(qx, qy), 0);
}

function roundedRim(a: number, b: number, r: number): Shape['rim'] {
  return (dx, dy) => {
    let low = 0;
    let high = a + b;
    for (let i = 0; i < 50; i++) {
      const m = (low + high) / 2;
      if (insideRounded(dx * m, dy * m, a, b, r) > 0) low = m;
      else high = m;
    }
    return low;
  };
}

const FIELD = 3.4;

/** One part of the sheaf, and a circle that holds it: outside, it adds nothing. */
interface Part {
  x: number;
  y: number;
  r: number;
  at(x: number, y: number): number;
}

const domePart = (cx: number, cy: number, a: number, b: number, turn: number, h: number): Part => ({
  x: cx,
  y: cy,
  r: Math.max(a, b),
  at: (x, y) => dome(x, y, cx, cy, a, b, turn, h),
});

const barPart = (x0: number, y0: number, x1: number, y1: number, r: number, h: number): Part => ({
  x: (x0 + x1) / 2,
  y: (y0 + y1) / 2,
  r: Math.hypot(x1 - x0, y1 - y0) / 2 + r,
  at: (x, y) => bar(x, y, x0, y0, x1, y1, r, h),
});

/** Nine ears on their stalks, and the band around them. */
function sheafParts(): Part[] {
  const parts: Part[] = [];
  for (let i = -4; i <= 4; i++) {
    const lean = i * 0.155;
    const [sx, sy] = [i * 1.5, -26];
    const [ex, ey] = [Math.sin(lean) * 52, -26 + Math.cos(lean) * 52];
    parts.push(barPart(sx, sy, ex, ey, 2.2, 2.2), barPart(sx, sy, -i * 4.6, -58 + Math.abs(i) * 2, 2.2, 2.2));
    for (let k = 0; k < 8; k++) {
      const along = k * 4.7;
      for (const side of [-1, 1]) {
        const gx = ex + Math.sin(lean) * along + Math.cos(lean) * side * 2.9;
        const gy = ey + Math.cos(lean) * along - Math.sin(lean) * side * 2.9;
        parts.push(domePart(gx, gy, 3.3, 5, -lean - side * 0.35, 4.4 - 0.12 * k));
      }
    }
    parts.push(domePart(ex + Math.sin(lean) * 37, ey + Math.cos(lean) * 37, 1.8, 4.5, -lean, 3.4));
  }
  parts.push(
    domePart(0, -26, 16, 7, 0, 6.6),
    domePart(-11, -37, 11, 4.6, 0.75, 4.4),
    domePart(11, -37, 11, 4.6, -0.75, 4.4),
  );
  return parts;
}

const SHEAF = sheafParts();

/** Height of the sheaf over a flat field at 0. */
export function sheaf(x: number, y: number): number {
  let h = 0;
  for (const p of SHEAF) {
    if ((x - p.x) * (x - p.x) + (y - p.y) * (y - p.y) < p.r * p.r) h = Math.max(h, p.at(x, y));
  }
  return h;
}

/** The wheat-sheaf wall plaque: a moulded rim around a flat field with a sheaf in it, 280 x 180 mm, 10.6 mm high. */
export const plaque: Shape = {
  width: 280,
  height: 180,
  rise: 10.6,
  rim: roundedRim(140, 90, 22),
  inside: (x, y) => insideRounded(x, y, 140, 90, 22) >= 0,
  at(x, y) {
    const d = insideRounded(x, y, 140, 90, 22);
    const rim = d < 11 ? 0.6 + 6.4 * smooth(-1, 11, d) : FIELD + (7 - FIELD) * (1 - smooth(11, 22, d));
    const bead = d > 22 && d < 28 ? FIELD + 1.2 * (1 - ((d - 25) / 3) ** 2) : 0;
    return d < 11 ? rim : Math.min(10.6, Math.max(rim, bead, FIELD + 1.09 * sheaf(x, y)));
  },
};

/** A loaf with three slashes, the pattern that the cookie mould is sunk with: 116 x 76 mm, 9 mm high. */
export const loaf: Shape = {
  width: 116,
  height: 76,
  rise: 9,
  rim: (dx, dy) => 1 / Math.hypot(dx / 58, dy / 38),
  inside: (x, y) => Math.hypot(x / 58, y / 38) <= 1,
  at(x, y) {
    const q = Math.min(1, Math.hypot(x / 58, y / 38));
    let h = 1.5 + 7.5 * (1 - q ** 3);
    for (const k of [-1, 0, 1]) h -= 2.6 * Math.max(0, bar(x, y, k * 26 - 9, -17, k * 26 + 9, 17, 4, 1));
    for (let i = 0; i < 24; i++) {
      const t = (i / 24) * 2 * Math.PI;
      h -= 1.1 * Math.max(0, dome(x, y, 50 * Math.cos(t), 31 * Math.sin(t), 2.6, 2.6, 0, 1));
    }
    return Math.max(0.8, h);
  },
};

/**
 * A closed mesh of a shape: the top over a square grid of about `step` mm, its border drawn to the outline, a skirt and a
 * flat back.
 * @returns nine floats a triangle, mm, base at z = 0
 */
export function shapeMesh(s: Shape, step: number): Float32Array {
  const nx = Math.round(s.width / step);
  const ny = Math.round(s.height / step);
  const place = (i: number, j: number): [number, number] => [(i / nx - 0.5) * s.width, (j / ny - 0.5) * s.height];
  // Corners outside lie on the outline instead, on their ray from the centre.
  const corners = new Float64Array((nx + 1) * (ny + 1) * 3);
  const within = new Uint8Array((nx + 1) * (ny + 1));
  for (let j = 0; j <= ny; j++) {
    for (let i = 0; i <= nx; i++) {
      const k = j * (nx + 1) + i;
      let [x, y] = place(i, j);
      if (s.inside(x, y)) within[k] = 1;
      else {
        const r = Math.hypot(x, y);
        const rim = s.rim(x / r, y / r);
        x *= rim / r;
        y *= rim / r;
      }
      corners.set([x, y, s.at(x, y)], k * 3);
    }
  }
  const out: number[] = [];
  const put = (k: number, flat: boolean) => out.push(corners[3 * k], corners[3 * k + 1], flat ? 0 : corners[3 * k + 2]);
  const edges = new Map<string, [number, number]>();
  const face = (a: number, b: number, c: number) => {
    for (const k of [a, b, c]) put(k, false);
    for (const k of [a, c, b]) put(k, true);
    for (const [p, q] of [
      [a, b],
      [b, c],
      [c, a],
    ]) {
      // An edge that a neighbour runs the other way is inside; one that none does is the outline.
      if (!edges.delete(`${q} ${p}`)) edges.set(`${p} ${q}`, [p, q]);
    }
  };
  for (let j = 0; j < ny; j++) {
    for (let i = 0; i < nx; i++) {
      const a = j * (nx + 1) + i;
      const square = [a, a + 1, a + nx + 2, a + nx + 1];
      if (!square.some((k) => within[k])) continue;
      face(square[0], square[1], square[2]);
      face(square[0], square[2], square[3]);
    }
  }
  for (const [p, q] of edges.values()) {
    put(p, true);
    put(q, true);
    put(q, false);
    put(p, true);
    put(q, false);
    put(p, false);
  }
  return Float32Array.from(out);
}

/** An S-shaped scroll with a volute at each end, as SVG path data: 240 x 80 mm. */
export const SCROLL =
  'M 0 40 C 0 10 40 -5 62 18 C 78 36 66 58 50 56 C 38 54 36 40 46 37 C 40 46 52 50 57 42 C 62 30 48 20 36 26 C 16 36 26 72 60 76 C 110 82 130 6 180 4 C 216 2 242 24 240 46 C 238 74 200 86 178 64 C 162 46 174 24 190 26 C 202 28 204 42 194 45 C 200 36 188 32 183 40 C 178 52 192 62 204 56 C 224 46 214 14 182 14 C 134 16 112 86 58 84 C 20 82 0 66 0 40 Z';
