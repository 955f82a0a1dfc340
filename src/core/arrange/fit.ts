import { inSetup } from '../doc/edits';
import type { Layer } from '../doc/layer';
import type { Edit } from '../findings/edit';
import type { Fix } from '../findings/finding';
import { joinBounds } from '../outline/polygon';
import type { SetupView } from '../setup/view';
import { clean } from '../units/round';
import type { SurfaceFacts } from './compose';
import { sourceKind } from './kinds/registry';
import { fitUniformly, seatedDepth } from './ledger';
import { boundsOf } from './place';

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

/** Whether a layer's size is all that has to change to make it smaller: words and copies have lengths of their own. */
const scales = (l: Layer) => !sourceKind(l).scaled && l.copies.kind === 'one' && l.mask.kind !== 'outline';

/** Makes what is on the board smaller about the middle, so that it keeps a margin to all edges, mm. */
export function smaller(view: Arranged, margin: number): Fix[] {
  const layers = shownOf(view);
  if (layers.length === 0 || !layers.every(scales)) return [];
  const b = joinBounds(layers.map(boundsOf));
  const { board } = view;
  // A little less, so that rounding to cells does not bring the finding back.
  const k = 0.995 * Math.min((board.x - 2 * margin) / (b.x1 - b.x0), (board.y - 2 * margin) / (b.y1 - b.y0));
  if (!(k > 0.05)) return [];
  const scale = Math.min(1, k);
  const [mx, my] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  const edits = layers.flatMap((l) => [
    setLayer(view, l, 'size', { x: clean(l.size.x * scale), y: clean(l.size.y * scale) }),
    setLayer(view, l, 'centre', {
      x: clean(board.x / 2 + (l.centre.x - mx) * scale),
      y: clean(board.y / 2 + (l.centre.y - my) * scale),
    }),
  ]);
  return [{ id: 'make-smaller', figures: { share: clean(scale * 100) }, edits }];
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
