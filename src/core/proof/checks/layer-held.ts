import { boundsOf } from '../../arrange/place';
import { keptOf } from '../../doc/drum';
import type { Rule } from './rule';

/** Less of a layer than this is rounding, mm. */
const ROUNDING = 0.01;

/** Layers that reach into what is not carved of a drum: what holds it, what is glued on, or its collar. */
export const layerHeld: Rule = {
  id: 'layer-held',
  before: ({ view }) =>
    view.layers.flatMap((l) => {
      if (l.hidden) return [];
      const b = boundsOf(l);
      const most = keptOf(view.board)
        .map((k) => ({ ...k, over: Math.min(b.x1, k.to) - Math.max(b.x0, k.from) }))
        .sort((p, q) => q.over - p.over)[0];
      if (!most || most.over <= ROUNDING) return [];
      return [
        {
          rule: 'layer-held',
          severity: 'warning' as const,
          subject: { setup: view.setup.id, layer: l.id },
          place: { x: (most.from + most.to) / 2, y: l.centre.y },
          figures: { layer: l.name, what: most.what, over: most.over },
        },
      ];
    }),
};
