import { AIR, type HeightField } from '../field/height-field';
import { highestAbout, type Underside } from '../passes/underside';
import { frameBetween, placeThrough } from '../setup/frame';
import type { SetupView } from '../setup/view';

/** What a planned setup leaves standing: an upper bound on coarse cells, plot by plot, and what stands for it in keys. */
export interface LeftStanding {
  view: SetupView;
  left: { key: string; stock: HeightField }[];
}

/** The underside that a setup finds: what those of the board's other side before it leave. Null where there are none. */
export function undersideBefore(view: SetupView, before: LeftStanding[]): Underside | null {
  const { board, setup } = view;
  const others = before.filter((b) => b.view.board === board && b.view.setup.up !== setup.up && b.left.length > 0);
  if (others.length === 0) return null;
  const frames = others.map((o) => frameBetween(board, setup, o.view.setup));
  return {
    key: JSON.stringify([board.flip, others.flatMap((o) => o.left.map((l) => l.key))]),
    cell: Math.max(...others.flatMap((o) => o.left.map((l) => l.stock.cell))),
    lowest(x, y, r) {
      // Each setup bounds what stands by itself: the least of these bounds is one too.
      let high = 0;
      others.forEach((o, i) => {
        const p = placeThrough(frames[i], { x, y });
        const tops = o.left.map(({ stock }) => highestAbout(stock, p.x, p.y, r)).filter((h) => h !== null);
        high = Math.min(high, tops.length > 0 ? Math.max(...tops) : 0);
      });
      return high <= AIR ? 0 : Math.min(0, -board.thickness - high);
    },
  };
}
