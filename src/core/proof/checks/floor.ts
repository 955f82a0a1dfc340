import { shallower } from '../../arrange/fit';
import { seatedDepth } from '../../arrange/ledger';
import { inBoard, inSetup } from '../../doc/edits';
import type { Fix, Found } from '../../findings/finding';
import { frameBetween, placeThrough } from '../../setup/frame';
import { clean } from '../../units/round';
import type { AfterBoard, Rule, ThinPlace } from './rule';

/** A little more, so that what is cut too deep within its limit does not bring the finding back, mm. */
const SPARE = 0.05;

/** Less skin or less rise of one face; which of them is named where both faces are carved. */
function ofFace({ view, composite }: AfterBoard['faces'][number], lacking: number, alone: boolean): Fix[] {
  const { skin } = view.seat;
  const out = shallower(view, composite, seatedDepth(view.seat, composite) - lacking);
  if (skin >= lacking)
    out.unshift({
      id: 'less-skin',
      figures: { skin: clean(skin - lacking) },
      edits: [{ set: inSetup(view, 'seat', 'skin'), to: clean(skin - lacking) }],
    });
  return alone ? out : out.map((f) => ({ ...f, figures: { ...f.figures, face: view.setup.name } }));
}

function fixes({ view, faces }: AfterBoard, place: ThinPlace): Fix[] {
  const { board, setup } = view;
  const lacking = board.web + SPARE - place.web;
  const out = faces.flatMap((f) => ofFace(f, lacking, faces.length === 1));
  const both = new Set(faces.map((f) => f.view.setup.up)).size > 1;
  if (!both) return out;
  const thickness = clean(board.thickness + lacking);
  out.push({
    id: 'thicker-board',
    figures: { thickness },
    edits: [{ set: inBoard(view, 'thickness'), to: thickness }],
  });
  if (place.web > 0) return out;
  const { x, y } = placeThrough(frameBetween(board, setup, { up: 'face' }), { x: place.x, y: place.y });
  const value = { x: clean(x), y: clean(y) };
  out.push({
    id: 'open-on-purpose',
    figures: {},
    edits: [{ insert: inBoard(view, 'openings'), at: board.openings.length, value }],
  });
  return out;
}

/** Too little board left, or none: every opening, and the thinnest of what still stands. */
export const floor: Rule = {
  id: 'floor',
  board(at) {
    const { view, thin } = at;
    const { web: least } = view.board;
    const open = thin.filter((p) => p.web <= 0);
    const weak = thin.filter((p) => p.web > 0 && p.web < least - 1e-6).slice(0, 1);
    return [...open, ...weak].map(
      (p): Found => ({
        rule: 'floor',
        severity: p.web <= 0 ? 'error' : 'warning',
        subject: { setup: view.setup.id },
        place: { x: p.x, y: p.y },
        figures: { left: p.web, least, bed: p.web <= 0 && view.setup.spoilboard === null },
        fixes: fixes(at, p),
      }),
    );
  },
};
