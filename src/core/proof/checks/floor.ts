import { shallower } from '../../arrange/fit';
import { seatedDepth } from '../../arrange/ledger';
import { inSetup } from '../../doc/edits';
import type { Fix } from '../../findings/finding';
import { clean } from '../../units/round';
import type { AfterBoard, Rule } from './rule';

/** A little more, so that what is cut too deep within its limit does not bring the finding back, mm. */
const SPARE = 0.05;

function fixes({ view, thinnest, composite }: AfterBoard): Fix[] {
  const lacking = view.board.web + SPARE - thinnest.web;
  const { skin } = view.seat;
  const out = shallower(view, composite, seatedDepth(view.seat, composite) - lacking);
  if (skin >= lacking)
    out.unshift({
      id: 'less-skin',
      figures: { skin: clean(skin - lacking) },
      edits: [{ set: inSetup(view, 'seat', 'skin'), to: clean(skin - lacking) }],
    });
  return out;
}

/** Too little board left, or none. */
export const floor: Rule = {
  id: 'floor',
  board(at) {
    const { view, thinnest } = at;
    const { web: least } = view.board;
    if (thinnest.web >= least - 1e-6) return [];
    const open = thinnest.web <= 0;
    return [
      {
        rule: 'floor',
        severity: open ? 'error' : 'warning',
        subject: { setup: view.setup.id },
        place: { x: thinnest.x, y: thinnest.y },
        figures: { left: thinnest.web, least, bed: open && view.setup.spoilboard === null },
        fixes: fixes(at),
      },
    ];
  },
};
