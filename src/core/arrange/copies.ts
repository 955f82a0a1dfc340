import type { Copies, Layer } from '../doc/layer';
import { applyAffine, type Polygon } from '../outline/polygon';
import { CURVE_TOLERANCE } from '../outline/shapes';
import { alongStroke, readStroke } from '../outline/stroke';
import { evenRings, unionRings } from '../outline/union';
import { frameOf } from './window';

/** One of a layer's copies: where its middle lies from the layer's own, and how much further it is turned. */
export interface Copy {
  dx: number;
  dy: number;
  turn: number;
}

/** All the copies of a layer, itself among them. */
export function copiesOf(c: Copies): Copy[] {
  switch (c.kind) {
    case 'one':
      return [{ dx: 0, dy: 0, turn: 0 }];
    case 'rows':
      return Array.from({ length: c.columns * c.rows }, (_, k) => ({
        dx: ((k % c.columns) - (c.columns - 1) / 2) * c.dx,
        dy: (Math.floor(k / c.columns) - (c.rows - 1) / 2) * c.dy,
        turn: 0,
      }));
    case 'ring':
      return Array.from({ length: c.count }, (_, k) => {
        const a = Math.PI / 2 - (2 * Math.PI * k) / c.count;
        return { dx: c.radius * Math.cos(a), dy: c.radius * Math.sin(a), turn: c.turning ? (-360 * k) / c.count : 0 };
      });
    case 'path':
      return alongPath(c);
  }
}

/** Evenly along the stroke, the first at its start and the last at its end. */
function alongPath(c: Extract<Copies, { kind: 'path' }>): Copy[] {
  const stroke = readStroke(c.d, CURVE_TOLERANCE);
  return Array.from({ length: c.count }, (_, k) => {
    const p = alongStroke(stroke, c.count > 1 ? (stroke.total * k) / (c.count - 1) : stroke.total / 2);
    return { dx: p.x, dy: p.y, turn: c.turning ? (Math.atan2(p.n, p.c) * 180) / Math.PI : 0 };
  });
}

/** The copies of a layer's own outline on the board, each cleaned by itself and then all as one: where two overlap both count. */
export function copiesAsOne(l: Layer, local: Polygon): Polygon {
  return unionRings(copiesOf(l.copies).flatMap((c) => evenRings(applyAffine(local, frameOf(l, c)))));
}
