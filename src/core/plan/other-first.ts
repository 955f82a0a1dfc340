import { addsToOutline } from '../arrange/silhouette';
import { inBoard } from '../doc/edits';
import type { Pass } from '../doc/pass';
import type { Edit } from '../findings/edit';
import type { CutoutPass } from '../passes/cutout/schema';
import type { HolePass } from '../passes/hole/schema';
import { inOrder } from '../passes/order';
import { frameBetween, placeThrough } from '../setup/frame';
import { type SetupView, viewOf } from '../setup/view';
import { clean } from '../units/round';

const isDowels = (p: Pass): p is HolePass => p.kind === 'hole' && p.dowel !== null;
const isCutout = (p: Pass): p is CutoutPass => p.kind === 'cutout';

/** Cut-outs of the side that comes first now, as the other side makes them, with the tabs where they place themselves. */
function carriedCutouts(view: SetupView, cutouts: CutoutPass[]): CutoutPass[] {
  const whole = () => view.layers.filter((l) => addsToOutline(l, view.seat.mode)).map((l) => l.id);
  return cutouts.map((pass) => ({
    ...pass,
    outline: { ...pass.outline, of: pass.outline.of ?? whole() },
    tabs: { ...pass.tabs, at: null },
  }));
}

/**
 * Edits by which the side that is cut second is cut first. What belongs to an order goes along: holes for dowels are drilled from the side that is
 * first, the way in which the board finds its place belongs to the one that is second, and the piece is parted from its frame by that; of a cut-out
 * half from each side the halves keep their plane. Null where the board has not just two setups, one of either side, or where a skim, a jig or a
 * nest has been made for their order.
 */
export function otherSideFirst(view: SetupView): Edit[] | null {
  const { board, document } = view;
  const [first, second] = structuredClone(board.setups);
  if (board.setups.length !== 2 || first.up === second.up) return null;
  const tied = document.boards.some((b) => b.jigFor === first.id || b.jigFor === second.id);
  if (tied || board.setups.some((s) => s.passes.some((p) => p.kind === 'skim'))) return null;

  [first.register, second.register] = [second.register, first.register];
  const frame = frameBetween(board, first, second);
  const dowels = first.passes
    .filter(isDowels)
    .map((p) => ({ ...p, places: p.places.map((q) => placeThrough(frame, q)) }));
  const half = first.passes.find((p): p is CutoutPass => isCutout(p) && p.depth !== null);
  let early = second.passes.filter((p): p is CutoutPass => isCutout(p) && p.depth === null);
  if (half && early.length > 0) {
    early[0].depth = clean(board.thickness - half.depth!);
    half.depth = null;
    early = early.slice(1);
  }
  const late = carriedCutouts(viewOf(document, { board, setup: board.setups[1] }), early);
  first.passes = inOrder([...first.passes.filter((p) => !isDowels(p)), ...late]);
  second.passes = inOrder([...dowels, ...second.passes.filter((p) => !early.includes(p as CutoutPass))]);
  return [{ set: inBoard(view, 'setups'), to: [second, first] }];
}
