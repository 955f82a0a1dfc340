import type { Layer } from '../../doc/layer';
import type { Found } from '../../findings/finding';
import type { BeforeCut, LayerSeen } from './rule';

/** A check of every layer that is shown, told at the layer's middle. */
export function forLayers(
  { view, layers }: BeforeCut,
  check: (l: Layer, seen: LayerSeen) => Pick<Found, 'severity' | 'figures' | 'fixes'> | null,
  rule: string,
): Found[] {
  return layers.flatMap((seen) => {
    const l = view.layers.find((o) => o.id === seen.id);
    const found = l && check(l, seen);
    if (!found) return [];
    return [
      { rule, subject: { setup: view.setup.id, layer: l.id }, place: { x: l.centre.x, y: l.centre.y }, ...found },
    ];
  });
}
