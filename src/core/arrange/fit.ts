import { inBoard, inSetup } from '../doc/edits';
import type { Layer } from '../doc/layer';
import type { Edit, Step } from '../findings/edit';
import type { Fix } from '../findings/finding';
import { joinBounds } from '../outline/polygon';
import { type SetupView, setupView } from '../setup/view';
import { clean } from '../units/round';
import type { SurfaceFacts } from './compose';
import { fitUniformly, seatedDepth } from './ledger';
import { boundsOf } from './place';
import { scaleToMiddle, timesToFit } from './scale-whole';

type Arranged = Pick<SetupView, 'board' | 'setup' | 'layers' | 'seat'>;

const shownOf = (view: Arranged) => view.layers.filter((l) => !l.hidden);

const setLayer = (view: Arranged, l: Layer, field: string, to: unknown): Edit => ({
  set: inSetup(view, 'layers', { id: l.id }, field),
  to,
});

/** Edits that move all layers together so that the box around them lies in the board's middle. */
function toMiddle(view: Arranged, layers: Layer[]): Edit[] {
  const b = joinBounds(layers.map(boundsOf));
  const [dx, dy] = [view.board.x / 2 - (b.x0 + b.x1) / 2, view.board.y / 2 - (b.y0 + b.y1) / 2];
  return layers.map((l) => setLayer(view, l, 'centre', { x: clean(l.centre.x + dx), y: clean(l.centre.y + dy) }));
}

/** Centres what is on the board, where it then keeps a margin to all edges, mm. */
export function centred(view: Arranged, margin: number): Fix[] {
  const layers = shownOf(view);
  if (layers.length === 0) return [];
  const b = joinBounds(layers.map(boundsOf));
  const fits = b.x1 - b.x0 + 2 * margin <= view.board.x && b.y1 - b.y0 + 2 * margin <= view.board.y;
  return fits ? [{ id: 'centre', figures: {}, edits: toMiddle(view, layers) }] : [];
}

/** What has become another in a list of things with ids, as edits. */
function changed<T extends { id: string }>(path: Step[], was: T[], now: T[]): Edit[] {
  return now.flatMap((to, i) =>
    JSON.stringify(was[i]) === JSON.stringify(to) ? [] : [{ set: [...path, { id: to.id }], to }],
  );
}

/** Makes what is on the board smaller about the middle, in all its setups, so that it keeps a margin to all edges, mm. */
export function smaller(view: SetupView, margin: number): Fix[] {
  const fits = timesToFit(view, margin);
  // A little less, so that rounding to cells does not bring the finding back.
  const times = Math.min(1, 0.995 * (fits ?? 0));
  if (!(times > 0.05)) return [];
  const made = setupView(structuredClone(view.document), view.setup.id);
  scaleToMiddle(made, { times, heights: false });
  const edits = made.board.setups.flatMap((s, i) => {
    const was = view.board.setups[i];
    const of = (field: string) => inSetup({ board: made.board, setup: s }, field);
    return [
      ...changed(of('layers'), was.layers, s.layers),
      ...changed(of('gaps'), was.gaps, s.gaps),
      ...changed(of('passes'), was.passes, s.passes),
    ];
  });
  const { openings } = made.board;
  if (openings.length > 0) edits.push({ set: inBoard(view, 'openings'), to: openings });
  return [{ id: 'make-smaller', figures: { share: clean(times * 100) }, edits }];
}

/** Scales rises and lifts so that the arranged layers take `wanted` mm of depth. */
export function shallower(view: Arranged, facts: Pick<SurfaceFacts, 'peak' | 'low'>, wanted: number): Fix[] {
  const now = seatedDepth(view.seat, facts);
  if (!(wanted > 0.1) || wanted >= now || view.layers.length === 0) return [];
  const layers = structuredClone(view.layers);
  const factor = wanted / now;
  fitUniformly(layers, now, wanted);
  const edits: Edit[] = layers.flatMap((l) => [
    setLayer(view, l, 'rise', l.rise),
    setLayer(view, l, 'lift', l.lift),
    setLayer(view, l, 'slope', l.slope),
  ]);
  if (view.seat.mode === 'sunk') edits.push({ set: inSetup(view, 'seat', 'drop'), to: clean(view.seat.drop * factor) });
  return [{ id: 'less-rise', figures: { depth: clean(wanted) }, edits }];
}
