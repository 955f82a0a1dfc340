import { freeOf } from '../doc/drum';
import type { Layer } from '../doc/layer';
import { outlineOfPass, type Pass } from '../doc/pass';
import { mapPassPlaces } from '../doc/places';
import type { Setup } from '../doc/setup';
import { type Bounds, joinBounds } from '../outline/polygon';
import { boxThrough, type Frame, frameBetween, placeThrough } from '../setup/frame';
import type { SetupView } from '../setup/view';
import { clean } from '../units/round';
import { sourceKind } from './kinds/registry';
import { resizeLayer } from './new-layer';
import { type Arranged, boundsOf, keepGaps } from './place';
import { scaleCopies, scaleMask } from './scale-lengths';

interface Place {
  x: number;
  y: number;
}

/** How something is made larger or smaller: so many times, about a place that comes to lie at another, and its heights with it or not. */
export interface Scaling {
  times: number;
  about: Place;
  to: Place;
  heights: boolean;
}

const scaledPlace = ({ times: k, about, to }: Scaling, p: Place): Place => ({
  x: clean(to.x + (p.x - about.x) * k),
  y: clean(to.y + (p.y - about.y) * k),
});

/** A scaling as another setup of the board sees it. */
function seenFrom(frame: Frame, by: Scaling): Scaling {
  return { ...by, about: placeThrough(frame, by.about), to: placeThrough(frame, by.to) };
}

/** The slope of a plane whose rise stays while it is made k times as long, degrees. */
const flatter = (degrees: number, k: number) =>
  clean((Math.atan(Math.tan((degrees * Math.PI) / 180) / k) * 180) / Math.PI);

/** Makes one layer larger with all that is a length of it: its letters, borders, edges, copies and what it is cut off by. */
function scaleLayer(l: Layer, by: Scaling): void {
  const { times: k, heights } = by;
  const kind = sourceKind(l);
  if (kind.alongAxis) l.size.x = clean(l.size.x * k);
  else resizeLayer(l, k, k);
  kind.scaleLengths?.(l, k);
  l.centre = scaledPlace(by, l.centre);
  l.copies = scaleCopies(l.copies, k);
  l.mask = scaleMask(l.mask, k);
  l.thin = clean(l.thin * k);
  if (heights) {
    l.rise = clean(l.rise * k);
    l.lift = clean(l.lift * k);
  } else l.slope = { x: flatter(l.slope.x, k), y: flatter(l.slope.y, k) };
}

/** Scales the layers of those ids, and the distances that are kept between two of them; the rest follows. */
export function scaleLayers(view: Arranged, ids: string[], by: Scaling): void {
  for (const l of view.layers) if (ids.includes(l.id)) scaleLayer(l, by);
  for (const g of view.gaps)
    if (ids.includes(g.of) && ids.includes(g.from) && (g.axis !== 'z' || by.heights))
      g.distance = clean(g.distance * by.times);
  keepGaps(view, ids);
}

/** Scales what a pass has of the piece: its places and its outline, with the heights its depth. What belongs to its bit stays. */
function scalePass(p: Pass, by: Scaling): void {
  const { times: k, heights } = by;
  // A board was measured where it was measured, and a dowel's hole finds its place again.
  if (p.kind === 'skim' || (p.kind === 'hole' && p.dowel !== null)) return;
  mapPassPlaces(p, (at) => scaledPlace(by, at));
  const outline = outlineOfPass(p);
  if (outline) Object.assign(outline, { grow: clean(outline.grow * k), smooth: clean(outline.smooth * k) });
  if (p.kind === 'hang') p.length = clean(p.length * k);
  if (p.kind === 'pocket' && heights) p.depth = clean(p.depth * k);
}

function scaleSeat({ seat }: Setup, k: number): void {
  seat.drop = clean(seat.drop * k);
  if (seat.press) seat.press.above = clean(seat.press.above * k);
}

/**
 * Makes the whole piece larger or smaller, in all setups of its board: layers with their letters and borders, gaps, areas, outlines, holes, slots and
 * tabs, and with the heights also rises, lifts and depths of pockets. Bits, what they take, diameters of holes and the strength of tabs stay.
 * @param by with places as the view's setup sees them
 */
export function scaleWhole(view: SetupView, by: Scaling): void {
  const { board } = view;
  for (const s of board.setups) {
    const mine = seenFrom(frameBetween(board, view.setup, s), by);
    for (const p of s.passes) scalePass(p, mine);
    if (by.heights) scaleSeat(s, by.times);
    scaleLayers(
      { ...s, board },
      s.layers.map((l) => l.id),
      mine,
    );
  }
  const face = seenFrom(frameBetween(board, view.setup, { up: 'face' }), by);
  board.openings = board.openings.map((p) => scaledPlace(face, p));
}

/** The box around all layers of a board, as one of its setups sees it, mm; null where it has none. */
export function boundsOfWhole({ board, setup }: Pick<SetupView, 'board' | 'setup'>): Bounds | null {
  const boxes = board.setups.flatMap((s) => {
    const frame = frameBetween(board, s, setup);
    return s.layers.filter((l) => !l.hidden).map((l) => boxThrough(frame, boundsOf(l)));
  });
  return boxes.length > 0 ? joinBounds(boxes) : null;
}

const middle = ({ x0, y0, x1, y1 }: Bounds): Place => ({ x: (x0 + x1) / 2, y: (y0 + y1) / 2 });

/** Where on its board a piece may lie, mm: a margin from all edges; round a drum all round, and along it between what holds it. */
function roomOf({ board }: Pick<SetupView, 'board'>, margin: number): Bounds {
  const [from, to] = freeOf(board);
  const rim = board.drum ? 0 : margin;
  return { x0: from + margin, x1: to - margin, y0: rim, y1: board.y - rim };
}

/** Brings the middle of a whole piece to the middle of its board; round a drum along it alone. Nothing is done of nothing. */
export function centreWhole(view: SetupView): void {
  const box = boundsOfWhole(view);
  if (!box) return;
  const [about, to] = [middle(box), middle(roomOf(view, 0))];
  scaleWhole(view, { times: 1, about, to: view.board.drum ? { ...to, y: about.y } : to, heights: false });
}

/** How many times as large a whole piece fills its board up to a margin, mm; null where there is no piece, or no room. */
export function timesToFit(view: Pick<SetupView, 'board' | 'setup'>, margin: number): number | null {
  const box = boundsOfWhole(view);
  if (!box) return null;
  const room = roomOf(view, margin);
  const k = Math.min((room.x1 - room.x0) / (box.x1 - box.x0), (room.y1 - room.y0) / (box.y1 - box.y0));
  return k > 0 ? k : null;
}

/** Makes a whole piece so many times as large, and brings it to the middle of its board. */
export function scaleToMiddle(view: SetupView, { times, heights }: Pick<Scaling, 'times' | 'heights'>): void {
  const box = boundsOfWhole(view);
  if (box) scaleWhole(view, { times, about: middle(box), to: middle(roomOf(view, 0)), heights });
}

/** Makes a whole piece so many times as large about its own middle. */
export function scaleInPlace(view: SetupView, { times, heights }: Pick<Scaling, 'times' | 'heights'>): void {
  const box = boundsOfWhole(view);
  if (box) scaleWhole(view, { times, about: middle(box), to: middle(box), heights });
}
