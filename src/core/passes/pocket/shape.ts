import { type Cutter, profileOf, radiusAt, stepoverFor, tipRadius } from '../../cutter/cutter';
import { ringArea } from '../../field/contours';
import type { Polygon } from '../../outline/polygon';
import { offsetPolygon } from '../../outline/union';
import type { Slot } from '../slots';
import type { PocketPass } from './schema';

/** Furthest that arcs of the wall's line lie from true ones, mm. */
const ARC = 0.002;
/** Ridge of the floor that is asked of a round tip, mm. */
const RIDGE = 0.005;
/** Lines over the floor of a flat bottom lie this share of its diameter apart. */
const OVER = 0.45;

/** How far inside a pocket's wall the tip stays at a depth, mm: as far as the bit is wide there at the board's top. */
export function insetAt(cutter: Cutter, depth: number): number {
  const profile = profileOf(cutter);
  return Math.min(profile.R, radiusAt(profile, depth));
}

/** The walls of a pocket at the board's top. */
export const wallsOf = (pass: PocketPass, outline: Polygon) => offsetPolygon(outline, pass.allowance, ARC);

/** Where the tip may be, `inset` mm inside the walls; empty where the bit does not fit. */
export const tipRoom = (walls: Polygon, inset: number) => offsetPolygon(walls, -inset, ARC);

/** Area of a polygon, its openings left out, mm2. */
const areaOf = (p: Polygon) => p.reduce((sum, r) => sum + ringArea(r), 0);

/** What of a pocket the bit does not get into, seen from above, mm2: its corners, and necks that are narrower than the bit. */
export function missedArea(walls: Polygon, inset: number): number {
  return Math.max(0, areaOf(walls) - areaOf(offsetPolygon(tipRoom(walls, inset), inset, ARC)));
}

/** What a pocket leaves in the target: all that its bit can take at the depth of its floor, the bit's own foot left standing at the walls. */
export function pocketSlot(pass: PocketPass, cutter: Cutter, outline: Polygon): Slot {
  const room = tipRoom(wallsOf(pass, outline), insetAt(cutter, pass.depth));
  const step = tipRadius(cutter) > 0 ? stepoverFor(cutter, RIDGE) : OVER * cutter.diameter;
  const chains: Float64Array[] = [];
  for (let rings = room; rings.length > 0; rings = offsetPolygon(rings, -step, ARC)) {
    for (const r of rings) {
      const points = new Float64Array((r.length / 2 + 1) * 3);
      for (let i = 0; i <= r.length / 2; i++) {
        const k = (2 * i) % r.length;
        points.set([r[k], r[k + 1], -pass.depth], 3 * i);
      }
      chains.push(points);
    }
  }
  return { cutter, chains, loose: null, through: false };
}
