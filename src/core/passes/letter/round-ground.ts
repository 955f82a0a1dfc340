import { cellsWithin } from '../../arrange/cells-within';
import type { Groove } from '../../arrange/grooves';
import { type Cutter, type Profile, profileHeight, profileOf } from '../../cutter/cutter';
import { type Drum, inTurn, rowInTurn, unrolled } from '../../field/drum';
import { type HeightField, sampleField } from '../../field/height-field';
import { NearestOutline } from '../../outline/nearest';
import type { Ground } from './ground';

/** Distance between the places of an outline that hold the tip up, mm: between them it sinks by less than a thousandth. */
const ALONG = 0.05;
/** How much further than the nearest of them others may lie that hold it as high, as a share: the drum bends away to its sides only. */
const BESIDE = 1.25;
/** Side of the squares that they are kept in, mm. */
const SQUARE = 1;

/** How high a point of the wood holds the tip of a V bit, mm from the axis: rho cos a - t, at a radius, `a` round and `dx` along from the bit; never lower the less of its ray there is. */
function holds({ profile, rho, a, dx }: { profile: Profile; rho: number; a: number; dx: number }): number {
  const l = Math.hypot(dx, rho * Math.sin(a));
  return l > profile.R ? -Infinity : rho * Math.cos(a) - profileHeight(profile, l);
}

/** A place of an outline, mm, and how far from the axis the wood is there. */
interface Rim {
  x: number;
  y: number;
  rho: number;
}

/** The outline's places in squares, once a turn, so that what is near is found by its square. */
function rimOf(g: Groove, f: HeightField, { radius }: Drum): Map<string, Rim[]> {
  const out = new Map<string, Rim[]>();
  const turn = unrolled(radius);
  for (const r of g.polygon) {
    for (let i = 0, q = r.length - 2; i < r.length; q = i, i += 2) {
      const [dx, dy] = [r[i] - r[q], r[i + 1] - r[q + 1]];
      const n = Math.max(1, Math.ceil(Math.hypot(dx, dy) / ALONG));
      for (let s = 0; s < n; s++) {
        const [x, y] = [r[q] + (dx * s) / n, r[q + 1] + (dy * s) / n];
        const rho = radius + sampleField(f, x, y);
        for (const t of [-turn, 0, turn]) {
          const name = squareOf(x, y + t);
          const all = out.get(name);
          if (all) all.push({ x, y: y + t, rho });
          else out.set(name, [{ x, y: y + t, rho }]);
        }
      }
    }
  }
  return out;
}

const squareOf = (x: number, y: number) => `${Math.floor(x / SQUARE)},${Math.floor(y / SQUARE)}`;

/** The highest that wood outside of a groove's outline holds the tip, mm from the axis, or `floor`: whole rays on cells whose middles lie outside. */
function besideOf(g: Groove, f: HeightField, { radius, rows }: Drum, profile: Profile) {
  const { cells } = cellsWithin(g.polygon, f);
  return (x: number, y: number, floor: number): number => {
    let low = floor;
    const v = (y - f.originY) / f.cell;
    const round = (radius * Math.atan2(profile.R, Math.max(1e-9, low))) / f.cell;
    const i0 = Math.max(0, Math.ceil((x - profile.R - f.originX) / f.cell));
    const i1 = Math.min(f.width - 1, Math.floor((x + profile.R - f.originX) / f.cell));
    for (let row = Math.ceil(v - round); row <= Math.floor(v + round); row++) {
      const a = Math.abs((row - v) * f.cell) / radius;
      const [cos, sin] = [Math.cos(a), Math.sin(a)];
      const j = rowInTurn({ rows }, row) * f.width;
      for (let i = i0; i <= i1; i++) {
        if (cells[j + i]) continue;
        const dx = Math.abs(f.originX + i * f.cell - x);
        // Where a ray leaves the bit's side it holds it most; below that it rises, for rays bend less than the V opens.
        const most = sin > 1e-9 ? Math.sqrt(Math.max(0, profile.R ** 2 - dx * dx)) / sin : Infinity;
        const rho = Math.min(radius + f.data[j + i], most);
        if (rho * cos <= low) continue;
        low = Math.max(low, holds({ profile, rho, a, dx }));
      }
    }
    return low;
  };
}

/**
 * The ground of a groove round a drum: on it the tip goes down until the bit's sides touch the outline on the wood, as they stand there about the axis of
 * the bit, which points at the axis of turning; and no lower than wood outside of the outline lets it, or than the groove's deepest.
 */
export function roundGround(g: Groove, f: HeightField, drum: Drum, cutter: Cutter): Ground {
  const profile = profileOf(cutter);
  const near = new NearestOutline(g.polygon, 1);
  const rim = rimOf(g, f, drum);
  const beside = besideOf(g, f, drum, profile);
  const hit = { distance: 0, along: 0, ring: 0 };
  const { radius } = drum;
  const place = (x: number, y: number): [number, number] => {
    const surface = sampleField(f, x, y);
    const d = Math.min(profile.R, near.find(x, y, hit).distance * BESIDE + 2 * ALONG);
    let low = radius + surface - g.deepest;
    for (let i = Math.floor((x - d) / SQUARE); i <= Math.floor((x + d) / SQUARE); i++)
      for (let j = Math.floor((y - d) / SQUARE); j <= Math.floor((y + d) / SQUARE); j++)
        for (const p of rim.get(`${i},${j}`) ?? [])
          low = Math.max(low, holds({ profile, rho: p.rho, a: Math.abs(p.y - y) / radius, dx: Math.abs(p.x - x) }));
    return [Math.min(surface, beside(x, inTurn(drum, y), low) - radius), surface];
  };
  return { near, place, middle: (x, y) => [x, y] };
}
