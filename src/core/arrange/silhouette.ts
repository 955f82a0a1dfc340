import type { Layer, SeenLayer } from '../doc/layer';
import type { OutlineRef } from '../doc/outline-ref';
import type { Turning } from '../doc/parts';
import { contourRings, ringArea, simplifyRing } from '../field/contours';
import { AIR, type Grid } from '../field/height-field';
import type { Polygon } from '../outline/polygon';
import { dropHoles, type Joining, joinPolygons, offsetPolygon, smoothPolygon, unionRings } from '../outline/union';
import { copiesAsOne } from './copies';
import type { Content } from './kinds/kind';
import { polygonOf } from './render';
import type { Rendered } from './rendered';
import { windowGrid } from './window';

/** Furthest that arcs of offsets lie from true ones, mm. */
export const OUTLINE_TOLERANCE = 0.002;
/** How far a traced outline may lie off the crossings between cells, in cells. */
const WANDER = 0.6;

/** What a layer is, to have its silhouette taken. */
export interface Shown {
  layer: SeenLayer;
  content: Content;
  rendered: Rendered;
}

/** The rings around the cells of a window that are set, halfway to those that are not. Board coordinates, mm. */
export function traceCells(set: (k: number) => boolean, g: Grid): Polygon {
  const n = g.width * g.height;
  const values = new Float32Array(n);
  for (let k = 0; k < n; k++) values[k] = set(k) ? 0.5 : -0.5;
  return (contourRings(values, g.width, g.height)[0] ?? []).map((r) => {
    // The border around the grid counts as -1: half a cell beyond the outermost cells is a third of the way there.
    const out = simplifyRing(r, WANDER);
    for (let i = 0; i < out.length; i += 2) {
      out[i] = g.originX + out[i] * g.cell;
      out[i + 1] = g.originY + out[i + 1] * g.cell;
    }
    return out;
  });
}

/** The silhouette of one layer: its own outline where it is made of one, else traced around its cells. */
function silhouetteOfOne({ layer, content, rendered }: Shown, grid: Grid): Polygon {
  const { turnedIn } = layer;
  const local = layer.mask.kind === 'none' ? polygonOf(layer, content) : null;
  if (local) {
    const rings = copiesAsOne(layer, local);
    return turnedIn === undefined ? rings : turnPolygon(rings, turnedIn);
  }
  const { heights, weight } = rendered;
  return traceCells((k) => heights[k] !== AIR && (weight === null || weight[k] > 0), windowGrid(grid, rendered.window));
}

/** Rings as they are seen from the other side of a board; their inside stays at the left. */
function turnPolygon(rings: Polygon, { about, over }: Turning): Polygon {
  const across = about === 'about-y';
  return rings.map((r) => {
    const out = new Float64Array(r.length);
    for (let i = 0, q = r.length - 2; i < r.length; i += 2, q -= 2) {
      out[i] = across ? over - r[q] : r[q];
      out[i + 1] = across ? r[q + 1] : over - r[q + 1];
    }
    return out;
  });
}

/** Whether a layer adds to the piece's outline. */
export function addsToOutline(l: Layer, mode: 'raised' | 'sunk'): boolean {
  return !l.hidden && (mode === 'sunk' || l.join === 'stack' || l.join === 'highest' || l.join === 'blend');
}

/** How the outlines of several layers become one: all of them, the lowest without the others, or what they share. */
export function joinSilhouettes(how: Joining, shown: Shown[], grid: Grid): Polygon {
  return shown.map((s) => silhouetteOfOne(s, grid)).reduce((a, b) => joinPolygons(how, a, b));
}

/**
 * The outline that a reference means, rings with their inside at the left, board coordinates, mm.
 * @param shown the job's layers that are not hidden
 */
export function outlineOf(ref: OutlineRef, shown: Shown[], grid: Grid, mode: 'raised' | 'sunk'): Polygon {
  const together = (wanted: (l: Layer) => boolean) =>
    unionRings(shown.filter((s) => wanted(s.layer)).flatMap((s) => silhouetteOfOne(s, grid)));
  const { of, less } = ref;
  let out = of ? together((l) => of.includes(l.id)) : together((l) => addsToOutline(l, mode));
  if (!ref.holes) out = dropHoles(out);
  if (less.length > 0)
    out = joinPolygons(
      'difference',
      out,
      together((l) => less.includes(l.id)),
    );
  return changeOutline(out, ref);
}

/** An outline smoothed and made larger as a reference says. */
export function changeOutline(polygon: Polygon, ref: Pick<OutlineRef, 'smooth' | 'grow' | 'corner'>): Polygon {
  const smoothed = smoothPolygon(polygon, ref.smooth, OUTLINE_TOLERANCE);
  return offsetPolygon(smoothed, ref.grow, OUTLINE_TOLERANCE, ref.corner).filter((r) => Math.abs(ringArea(r)) > 1e-6);
}
