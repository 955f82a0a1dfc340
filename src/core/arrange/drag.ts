import type { Layer } from '../doc/layer';
import { clean } from '../units/round';

type Point = { x: number; y: number };

/** Least that a layer is sized down to along its longer side, mm. */
const LEAST = 1;

/** A place in a layer's own axes, from its middle, both counted positive. */
function within(l: Pick<Layer, 'centre' | 'turn'>, p: Point): { u: number; v: number } {
  const a = (-l.turn * Math.PI) / 180;
  const [dx, dy] = [p.x - l.centre.x, p.y - l.centre.y];
  return { u: Math.abs(dx * Math.cos(a) - dy * Math.sin(a)), v: Math.abs(dx * Math.sin(a) + dy * Math.cos(a)) };
}

/**
 * How many times as large a layer becomes along its own axes when a corner of it is dragged about its middle.
 * @param freed whether its proportions may change
 */
export function sizedBy(
  l: Pick<Layer, 'centre' | 'turn' | 'size'>,
  from: Point,
  to: Point,
  freed: boolean,
): [kx: number, ky: number] {
  const [was, now] = [within(l, from), within(l, to)];
  const least = LEAST / Math.max(l.size.x, l.size.y);
  const times = (a: number, b: number) => Math.max(least, a / Math.max(1e-6, b));
  if (freed) return [times(now.u, was.u), times(now.v, was.v)];
  const k = times(Math.hypot(now.u, now.v), Math.hypot(was.u, was.v));
  return [k, k];
}

/** Steps that a layer is turned by, degrees; fine ones on request. */
const TURNS = { usual: 5, fine: 0.1 };

/** The turn at which a layer's upper side points at a place, -180 up to 180 degrees. */
export function turnedTo(l: Pick<Layer, 'centre'>, p: Point, fine: boolean): number {
  const angle = (Math.atan2(p.y - l.centre.y, p.x - l.centre.x) * 180) / Math.PI - 90;
  const step = fine ? TURNS.fine : TURNS.usual;
  return clean(((Math.round(angle / step) * step + 540) % 360) - 180);
}

/** A drag kept to the axis along which it goes further. */
export const alongOneAxis = (dx: number, dy: number): [number, number] =>
  Math.abs(dx) > Math.abs(dy) ? [dx, 0] : [0, dy];
