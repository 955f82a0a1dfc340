import { type Profile, profileHeight } from '../cutter/cutter';
import { type Drum, rowInTurn } from '../field/drum';
import { AIR, goesRound, type HeightField } from '../field/height-field';
import { kernels, layOut } from './wasm';

/** Rows worked on at a time, as for the cutter offset. */
const BAND = 256;
/** More than the rounding of a radius, mm. */
const SURE = 1e-3;
/** Stands for a ray that may hold a tip however far it reaches out. */
const FREE = 1e9;

const up = (n: number, to: number) => Math.ceil(n / to) * to;
/** Steps of the search for the radius of a ray that holds a tip most: the golden section of a millimetre down to 1e-7. */
const STEPS = 40;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/**
 * How high over the axis a point of a ray holds a tip, mm: rho cos a - t(sqrt(dx^2 + (rho sin a)^2)), t the cutter's profile.
 * @param a angle between the ray and the bit, radians
 * @param dx how far along the axis it lies from the bit, mm
 */
export const holdsTip = (profile: Profile, wider: number, rho: number, a: number, dx: number): number =>
  rho * Math.cos(a) - profileHeight(profile, Math.max(0, Math.hypot(dx, rho * Math.sin(a)) - wider));

/**
 * The radius at which a ray holds a tip most, mm; -1 where all of it lies outside of the cutter. What holds it rises up to there and falls beyond,
 * for cutters are convex: so a ray that reaches less far holds it with its end.
 */
export function holdsMost(profile: Profile, wider: number, a: number, dx: number): number {
  const R = profile.R + wider;
  if (dx > R + 1e-6) return -1;
  const w = Math.sqrt(Math.max(0, R * R - dx * dx));
  const s = Math.sin(a);
  if (s < 1e-12) return FREE;
  if (profile.shape === 0) return w / s;
  if (profile.shape === 1 && wider === 0) return w / Math.tan(a);
  let [from, to] = [0, w / s];
  for (let i = 0; i < STEPS; i++) {
    const [p, q] = [to - (to - from) * GOLDEN, from + (to - from) * GOLDEN];
    if (holdsTip(profile, wider, p, a, dx) < holdsTip(profile, wider, q, a, dx)) from = p;
    else to = q;
  }
  return (from + to) / 2;
}

/** Tips over rows of a field are held from here on at least, mm: by their own rays, which are the least of all where none of them is air. */
function heldFrom(f: HeightField, drum: Drum, [y0, y1]: [number, number]): number {
  let least = Infinity;
  for (let k = y0 * f.width; k < y1 * f.width; k++) if (f.data[k] < least) least = f.data[k];
  return drum.radius + least - SURE;
}

/** The least radius of the rays over rows of a field that are material, mm; AIR is none. */
function leastRadius(f: HeightField, { radius }: Drum, [y0, y1]: [number, number]): number {
  let least = Infinity;
  for (let k = y0 * f.width; k < y1 * f.width; k++) if (f.data[k] > AIR / 2 && f.data[k] < least) least = f.data[k];
  return radius + Math.min(0, least);
}

/**
 * Rows on either side of one that can hold a tip there: further round a ray holds it no higher than w / tan a, which is less than its own ray does.
 */
export function rowsRound(f: HeightField, drum: Drum, R: number, rows: [number, number]): number {
  const least = leastRadius(f, drum, rows);
  if (!Number.isFinite(least)) return 0;
  const most = Math.floor(drum.rows / 4);
  return Math.min(most, Math.ceil(Math.atan2(R, Math.max(1e-9, least)) / ((2 * Math.PI) / drum.rows)));
}

/** Radii of the rows y0 - J .. y1 + J of a field, padded by `pad` floats either side; beyond the ends of a field that goes not round is air. @returns the least of them */
function copyRays(
  f: HeightField,
  drum: Drum,
  [y0, y1]: [number, number],
  at: { J: number; pad: number; stride: number; src: number },
): number {
  const { J, pad, stride, src } = at;
  let least = Infinity;
  const view = new Float32Array(kernels().memory.buffer, src, (y1 - y0 + 2 * J) * stride).fill(AIR);
  for (let y = y0 - J; y < y1 + J; y++) {
    const j = goesRound(f) ? rowInTurn(drum, y) : y;
    if (j < 0 || j >= f.height) continue;
    const to = (y - y0 + J) * stride + pad;
    for (let i = 0; i < f.width; i++) {
      const r = f.data[j * f.width + i] + drum.radius;
      view[to + i] = r;
      if (r > AIR / 2 && r < least) least = r;
    }
  }
  return Number.isFinite(least) ? Math.max(0, least) : 0;
}

/** Highest of a field's heights, mm. */
function highest({ data }: HeightField): number {
  let high = AIR;
  for (let k = 0; k < data.length; k++) if (data[k] > high) high = data[k];
  return high;
}

/** What the tips of a cutter can be held by around a drum. */
interface Around {
  profile: Profile;
  /** By how much the cutter is grown outwards, mm. */
  wider: number;
  /** How far from its axis it reaches, cells. */
  R: number;
  /** Rows on either side that are looked at, and floats that each takes. */
  most: number;
  tStride: number;
  /** The highest of all radii, and the least from which a tip can be held, mm. */
  top: number;
  least: number;
}

/**
 * For the angles one row apart, up to the last at which a ray can hold a tip: for every place along the axis how high over the axis the place of a ray
 * stands that holds a tip most (a flat end: its radius), -1 where it lies outside of the cutter or holds none higher than its own ray does.
 */
function starsOf(f: HeightField, drum: Drum, { profile, wider, R, most, tStride, top, least }: Around): Float32Array {
  const stars: number[] = [];
  for (let j = 0; j <= most; j++) {
    const a = (2 * Math.PI * j) / drum.rows;
    const row = new Array<number>(tStride).fill(-1);
    for (let dx = 0; dx <= R; dx++) {
      const star = holdsMost(profile, wider, a, dx * f.cell);
      if (star < 0 || holdsTip(profile, wider, Math.min(star, top), a, dx * f.cell) < least) break;
      row[dx] = profile.shape === 0 ? star : star * Math.cos(a);
    }
    if (row[0] < 0) break;
    stars.push(...row);
  }
  return Float32Array.from(stars);
}

/** Cosine and sine of angles one row apart. */
const turnsOf = (drum: Drum, n: number): number[] =>
  Array.from({ length: n }, (_, j) => (2 * Math.PI * j) / drum.rows).flatMap((a) => [Math.cos(a), Math.sin(a)]);

/** For every angle up to how many cells along the axis rays that reach out to `top` all end inside a flat-ended cutter; -1 for none. */
function wholeWidths(stars: Float32Array, tStride: number, R: number, top: number): number[] {
  return Array.from({ length: stars.length / tStride }, (_, j) => {
    let w = -1;
    while (w < R && stars[j * tStride + w + 1] >= top) w++;
    return w;
  });
}

/**
 * Highest safe tip position around a drum, on the cells' rays. The bit's axis is radial, its tip at radius r; a point of a ray at distance dx along
 * and a round, at any radius up to the ray's own (the whole ray collides, not only its end), stands rho sin a beside the axis and rho cos a along
 * it, so that r(x, a) = max over dx, a with cos a > 0 and over rho <= rho' of rho cos a - t(sqrt(dx^2 + (rho sin a)^2)). Equal to that definition
 * within float rounding. What lies outside of the field is air.
 * @param wider by how much the cutter is grown outwards, mm
 * @param rows rows of the field to work out
 * @returns heights of the tip, as the field's, `width` floats a row
 */
export function drumOffset(
  f: HeightField,
  drum: Drum,
  profile: Profile,
  wider: number,
  rows: [number, number] = [0, f.height],
): Float32Array {
  const k = kernels();
  const R = Math.floor((profile.R + wider) / f.cell + 1e-6);
  const width16 = up(f.width, 16);
  const pad = up(R + 40, 8);
  const stride = width16 + 2 * pad;
  const [nb, tStride] = [stride >> 3, up(R + 1, 32) + 32];
  const top = drum.radius + highest(f);
  const most = rowsRound(f, drum, profile.R + wider, rows);
  const near = starsOf(f, drum, { profile, wider, R, most, tStride, top, least: heldFrom(f, drum, rows) });
  const J = Math.max(0, near.length / tStride - 1);
  const band = Math.min(BAND, rows[1] - rows[0]);
  // A flat end needs windows of its rays' highest instead of blocks.
  const levels = profile.shape === 0 ? 32 - Math.clz32(2 * R + 1) : 0;
  const [src, blocks, starAt, turnAt, scratch, dst, maxima, wholeAt] = layOut([
    (band + 2 * J) * stride * 4,
    (band + 2 * J) * nb * 4,
    (J + 1) * tStride * 4,
    (J + 1) * 8,
    stride * 4 + nb * 16,
    band * width16 * 4,
    (band + 2 * J) * levels * stride * 4,
    (J + 1) * 4,
  ]);
  new Float32Array(k.memory.buffer, starAt, near.length).set(near);
  new Float32Array(k.memory.buffer, turnAt, 2 * (J + 1)).set(turnsOf(drum, J + 1));
  if (levels > 0) new Int32Array(k.memory.buffer, wholeAt, J + 1).set(wholeWidths(near, tStride, R, top));
  const { shape, p0, p1, p2 } = profile;
  const out = new Float32Array((rows[1] - rows[0]) * f.width);
  for (let y0 = rows[0]; y0 < rows[1]; y0 += band) {
    const y1 = Math.min(rows[1], y0 + band);
    const low = copyRays(f, drum, [y0, y1], { J, pad, stride, src });
    if (levels > 0) {
      for (let j = 0; j < y1 - y0 + 2 * J; j++)
        k.rowMaxima(src + j * stride * 4, stride, levels, maxima + j * levels * stride * 4);
      k.drumFlatBand(src, maxima, wholeAt, starAt, turnAt, dst, stride, pad, width16, y1 - y0, J, tStride, levels);
    } else {
      k.blockMax8(src, (y1 - y0 + 2 * J) * nb, blocks);
      k.drumBand(
        ...[src, blocks, starAt, turnAt, scratch, dst, stride, pad, width16, y1 - y0, J, R, tStride, f.cell, low],
        ...[shape, profile.R, p0, p1, p2, wider],
      );
    }
    const view = new Float32Array(k.memory.buffer, dst, band * width16);
    for (let y = y0; y < y1; y++)
      for (let i = 0; i < f.width; i++) out[(y - rows[0]) * f.width + i] = view[(y - y0) * width16 + i] - drum.radius;
  }
  return out;
}
