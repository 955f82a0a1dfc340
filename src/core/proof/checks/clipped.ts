import { inSetup } from '../../doc/edits';
import type { Fix } from '../../findings/finding';
import { clean } from '../../units/round';
import type { BeforeCut, Rule } from './rule';

/** A little more than what is clipped, mm. */
const SPARE = 0.01;

/** A sunk piece lies deeper; what is carved below the base plane of a raised one is carved less deep. */
function fixes({ view, composite }: BeforeCut): Fix[] {
  const { most } = composite.clipped;
  const { seat } = view;
  if (seat.mode === 'sunk') {
    const drop = clean(seat.drop + most + SPARE);
    return [{ id: 'sink-deeper', figures: { drop }, edits: [{ set: inSetup(view, 'seat', 'drop'), to: drop }] }];
  }
  const carved = view.layers.filter((l) => !l.hidden && l.join === 'carve' && l.rise > most + SPARE + 0.1);
  const last = carved[carved.length - 1];
  if (!last) return [];
  const rise = clean(last.rise - most - SPARE);
  return [
    {
      id: 'carve-less',
      figures: { layer: last.name, rise },
      edits: [{ set: inSetup(view, 'layers', { id: last.id }, 'rise'), to: rise }],
    },
  ];
}

/** What of the joined layers lies beyond the base plane, or over the top of a sunk piece, and is lost. */
export const clipped: Rule = {
  id: 'clipped',
  before(at) {
    const { view, composite } = at;
    const { area, most, x, y } = composite.clipped;
    if (area === 0) return [];
    return [
      {
        rule: 'clipped',
        severity: 'warning',
        subject: { setup: view.setup.id },
        place: { x, y },
        figures: { sunk: view.seat.mode === 'sunk', area, most },
        fixes: fixes(at),
      },
    ];
  },
};
