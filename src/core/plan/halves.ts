import { addsToOutline } from '../arrange/silhouette';
import { inSetup } from '../doc/edits';
import type { Setup } from '../doc/setup';
import type { Edit } from '../findings/edit';
import type { CutoutPass } from '../passes/cutout/schema';
import { placeFor } from '../passes/order';
import { freeId } from '../passes/proposals';
import type { SetupView } from '../setup/view';
import { clean } from '../units/round';

/** The first setup of a board after another that lies the other way up; null where there is none. */
const turnedAfter = ({ board }: SetupView, setup: Setup): Setup | null =>
  board.setups.slice(board.setups.indexOf(setup) + 1).find((s) => s.up !== setup.up) ?? null;

/**
 * Edits by which a cut-out goes half of the way from either side: it ends in the middle of the board, and the setup that turns the board over next
 * cuts the rest along the same outline, with the tabs. Null where no setup does, or where it ends in the wood already.
 */
export function cutHalves(view: SetupView, pass: CutoutPass): Edit[] | null {
  const { setup, board } = view;
  const other = turnedAfter(view, setup);
  if (!other || pass.depth !== null) return null;
  const of = pass.outline.of ?? view.layers.filter((l) => addsToOutline(l, view.seat.mode)).map((l) => l.id);
  const rest: CutoutPass = {
    ...structuredClone(pass),
    id: freeId('cutout', view),
    outline: { ...structuredClone(pass.outline), of },
    tabs: { ...pass.tabs, at: null },
  };
  const there = { board, setup: other };
  const had = other.passes.findIndex((p) => p.kind === 'cutout');
  return [
    { set: inSetup(view, 'passes', { id: pass.id }, 'depth'), to: clean(board.thickness / 2) },
    ...(had >= 0 ? [{ remove: inSetup(there, 'passes', { id: other.passes[had].id }) }] : []),
    { insert: inSetup(there, 'passes'), at: had >= 0 ? had : placeFor(other.passes, 'cutout'), value: rest },
  ];
}
