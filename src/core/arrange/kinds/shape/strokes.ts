import { isOf, type Layer } from '../../../doc/layer';
import { curvePoints } from '../../../outline/curve-points';
import { flattenLines, readSvgPath } from '../../../outline/flatten';
import { type Affine, applyPoint, type Bounds, placing, polygonBounds } from '../../../outline/polygon';
import { clean } from '../../../units/round';

/** More points than these are no longer dragged one by one. */
const MOST = 40;
const FLAT = 0.01;

export type Strokes = { kind: 'strokes'; d: string; width: number };

/** The drawn lines of a layer that can be taken by their points; null for others. */
export function strokesOf(l: Layer): Strokes | null {
  const o = isOf(l, 'shape') ? l.source.outline : null;
  return o?.kind === 'strokes' && !/z/i.test(o.d) && curvePoints(o.d).length <= MOST ? o : null;
}

/** Box of drawn lines, y upwards. */
const boxOf = (d: string): Bounds => polygonBounds(flattenLines(readSvgPath(d), FLAT).map((l) => l.points));

/** From the lines' own frame (y upwards) to the board: they fill the layer's size less the pen's width. */
export function strokesFrame(l: Layer, o: Strokes): Affine {
  const b = boxOf(o.d);
  const scale = (long: number, to: number) => (long > 1e-9 ? Math.max(1e-6, to - o.width) / long : 0);
  const [sx, sy] = [scale(b.x1 - b.x0, l.size.x), scale(b.y1 - b.y0, l.size.y)];
  const [kx, ky] = [sx || sy || 1, sy || sx || 1];
  const [a, bb, c, d] = placing(l.mirror ? -kx : kx, ky, l.turn, 0, 0);
  const [mx, my] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  return [a, bb, c, d, l.centre.x - a * mx - c * my, l.centre.y - bb * mx - d * my];
}

/** Gives a layer other lines: what of them was not moved stays where it is on the board. */
export function drawStrokes(l: Layer, d: string): void {
  const o = strokesOf(l);
  if (!o) return;
  const frame = strokesFrame(l, o);
  const box = boxOf(d);
  const [kx, ky] = [Math.hypot(frame[0], frame[1]), Math.hypot(frame[2], frame[3])];
  const [x, y] = applyPoint(frame, (box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2);
  o.d = d;
  l.size = {
    x: clean(Math.max(o.width, (box.x1 - box.x0) * kx + o.width)),
    y: clean(Math.max(o.width, (box.y1 - box.y0) * ky + o.width)),
  };
  l.centre = { x: clean(x), y: clean(y) };
}
