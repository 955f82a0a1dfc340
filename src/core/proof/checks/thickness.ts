import { shallower } from '../../arrange/fit';
import { seatedDepth } from '../../arrange/ledger';
import { inSetup } from '../../doc/edits';
import type { Fix } from '../../findings/finding';
import { clean } from '../../units/round';
import type { BeforeCut, Rule } from './rule';

/** A little more than the least floor, so that what is cut too deep within its limit leaves it, mm. */
const SPARE = 0.05;

function fixes({ view, composite }: BeforeCut): Fix[] {
  const { seat, board } = view;
  const depth = seatedDepth(seat, composite);
  const room = board.thickness - board.web - SPARE;
  const out = shallower(view, composite, room - seat.skin);
  if (seat.skin > 0 && depth <= room)
    out.unshift({
      id: 'less-skin',
      figures: { skin: clean(room - depth) },
      edits: [{ set: inSetup(view, 'seat', 'skin'), to: clean(room - depth) }],
    });
  return out;
}

/** Layers and skin that need more than the board has. */
export const thickness: Rule = {
  id: 'thickness',
  before(at) {
    const { view, composite } = at;
    const { seat, board } = view;
    const depth = seatedDepth(seat, composite);
    if (depth + seat.skin <= board.thickness) return [];
    return [
      {
        rule: 'thickness',
        severity: 'error',
        subject: { setup: view.setup.id },
        place: { x: composite.peakAt.x, y: composite.peakAt.y },
        figures: {
          sunk: seat.mode === 'sunk',
          depth,
          skin: seat.skin,
          needed: depth + seat.skin,
          thickness: board.thickness,
        },
        fixes: fixes(at),
      },
    ];
  },
};
