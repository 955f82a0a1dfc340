import { type Grid, gridOf, type HeightField, nearestCell } from '../field/height-field';
import { thinly, thinOut } from '../field/thin';
import type { StageResult } from './stage';
import type { SetupSurfaces } from './summary';

/** Most cells along a side of what is sent to the page. */
const VIEW_CELLS = 1000;

/** Heights of a plan on a grid small enough to send: every n-th cell as it is, so that what is read is true there. */
export interface PlanView {
  grid: Grid;
  /** All grid.width x grid.height, mm. `rough` is empty when roughing was not followed by another program. */
  target: Float32Array;
  rough: Float32Array;
  cut: Float32Array;
  deviation: Float32Array;
  /** The board as all its setups leave it: the side that is up, and the underside; empty where it has one setup. */
  top: Float32Array;
  under: Float32Array;
  mask: Uint8Array;
}

/** The view for the page, and the full surfaces for exact sections; both ready to be packed into files. */
export function transferableView(plan: SetupSurfaces): { packed: StageResult; full: StageResult } {
  const g = gridOf(plan.target);
  const some = thinly(g, VIEW_CELLS);
  const none = new Float32Array(0);
  const { target, cut, deviation, mask } = plan;
  const rough = plan.rough ? plan.rough.data : none;
  const { top, under } = plan.whole ?? { top: none, under: none };
  const thin = <T extends Float32Array | Uint8Array>(data: T) => (data.length > 0 ? thinOut(data, g, some) : data);
  const arrays = { target: target.data, rough, cut: cut.data, deviation, top, under, mask };
  return {
    packed: {
      meta: { grid: some.grid },
      arrays: Object.fromEntries(Object.entries(arrays).map(([name, data]) => [name, thin(data)])),
    },
    full: { meta: { grid: g }, arrays },
  };
}

/** The cells of a grid along a straight line at `n` even steps: those that its places lie in, nothing between them. */
export function cellsAlong(
  g: Grid,
  { x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number },
  n: number,
): Int32Array {
  return Int32Array.from({ length: n }, (_, s) => {
    const t = n > 1 ? s / (n - 1) : 0;
    return nearestCell(g, x0 + (x1 - x0) * t, y0 + (y1 - y0) * t);
  });
}

/** Heights along a straight line through a field at `n` even steps: the cell's own value, nothing interpolated. */
export const sectionOf = (f: HeightField, line: Parameters<typeof cellsAlong>[1], n: number): Float32Array =>
  Float32Array.from(cellsAlong(f, line, n), (k) => f.data[k]);

/** The ways of a setup's bits, ready to be packed into a file. */
export const transferableWays = ({ ways: { passes, kind, places } }: Pick<SetupSurfaces, 'ways'>): StageResult => ({
  meta: { passes },
  arrays: { kind, ...places },
});
