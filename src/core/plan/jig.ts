import { mirroredCopy } from '../arrange/new-layer';
import { copyBounds } from '../arrange/place';
import { addsToOutline } from '../arrange/silhouette';
import type { Cutter } from '../cutter/cutter';
import type { Board } from '../doc/board';
import { materialNamed } from '../doc/defaults';
import { inSetup } from '../doc/edits';
import { setupsOf } from '../doc/job';
import type { Layer } from '../doc/layer';
import { freshId } from '../doc/library';
import { WHOLE_PIECE } from '../doc/outline-ref';
import type { Pass } from '../doc/pass';
import type { Setup } from '../doc/setup';
import type { Edit } from '../findings/edit';
import { joinBoxes } from '../outline/boxes';
import type { Bounds } from '../outline/polygon';
import { cutout } from '../passes/cutout/kind';
import { hole } from '../passes/hole/kind';
import { JIG_CLEARANCE } from '../passes/register-error';
import { frameBetween } from '../setup/frame';
import { type SetupView, viewOf } from '../setup/view';
import { clean } from '../units/round';
import { proposeSetup } from './propose';

/** A notch for a finger beside each pocket: its diameter, and how far beyond the pocket's edge its middle lies (common practice, no source), mm. */
const NOTCH = { across: 14, beyond: 4 };
/** How far beyond the pocket's edge the mark is drilled that says which way a piece lies, mm. */
const MARK = 5;
/** Tabs that hold each plug until it is broken out, mm. */
const TAB = { each: 2, length: 5, thickness: 1.5 };

/** The setup before another that cuts the pieces which it finds. */
const cutBefore = ({ board, setup }: SetupView): Setup | undefined =>
  board.setups.slice(0, board.setups.indexOf(setup)).findLast((s) => s.layers.length > 0);

/** What makes the outline of the pieces, as they lie in the setup that they are put into. */
function piecesIn({ board, setup }: SetupView, before: Setup): Layer[] {
  const { turned } = frameBetween(board, before, setup);
  return before.layers
    .filter((l) => addsToOutline(l, before.seat.mode))
    .map((l): Layer => {
      const seen = turned ? mirroredCopy(l, l.id, turned.about === 'about-y' ? 'x' : 'y', board) : structuredClone(l);
      return {
        ...seen,
        id: `${l.id}-jig`,
        name: l.name,
        hidden: true,
        shared: null,
        group: null,
        mask: { kind: 'none' },
      };
    });
}

/** The jig's passes: notches, holes in the middle and beside each pocket, and the pocket along the piece's outline, all with one bit. */
function passesOf(own: SetupView, bit: Cutter, pieces: Bounds[], of: string[]): Pass[] {
  const middles = pieces.map((b) => ({ x: clean((b.x0 + b.x1) / 2), y: clean((b.y0 + b.y1) / 2) }));
  const into = own.setup.spoilboard === null ? 0 : 0.5;
  const holes = { ...hole.propose(own, bit), depth: null, into, peck: bit.maxStepdown };
  const notches = pieces.map((b, i) => ({ x: clean(b.x1 + NOTCH.beyond), y: middles[i].y }));
  const marks = pieces.map((b, i) => ({ x: middles[i].x, y: clean(b.y1 + MARK) }));
  const along = cutout.propose(own, bit);
  const { tabs, ...rest } = along;
  return [
    { ...holes, id: 'jig-notches', diameter: Math.max(NOTCH.across, clean(2 * bit.diameter)), places: notches },
    { ...holes, id: 'jig-holes', diameter: clean(1.5 * bit.diameter), places: [...middles, ...marks] },
    {
      ...rest,
      id: 'jig-pockets',
      outline: { ...WHOLE_PIECE, of, grow: JIG_CLEARANCE },
      side: 'inside',
      start: 'top',
      tabs: {
        ...tabs,
        count: TAB.each * pieces.length,
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
  const { board, setup, document, machine } = view;
  const before = cutBefore(view);
  const bit = view.cutters.filter((c) => c.shape === 'endmill').sort((a, b) => a.diameter - b.diameter)[0];
  if (!before || !bit || document.boards.some((b) => b.jigFor === setup.id)) return null;
  const layers = piecesIn(view, before);
  if (layers.length === 0) return null;
  const thickness = clean(Math.max(1, Math.floor(board.thickness) / 2));
  const made: Setup = {
    ...proposeSetup(board, machine),
    id: freshId(
      setupsOf(document).map((p) => ({ id: p.setup.id })),
      'jig',
    ),
    name: 'Jig',
    zero: { ...setup.zero, z: 'top' },
    place: { ...setup.place },
    spoilboard: setup.spoilboard,
    heights: { ...setup.heights },
    seat: { mode: 'sunk', skin: 0, drop: 0, press: null },
    layers,
  };
  const jig: Board = {
    ...structuredClone(board),
    id: freshId(document.boards, 'jig'),
    name: `Jig for ${board.name}`.slice(0, 80),
    thickness,
    material: materialNamed('MDF'),
    grain: 'none',
    face: 'bare',
    openings: [],
    jigFor: setup.id,
    setups: [made],
  };
  const own = viewOf(document, { board: jig, setup: made });
  const pieces = joinBoxes(layers.flatMap(copyBounds), 0);
  made.passes = passesOf(
    own,
    bit,
    pieces,
    layers.map((l) => l.id),
  );
  const at = document.boards.indexOf(board);
  return {
    board: jig.id,
    edits: [
      { insert: ['boards'], at, value: jig },
      { set: inSetup(view, 'register'), to: 'jig' },
    ],
  };
}
