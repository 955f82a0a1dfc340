import type { Layer, Seat } from '../doc/layer';
import { clean } from '../units/round';
import type { SurfaceFacts } from './compose';

/** The depth budget of a job: the board's thickness is skin + highest point (or deepest, when sunk) + backing. */
export interface Ledger {
  thickness: number;
  skin: number;
  /** Depth of the joined layers: from their highest point to the base plane, or from the board's top to their deepest. */
  depth: number;
  backing: number;
  /** Depth and skin as a share of the thickness. */
  used: number;
  lines: {
    id: string;
    name: string;
    lift: number;
    rise: number /** Where its own top would lie over the base plane. */;
    top: number;
  }[];
}

/** Depth of the joined layers in the board, mm: over the base plane, or below the top less the skin of a sunk piece. */
export function seatedDepth(seat: Seat, s: Pick<SurfaceFacts, 'peak' | 'low'>): number {
  return seat.mode === 'sunk' ? Math.max(0, seat.drop - s.low) : s.peak;
}

export function ledgerOf(
  layers: Layer[],
  seat: Seat,
  thickness: number,
  s: Pick<SurfaceFacts, 'peak' | 'low'>,
): Ledger {
  const depth = seatedDepth(seat, s);
  return {
    thickness,
    skin: seat.skin,
    depth,
    backing: thickness - seat.skin - depth,
    used: (depth + seat.skin) / thickness,
    lines: layers
      .filter((l) => !l.hidden)
      .map((l) => ({
        id: l.id,
        name: l.name,
        lift: l.lift,
        rise: l.rise,
        top: l.join === 'carve' ? -l.lift - l.rise : l.lift + l.rise,
      })),
  };
}

/**
 * Scales every rise and lift by one factor so that the whole comes to `wanted` mm instead of `now`: all joins are linear or
 * keep their order under a common factor, so the composite scales with them, up to what a slope adds. Locked layers scale
 * too: the budget is the whole board's.
 */
export function fitUniformly(layers: Layer[], now: number, wanted: number): void {
  const k = wanted / now;
  for (const l of layers) {
    l.rise = clean(l.rise * k);
    l.lift = clean(l.lift * k);
    if (l.slope.x !== 0) l.slope.x = clean((Math.atan(Math.tan((l.slope.x * Math.PI) / 180) * k) * 180) / Math.PI);
    if (l.slope.y !== 0) l.slope.y = clean((Math.atan(Math.tan((l.slope.y * Math.PI) / 180) * k) * 180) / Math.PI);
  }
}

/** Least backing that a proposed depth leaves, and least depth that is proposed, mm (common practice, no source). */
const PROPOSED = { backing: 3.175, depth: 0.5 };

/** The depth that what is arranged is proposed to be fitted to: as it is, or what the board has room for, mm. */
export const proposedDepth = (depth: number, thickness: number, skin: number): number =>
  Number(Math.max(PROPOSED.depth, Math.min(depth, thickness - skin - PROPOSED.backing)).toFixed(2));

/** Scales all that is arranged to a depth, its seat with it. Nothing is done of nothing. */
export function fitWhole(layers: Layer[], seat: Seat, now: number, wanted: number): void {
  if (!(now > 0)) return;
  fitUniformly(layers, now, wanted);
  seat.drop = clean((seat.drop * wanted) / now);
}

/** The skin that leaves a backing under what is arranged, mm; none where there is no room for it. */
export const skinFor = (thickness: number, depth: number, backing: number): number =>
  clean(Math.max(0, thickness - depth - backing));

/** How far the base plane lies below the board's top, mm: what stands over it is sunk with it, what is carved starts from the top. */
export const dropFor = (mode: Seat['mode'], peak: number): number =>
  mode === 'sunk' ? Number(Math.max(0, peak).toFixed(3)) : 0;

/**
 * The press that brings a whole of `depth` mm to `wanted` by shortening only what lies beyond `above`; null when there is nothing to do.
 * @throws RangeError when `wanted` does not lie above `above`
 */
export function pressTo(depth: number, wanted: number, above: number): NonNullable<Seat['press']> | null {
  if (depth <= wanted) return null;
  if (!(wanted > above))
    throw new RangeError(`pressed parts must end above where they begin: ${wanted} mm is not above ${above} mm`);
  return { above: clean(above), factor: clean((wanted - above) / (depth - above)) };
}
