import { mirroredCopy } from '../arrange/new-layer';
import { copyBounds } from '../arrange/place';
import { addsToOutline } from '../arrange/silhouette';
import type { Cutter } from '../cutter/cutter';
import type { Board } from '../doc/board';
import { materialNamed } from '../doc/defaults';
import { inSetup } from '../doc/edits';
import { setupsOf } from '../doc/job';
import type { Join, Layer } from '../doc/layer';
import { freshId } from '../doc/library';
import { type OutlineRef, WHOLE_PIECE } from '../doc/outline-ref';
import type { Pass } from '../doc/pass';
import type { Setup } from '../doc/setup';
import type { Edit } from '../findings/edit';
import { joinBoxes } from '../outline/boxes';
import type { Bounds } from '../outline/polygon';
import { cutout } from '../passes/cutout/kind';
import { hole } from '../passes/hole/kind';
import { JIG_CLEARANCE } from '../passes/register-error';
import { resolveTrenches } from '../passes/trenches';
import { frameBetween } from '../setup/frame';
import { type SetupView, viewOf } from '../setup/view';
import { clean } from '../units/round';
import { proposeSetup } from './propose';

/** A notch for a finger beside each pocket: its diameter, and how far beyond the pocket's edge its middle lies (common practice, no source), mm. */
const NOTCH = { across: 12, beyond: 3 };
/** How far beyond the pocket's edge the mark is drilled that says which way a piece lies, mm. */
const MARK = 5;
/** Tabs that hold each plug until it is broken out, two of them, mm. */
const TAB = { length: 5, thickness: 1.5 };

/** The setup before another that cuts the pieces which it finds. */
const cutBefore = ({ board, setup }: SetupView): Setup | undefined =>
  board.setups.slice(0, board.setups.indexOf(setup)).findLast((s) => s.layers.length > 0);

/** A layer of a setup as it lies in another of its board, under an id of its own; a mask is left behind with the layers that it names. */
function layerIn(board: Board, from: Setup, to: Setup, l: Layer): Layer {
  const { turned } = frameBetween(board, from, to);
  const seen = turned ? mirroredCopy(l, l.id, turned.about === 'about-y' ? 'x' : 'y', board) : structuredClone(l);
  const mask: Layer['mask'] = l.mask.kind === 'layer' ? { kind: 'none' } : seen.mask;
  return {
    ...seen,
    id: `${l.id.slice(0, 30)}-for-${to.id.slice(0, 29)}`,
    name: l.name,
    shared: null,
    group: null,
    mask,
  };
}

/** A board that holds another in a setup: as large, lying on the table where that lies, so that the setup's zero holds. */
function holder(view: SetupView, name: string, thickness: number, layers: Layer[]): { board: Board; own: SetupView } {
  const { board, setup, document, machine } = view;
  const taken = setupsOf(document).map((p) => ({ id: p.setup.id }));
  const made: Setup = {
    ...proposeSetup(board, machine),
    id: freshId(taken, name),
    name,
    zero: { ...setup.zero, z: 'top' },
    place: { ...setup.place },
    spoilboard: setup.spoilboard,
    heights: { ...setup.heights },
    seat: { mode: 'sunk', skin: 0, drop: 0, press: null },
    layers,
  };
  const held: Board = {
    ...structuredClone(board),
    id: freshId(document.boards, name),
    name: `${name} for ${board.name}`.slice(0, 80),
    thickness,
    material: materialNamed('MDF'),
    grain: 'none',
    face: 'bare',
    openings: [],
    jigFor: setup.id,
    setups: [made],
  };
  return { board: held, own: viewOf(document, { board: held, setup: made }) };
}

/** The jig's passes: notches, holes in the middle and beside each pocket, and the pocket along the piece's outline, all with one bit. */
function passesOf(own: SetupView, bit: Cutter, pieces: Bounds[], outline: OutlineRef): Pass[] {
  const middles = pieces.map((b) => ({ x: clean((b.x0 + b.x1) / 2), y: clean((b.y0 + b.y1) / 2) }));
  const into = own.setup.spoilboard === null ? 0 : 0.5;
  const holes = { ...hole.propose(own, bit), depth: null, into, peck: bit.maxStepdown };
  const diameter = Math.max(NOTCH.across, clean(2 * bit.diameter));
  /** Whether a piece has its notch at the right: there is room for it on the board. */
  const right = (b: Bounds) => b.x1 + NOTCH.beyond + diameter <= own.board.x;
  const notches = pieces.map((b, i) => ({
    x: clean(right(b) ? b.x1 + NOTCH.beyond : b.x0 - NOTCH.beyond),
    y: middles[i].y,
  }));
  // Tabs where neither a notch nor a mark takes the wood that they stand on.
  const tabsAt = pieces.flatMap((b, i) => [
    { x: right(b) ? b.x0 : b.x1, y: middles[i].y },
    { x: middles[i].x, y: b.y0 },
  ]);
  const marks = pieces.map((b, i) => ({ x: middles[i].x, y: clean(b.y1 + MARK) }));
  const along = cutout.propose(own, bit);
  const { tabs, ...rest } = along;
  return [
    { ...holes, id: `${own.setup.id}-notches`, diameter, places: notches },
    { ...holes, id: `${own.setup.id}-holes`, diameter: clean(1.5 * bit.diameter), places: [...middles, ...marks] },
    {
      ...rest,
      id: `${own.setup.id}-pockets`,
      outline,
      side: 'inside',
      start: 'top',
      tabs: {
        ...tabs,
        count: tabsAt.length,
        at: tabsAt,
        length: TAB.length,
        thickness: clean(Math.min(own.board.thickness, Math.max(TAB.thickness, tabs.thickness))),
      },
    },
  ];
}

/**
 * Edits that make a jig for the pieces which a setup finds cut out: a board of its own, half as thick as theirs, with a pocket around each that leaves
 * it a little play, a notch for the finger, a hole in the middle and a mark that says which way it lies. It lies on the table where the board lay, so that
 * the setup's zero holds. What is cut out of a pocket is its plug: as wide as the pocket less the bit's slot all around, its hole in the middle. Null where
 * no setup before cuts pieces, where there is a jig already, or where no bit of the job cuts one.
 */
export function addJig(view: SetupView): { board: string; edits: Edit[] } | null {
  const { board, setup, document } = view;
  const before = cutBefore(view);
  const bit = view.cutters.filter((c) => c.shape === 'endmill').sort((a, b) => a.diameter - b.diameter)[0];
  if (!before || !bit || heldBy(view)) return null;
  const along = before.passes.find((p) => p.kind === 'cutout')?.outline ?? WHOLE_PIECE;
  const layers = before.layers
    .filter((l) => (along.of ? along.of.includes(l.id) : addsToOutline(l, before.seat.mode)))
    .map((l) => ({ ...layerIn(board, before, setup, l), hidden: true }));
  if (layers.length === 0) return null;
  const made = holder(view, 'Jig', clean(Math.max(1, Math.floor(board.thickness) / 2)), layers);
  const outline = { ...along, of: layers.map((l) => l.id), less: [], grow: clean(along.grow + JIG_CLEARANCE) };
  made.own.passes = passesOf(made.own, bit, joinBoxes(layers.flatMap(copyBounds), 0), outline);
  return {
    board: made.board.id,
    edits: [
      { insert: ['boards'], at: document.boards.indexOf(board), value: made.board },
      { set: inSetup(view, 'register'), to: 'jig' },
    ],
  };
}

/** The board that holds a setup's, as a jig or a nest. */
const heldBy = ({ document, setup }: SetupView) => document.boards.find((b) => b.jigFor === setup.id);

/** Wood under the deepest place of a nest, and how far its edge stays off the wall of the trench that it lies in, mm. */
const NEST = { floor: 6, clear: 1 };

/**
 * Edits that make a nest for a setup to lie on: a board of its own that stands wherever its first side has been cut, the same reliefs taken the other way.
 * Of a piece that stands in a trench the nest is what fills the trench, and is cut out along it; of one that is sunk into its board it is a whole board
 * with what fills its hollows on it. Null where no setup before has cut the other side, where there is a nest or jig already, or where no bit is at hand.
 */
export function addNest(view: SetupView): { board: string; edits: Edit[] } | null {
  const { board, setup, document } = view;
  const before = cutBefore(view);
  if (!before || before.up === setup.up || heldBy(view)) return null;
  const from = viewOf(document, { board, setup: before });
  const shaping = before.passes.filter((p) => p.kind === 'rough' || p.kind === 'finish');
  const other: Partial<Record<Join, Join>> = { stack: 'carve', carve: 'stack' };
  const layers = before.layers
    .filter((l) => !l.hidden)
    .map((l) => ({ ...layerIn(board, before, setup, l), join: other[l.join] ?? l.join }));
  const bit = view.cutters.filter((c) => c.shape === 'endmill').sort((a, b) => b.diameter - a.diameter)[0];
  if (layers.length === 0 || shaping.length === 0 || !bit) return null;
  const high = Math.max(...before.layers.filter((l) => !l.hidden).map((l) => Math.max(0, l.lift) + l.rise));
  const made = holder(view, 'Nest', clean(Math.ceil(high + NEST.floor)), layers);
  const raised = before.seat.mode === 'raised';
  if (!raised) made.own.seat = { mode: 'raised', skin: 0, drop: 0, press: null };
  made.own.passes = shaping.map((p) => ({ ...structuredClone(p), id: `${made.own.setup.id}-${p.id}`.slice(0, 64) }));
  if (raised) {
    const grow = clean(Math.max(...resolveTrenches(from)) - NEST.clear);
    const along = cutout.propose(made.own, bit);
    const outline = { ...WHOLE_PIECE, of: layers.map((l) => l.id), grow };
    made.own.passes.push({ ...along, id: `${made.own.setup.id}-edge`, outline, start: 'top' });
  }
  return {
    board: made.board.id,
    edits: [{ insert: ['boards'], at: document.boards.indexOf(board), value: made.board }],
  };
}
