import type { Layer } from '../doc/layer';
import type { Polygon } from '../outline/polygon';
import { copiesAsOne } from './copies';
import type { Content } from './kinds/kind';
import { sourceKind } from './kinds/registry';
import { polygonOf } from './render';

/** What a V bit is to cut: outlines on the board whose walls fall at the bit's angle, down to a deepest place. */
export interface Groove {
  layer: string;
  /** Rings with their inside at the left, board coordinates, mm. */
  polygon: Polygon;
  /** Full angle between the walls, degrees. */
  angle: number;
  /** Deepest below the surface beneath; wider parts get a level bottom there, mm. */
  deepest: number;
}

/** How the ground within a layer's outline is shaped; null for one without an outline. */
const reliefOf = (l: Layer) => sourceKind(l).relief?.(l) ?? null;

/** Layers that are shaped as V grooves, with the angle that they are shaped for. */
export function veesOf(layers: Layer[]): { layer: Layer; angle: number }[] {
  return layers.flatMap((layer) => {
    const relief = reliefOf(layer);
    return !layer.hidden && relief?.kind === 'vee' ? [{ layer, angle: relief.angle }] : [];
  });
}

/** Whether a layer is cut as V grooves into what lies beneath it. */
export const isGroove = (l: Layer): boolean => !l.hidden && l.join === 'carve' && reliefOf(l)?.kind === 'vee';

/** The grooves of a layer, all its copies in one. @throws RangeError for a layer that is none, see isGroove */
export function grooveOf(l: Layer, content: Content): Groove {
  const relief = reliefOf(l);
  if (relief?.kind !== 'vee') throw new RangeError(`${l.name} is not shaped as a V groove`);
  return {
    layer: l.id,
    polygon: copiesAsOne(l, polygonOf(l, content) ?? []),
    angle: relief.angle,
    deepest: l.rise + l.lift,
  };
}

/** Deepest of a new groove, mm: as deep as most V bits go at once (common practice, no source). */
const DEEPEST = 3;

/** Makes a layer of an outline V grooves of an angle, carved into what lies beneath it; another is left as it is. */
export function makeGroove(l: Layer, angle: number): void {
  if (!('relief' in l.source)) return;
  l.source.relief = { kind: 'vee', angle };
  Object.assign(l, { join: 'carve', lift: 0, rise: DEEPEST, invert: false });
}
