import type { HeightField } from '../field/height-field';

/** A section across a drum. */
export interface BarSection {
  /** Where along it, mm. */
  x: number;
  /** mm2. */
  area: number;
  /** Least section modulus in bending, about any axis through its middle, mm3. */
  modulus: number;
}

/** What is left of a drum: the largest circle about its axis that lies inside it everywhere, and the section that bends first. */
export interface Bar {
  core: { x: number; radius: number };
  weakest: BarSection;
}

/** The middle of a section and its second moments about it: sums over the triangles that its rays make with the axis. */
function moments(rho: Float64Array, cos: Float64Array, sin: Float64Array) {
  let [area, mx, my, xx, yy, xy] = [0, 0, 0, 0, 0, 0];
  const n = rho.length;
  for (let j = 0; j < n; j++) {
    const k = (j + 1) % n;
    const [ax, ay, bx, by] = [rho[j] * cos[j], rho[j] * sin[j], rho[k] * cos[k], rho[k] * sin[k]];
    const twice = ax * by - bx * ay;
    area += twice / 2;
    mx += ((ax + bx) * twice) / 6;
    my += ((ay + by) * twice) / 6;
    xx += ((ax * ax + ax * bx + bx * bx) * twice) / 12;
    yy += ((ay * ay + ay * by + by * by) * twice) / 12;
    xy += ((ax * by + 2 * ax * ay + 2 * bx * by + bx * ay) * twice) / 24;
  }
  if (area <= 0) return null;
  const [cx, cy] = [mx / area, my / area];
  return { area, cx, cy, xx: xx - area * cx * cx, yy: yy - area * cy * cy, xy: xy - area * cx * cy };
}

/** The least of second moment over farthest fibre, over axes through the middle every few degrees, mm3. */
function leastModulus(
  rho: Float64Array,
  cos: Float64Array,
  sin: Float64Array,
  m: NonNullable<ReturnType<typeof moments>>,
) {
  const AXES = 36;
  let least = Infinity;
  for (let q = 0; q < AXES; q++) {
    // Distances from an axis are measured along (c, s).
    const [c, s] = [Math.cos((Math.PI * q) / AXES), Math.sin((Math.PI * q) / AXES)];
    const second = m.xx * c * c + 2 * m.xy * c * s + m.yy * s * s;
    let far = 0;
    for (let j = 0; j < rho.length; j++)
      far = Math.max(far, Math.abs((rho[j] * cos[j] - m.cx) * c + (rho[j] * sin[j] - m.cy) * s));
    least = Math.min(least, second / far);
  }
  return least;
}

/** Columns between the sections that are looked at: none is so sharp that it would be missed. */
const STEP = 4;
/** Rays of a section, about. */
const RAYS = 360;

/**
 * What is left of a drum, section by section: area and second moments of the polygon of its rays by the sums over its triangles (any text on the
 * mechanics of materials), the modulus as the second moment over the distance of the farthest fibre.
 * @param f once round a drum
 * @param drum the radius from which its heights count, mm
 * @returns null where nothing is left of it somewhere
 */
export function barOf(f: HeightField, drum: number): Bar | null {
  const { width, height } = f;
  const step = Math.max(1, Math.floor(height / RAYS));
  const n = Math.floor(height / step);
  const [cos, sin] = [Math.cos, Math.sin].map((of) =>
    Float64Array.from({ length: n }, (_, j) => of((f.originY + j * step * f.cell) / drum)),
  );
  const rho = new Float64Array(n);
  let bar: Bar | null = null;
  for (let i = 0; i < width; i += STEP) {
    const x = f.originX + i * f.cell;
    let radius = Infinity;
    for (let j = 0; j < height; j++) radius = Math.min(radius, drum + f.data[j * width + i]);
    for (let j = 0; j < n; j++) rho[j] = Math.max(0, drum + f.data[j * step * width + i]);
    const m = moments(rho, cos, sin);
    if (!m || radius <= 0) return null;
    const section: BarSection = { x, area: m.area, modulus: leastModulus(rho, cos, sin, m) };
    bar ??= { core: { x, radius }, weakest: section };
    if (radius < bar.core.radius) bar.core = { x, radius };
    if (section.modulus < bar.weakest.modulus) bar.weakest = section;
  }
  return bar;
}

/** Diameter of the plain round bar that bends no sooner: its modulus is pi d^3 / 32, mm. */
export const plainBar = (modulus: number): number => Math.cbrt((32 * modulus) / Math.PI);
