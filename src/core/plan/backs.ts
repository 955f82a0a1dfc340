import { mirroredCopy } from '../arrange/new-layer';
import { addsToOutline } from '../arrange/silhouette';
import { inBoard, inSetup } from '../doc/edits';
import { setupsOf } from '../doc/job';
import type { Layer } from '../doc/layer';
import { freshId } from '../doc/library';
import { bornBy } from '../doc/material';
import { WHOLE_PIECE } from '../doc/outline-ref';
import type { Pass } from '../doc/pass';
import type { Setup } from '../doc/setup';
import type { Edit } from '../findings/edit';
import { kindOf } from '../passes/registry';
import { bitFor } from '../passes/with-bit';
import { type SetupView, viewOf } from '../setup/view';
import { clean } from '../units/round';
import { furtherSetup } from './setups';

/** Ways in which a back follows from a face: the same piece seen from behind, or a recess inside its outline. */
export const BACKS = ['mirror', 'recess'] as const;
export type BackFrom = (typeof BACKS)[number];

/** Passes of a face that its mirror is cut by as well; the board is cut out and drilled once. */
const AGAIN: Pass['kind'][] = ['rough', 'flat', 'finish', 'letter', 'pocket'];
/** Wood that a recess leaves between itself and the outline, mm. */
const RIM = 8;

/** A copy of a part of a document in which layers have other ids. */
function renamed<T>(part: T, ids: Map<string, string>): T {
  const of = (v: unknown) => (typeof v === 'string' ? (ids.get(v) ?? v) : v);
  return JSON.parse(
    JSON.stringify(part, (key, v) => {
      if (key === 'layer') return of(v);
      return (key === 'of' || key === 'less') && Array.isArray(v) ? v.map(of) : v;
    }),
  );
}

/** What a layer and its mirror share: the name that it has already, or its own id. */
const oneOf = (l: Layer): string => l.shared ?? l.id;

/** The face's layers and passes as they lie on the board turned over: what is over it is under it. Each layer is one with the face's. */
function mirrorOf(view: SetupView, back: Setup): Setup {
  const { board, layers, seat, passes } = view;
  const taken = setupsOf(view.document).flatMap((p) => p.setup.layers);
  const ids = new Map<string, string>();
  for (const l of layers) {
    const id = freshId([...taken, ...[...ids.values()].map((i) => ({ id: i }))], `${l.id}-back`);
    ids.set(l.id, id);
  }
  const axis = board.flip === 'about-y' ? 'x' : 'y';
  const used = new Set(setupsOf(view.document).flatMap((p) => p.setup.passes.map((q) => q.id)));
  const own = (kind: Pass['kind']) => {
    let id: string = kind;
    for (let n = 2; used.has(id); n++) id = `${kind}-${n}`;
    used.add(id);
    return id;
  };
  return {
    ...back,
    layers: layers.map((l) =>
      renamed({ ...mirroredCopy(l, l.id, axis, board), id: ids.get(l.id)!, name: l.name, shared: oneOf(l) }, ids),
    ),
    gaps: [],
    seat: structuredClone(seat),
    passes: passes.filter((p) => AGAIN.includes(p.kind)).map((p) => ({ ...renamed(p, ids), id: own(p.kind) })),
  };
}

/** A pocket inside the outline of the face's layers, which goes on following them: a quarter of the board deep, and no deeper than its bit reaches. */
function recessIn(view: SetupView, back: Setup): Setup | null {
  const bit = bitFor('pocket', view.cutters);
  const of = view.layers.filter((l) => addsToOutline(l, view.seat.mode)).map((l) => l.id);
  if (!bit || of.length === 0) return null;
  const behind = viewOf(view.document, { board: view.board, setup: back });
  const pass = kindOf('pocket').propose(behind, bornBy(view.board.material, bit));
  if (pass.kind !== 'pocket') return null;
  const depth = clean(Math.max(0.5, Math.min(bit.fluteLength, view.board.thickness / 4)));
  return {
    ...back,
    seat: { mode: 'sunk', skin: 0, drop: 0, press: null },
    passes: [{ ...pass, outline: { ...WHOLE_PIECE, of, grow: -RIM }, depth }],
  };
}

/**
 * Edits that add a back made from a setup of the face, or a face from one of the back; null where the setup has no layers, or no bit clears a recess.
 * @returns the new setup's id
 */
export function backFrom(view: SetupView, how: BackFrom): { id: string; edits: Edit[] } | null {
  if (view.layers.length === 0) return null;
  const back = furtherSetup(view, view.setup.up === 'face' ? 'back' : 'face');
  const made = how === 'mirror' ? mirrorOf(view, back) : recessIn(view, back);
  if (!made) return null;
  const shared: Edit[] =
    how === 'mirror'
      ? view.layers.map((l) => ({ set: inSetup(view, 'layers', { id: l.id }, 'shared'), to: oneOf(l) }))
      : [];
  return {
    id: made.id,
    edits: [...shared, { insert: inBoard(view, 'setups'), at: view.board.setups.length, value: made }],
  };
}
