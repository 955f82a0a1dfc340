import type { Board } from '../doc/board';
import { type Frame, frameBetween, placeThrough } from '../setup/frame';
import type { SetupView } from '../setup/view';
import type { AfterProgram } from './checks/rule';
import type { CutoutOfPass } from './look-at-part';

/** A setup with what it cuts out. */
interface CutBefore {
  view: SetupView;
  cutouts: CutoutOfPass[];
}

/** The cut-outs of setups as they lie in one after them. */
export function cutoutsBefore(
  board: Board,
  before: CutBefore[],
  { view }: Pick<CutBefore, 'view'>,
): AfterProgram['earlier'] {
  return before.flatMap((b) => {
    const frame = frameBetween(board, b.view.setup, view.setup);
    return b.cutouts.map(({ rings, tabs }) => ({
      setup: b.view.setup.name,
      rings: rings.map((r) => ringThrough(frame, r)),
      tabs: tabs.map((p) => placeThrough(frame, p)),
    }));
  });
}

/** A ring, x y pairs, as it lies in the other setup. */
function ringThrough(frame: Frame, ring: number[]): number[] {
  const out: number[] = [];
  for (let i = 0; i < ring.length; i += 2) {
    const { x, y } = placeThrough(frame, { x: ring[i], y: ring[i + 1] });
    out.push(x, y);
  }
  return out;
}
