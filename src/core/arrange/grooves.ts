import type { Layer } from '../doc/layer';
import type { Polygon } from '../outline/polygon';
import { type Content, polygonOf } from './render';
import { copiesAsOne } from './silhouette';

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

/** Layers that are shaped as V grooves, with the angle that they are shaped for. */
export function veesOf(layers: Layer[]): { layer: Layer; angle: number }[] {
  return layers.flatMap((layer) => {
    const { source } = layer;
    if (layer.hidden || (source.kind !== 'words' && source.kind !== 'shape') || source.relief.kind !== 'vee') return [];
    return [{ layer, angle: source.relief.angle }];
  });
}

/** Whether a layer is cut as V grooves into what lies beneath it. */
export function isGroove(l: Layer): boolean {
  return (
    !l.hidden &&
    l.join === 'carve' &&
    (l.source.kind === 'shape' || l.source.kind === 'words') &&
    l.source.relief.kind === 'vee'
  );
}

/** The grooves of a layer, all its copies in one. @throws RangeError for a layer that is none, see isGroove */
export function grooveOf(l: Layer, content: Content): Groove {
  const relief = 'relief' in l.source ? l.source.relief : null;
  if (relief?.kind !== 'vee') throw new RangeError(`${l.name} is not shaped as a V groove`);
  return {
    layer: l.id,
    polygon: copiesAsOne(l, polygonOf(l, content) ?? []),
    angle: relief.angle,
    deepest: l.rise + l.lift,
  };
}
