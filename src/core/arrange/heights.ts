import type { Board } from '../doc/board';
import { type Gap, type Layer, type Seat, THE_BOARD } from '../doc/layer';
import { clean } from '../units/round';

/** How high something reaches: its foot or lowest place, and its top, mm over the base plane. */
export interface Heights {
  low: number;
  high: number;
}

/**
 * How high a layer reaches by its own figures: from its lift by its rise upwards, or downwards where it is carved. What it stands on is not
 * counted: two layers on the same ground lie to each other as their heights do.
 */
export function heightsOf({ join, lift, rise }: Pick<Layer, 'join' | 'lift' | 'rise'>): Heights {
  return join === 'carve' ? { low: -lift - rise, high: -lift } : { low: lift, high: lift + rise };
}

/**
 * How high the board reaches over the base plane of a sunk piece; null for one that stands above cleared ground, whose base plane lies as far below
 * the board's top as the whole stands high.
 */
export function boardHeights(
  seat: Pick<Seat, 'mode' | 'drop' | 'skin'>,
  { thickness }: Pick<Board, 'thickness'>,
): Heights | null {
  const high = seat.drop + seat.skin;
  return seat.mode === 'sunk' ? { low: high - thickness, high } : null;
}

/** Raises a layer with all that it reaches, mm. */
export function raiseLayer(l: Pick<Layer, 'join' | 'lift'>, by: number): void {
  l.lift = clean(l.join === 'carve' ? l.lift - by : l.lift + by);
}

/** What a height is kept among. */
export interface InHeight {
  layers: Layer[];
  seat: Pick<Seat, 'mode' | 'drop' | 'skin'>;
  board: Pick<Board, 'thickness'>;
}

/** How far the layer that a kept height places is from where it is to stand, mm upwards; null where an end is not there. */
export function heightOff(g: Gap, { layers, seat, board }: InHeight): number | null {
  const reach = (id: string): Heights | null => {
    if (id === THE_BOARD) return boardHeights(seat, board);
    const l = layers.find((o) => o.id === id);
    return l ? heightsOf(l) : null;
  };
  const [of, from] = [reach(g.of), reach(g.from)];
  if (!of || !from) return null;
  const side = (h: Heights, s: Gap['ofSide']) => (s === 'low' ? h.low : s === 'high' ? h.high : (h.low + h.high) / 2);
  return side(from, g.fromSide) + g.distance - side(of, g.ofSide);
}

const SETTLED = 1e-6;

/**
 * Keeps heights between layers: the one that a height is kept of follows the other, and what follows it comes after it. A locked one stays, and
 * so do layers that follow each other in a circle.
 * @returns ids of those that could not be kept
 */
export function keepHeights(gaps: Gap[], at: InHeight): string[] {
  const waiting = gaps.filter((g) => g.axis === 'z');
  const broken: string[] = [];
  while (waiting.length > 0) {
    const next = waiting.findIndex((g) => !waiting.some((o) => o.of === g.from));
    if (next < 0)
      return [...broken, ...waiting.filter((g) => Math.abs(heightOff(g, at) ?? 0) > SETTLED).map((g) => g.id)];
    const [g] = waiting.splice(next, 1);
    const off = heightOff(g, at);
    if (off === null || Math.abs(off) <= SETTLED) continue;
    const layer = at.layers.find((l) => l.id === g.of);
    if (!layer || layer.locked) broken.push(g.id);
    else raiseLayer(layer, off);
  }
  return broken;
}
