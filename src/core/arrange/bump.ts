import type { Layer } from '../doc/layer';

/** Whether a model that is itself a recess is joined so that its rim makes a bump. */
export function isBump(layer: Pick<Layer, 'join' | 'invert'>, recess: boolean): boolean {
  const digs = (layer.join === 'carve' && layer.invert) || (layer.join === 'lowest' && !layer.invert);
  return recess && !digs;
}
