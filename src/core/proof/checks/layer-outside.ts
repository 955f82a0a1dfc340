import { centred, smaller } from '../../arrange/fit';
import { boundsOf } from '../../arrange/place';
import type { Rule } from './rule';

/** Layers that reach beyond the board. */
export const layerOutside: Rule = {
  id: 'layer-outside',
  before({ view }) {
    const { board } = view;
    return view.layers.flatMap((l) => {
      if (l.hidden) return [];
      const b = boundsOf(l);
      const [cx, cy] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
      const over = [
        { beyond: -b.x0, x: 0, y: cy },
        { beyond: b.x1 - board.x, x: board.x, y: cy },
        // Round a drum what reaches over the seam comes back on the other side.
        ...(board.drum
          ? []
          : [
              { beyond: -b.y0, x: cx, y: 0 },
              { beyond: b.y1 - board.y, x: cx, y: board.y },
            ]),
      ].sort((p, q) => q.beyond - p.beyond)[0];
      if (over.beyond <= 0.01) return [];
      return [
        {
          rule: 'layer-outside',
          severity: 'error' as const,
          subject: { setup: view.setup.id, layer: l.id },
          place: { x: over.x, y: over.y },
          figures: { layer: l.name, width: l.size.x, height: l.size.y, beyond: over.beyond },
          fixes: [...centred(view, 0), ...smaller(view, 0)],
        },
      ];
    });
  },
};
