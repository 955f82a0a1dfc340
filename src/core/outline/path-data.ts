import { BLOCK, fitArcs } from './arcs';
import type { Polygon, Ring } from './polygon';

/** A length as it is written: at most four decimals, none that are nothing. */
export const clean = (v: number) => String(Number(v.toFixed(4)));

/** Widest arc, radians: near half a turn its radius and ends hardly say any more where its centre is. */
const WIDEST = (2 * Math.PI) / 3;

/** The point of a ring at which its longest edge begins: there no arc is begun in its middle. */
function longestEdge(r: Ring): number {
  let at = 0;
  let most = -1;
  for (let i = 0; i < r.length; i += 2) {
    const q = (i + 2) % r.length;
    const long = Math.hypot(r[q] - r[i], r[q + 1] - r[i + 1]);
    if (long > most) [most, at] = [long, i / 2];
  }
  return at;
}

/** A ring as lines and arcs within a tolerance: where each ends, how it turns (0, 2 clockwise, 3), and the arc's centre. */
export function ringBlocks(ring: Ring, tolerance: number): Float64Array {
  const moves = new Float64Array((ring.length / 2 + 1) * 4);
  const first = longestEdge(ring);
  for (let i = 0; i <= ring.length / 2; i++) {
    const k = (2 * (first + i)) % ring.length;
    moves.set([ring[k], ring[k + 1], 0, i === 0 ? 0 : 1], 4 * i);
  }
  return fitArcs(moves, tolerance, WIDEST);
}

/**
 * SVG path data of a polygon with its y upwards, as lines and arcs within a tolerance, mm.
 * @param flip what y is measured down from
 */
export function pathData(polygon: Polygon, tolerance: number, flip: number): string {
  return polygon
    .map((ring) => {
      const b = ringBlocks(ring, tolerance);
      let d = `M ${clean(b[0])} ${clean(flip - b[1])}`;
      for (let k = BLOCK; k < b.length; k += BLOCK) {
        const end = `${clean(b[k])} ${clean(flip - b[k + 1])}`;
        const turn = b[k + 4];
        const r = clean(Math.hypot(b[k] - b[k + 5], b[k + 1] - b[k + 6]));
        // Counter-clockwise with y upwards is the other way round with y downwards, which SVG calls sweep 0.
        d += turn === 0 ? ` L ${end}` : ` A ${r} ${r} 0 0 ${turn === 2 ? 1 : 0} ${end}`;
      }
      return `${d} Z`;
    })
    .join(' ');
}
