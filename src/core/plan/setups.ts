import { inBoard } from '../doc/edits';
import { setupsOf } from '../doc/job';
import type { Setup, Side } from '../doc/setup';
import type { Edit } from '../findings/edit';
import { inOrder } from '../passes/order';
import type { SkimPass } from '../passes/skim/schema';
import { frameBetween, placeThrough } from '../setup/frame';
import type { SetupView } from '../setup/view';
import { proposeSetup } from './propose';

const NAMES: Record<Side, string> = { face: 'Face', back: 'Back' };

/** An id that no setup of the job has. */
function freeSetupId(view: SetupView, up: Side): string {
  const taken = new Set(setupsOf(view.document).map((p) => p.setup.id));
  let id: string = up;
  for (let n = 2; taken.has(id); n++) id = `${up}-${n}`;
  return id;
}

/** A further clamping of a board: zeroed, held high and laid on the table as the given one is, with nothing on it yet. */
export function furtherSetup(view: SetupView, up: Side): Setup {
  const { setup, board, machine } = view;
  const id = freeSetupId(view, up);
  const count = board.setups.filter((s) => s.up === up).length;
  return {
    ...proposeSetup(board, machine),
    id,
    name: count === 0 ? NAMES[up] : `${NAMES[up]} ${count + 1}`,
    up,
    zero: { ...setup.zero },
    place: { ...setup.place },
    spoilboard: setup.spoilboard,
    heights: { ...setup.heights },
  };
}

/** Edits that add a setup behind the board's others. */
export function addSetup(view: SetupView, up: Side): { id: string; edits: Edit[] } {
  const setup = furtherSetup(view, up);
  return { id: setup.id, edits: [{ insert: inBoard(view, 'setups'), at: view.board.setups.length, value: setup }] };
}

/**
 * Edits that skim the board's other side instead: the pass goes into a setup of that side before this one, which is made where there is
 * none, and its places with it.
 * @returns the id of that setup
 */
export function skimOtherSide(view: SetupView, pass: SkimPass): { id: string; edits: Edit[] } {
  const { board, setup } = view;
  const up = setup.up === 'face' ? 'back' : 'face';
  const here = board.setups.findIndex((s) => s.id === setup.id);
  const had = board.setups.slice(0, here).find((s) => s.up === up);
  const other = had ?? furtherSetup(view, up);
  const frame = frameBetween(board, setup, other);
  const moved = { ...pass, points: pass.points.map((p) => placeThrough(frame, p)) };
  const at = inBoard(view, 'setups');
  return {
    id: other.id,
    edits: [
      { remove: [...at, { id: setup.id }, 'passes', { id: pass.id }] },
      had
        ? { set: [...at, { id: had.id }, 'passes'], to: inOrder([moved, ...had.passes]) }
        : { insert: at, at: here, value: { ...other, passes: [moved] } },
    ],
  };
}
