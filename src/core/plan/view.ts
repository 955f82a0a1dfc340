import { type Grid, gridOf, type HeightField, nearestCell } from '../field/height-field';
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

/** Every `step`-th cell of an array on a grid, from the middle of the first block. */
function thinOut<T extends Float32Array | Uint8Array>(data: T, g: Grid, step: number): { data: T; grid: Grid } {
  const first = Math.floor(step / 2);
  const width = Math.max(1, Math.floor((g.width - first - 1) / step) + 1);
  const height = Math.max(1, Math.floor((g.height - first - 1) / step) + 1);
  const out = (data instanceof Uint8Array ? new Uint8Array(width * height) : new Float32Array(width * height)) as T;
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) out[j * width + i] = data[(first + j * step) * g.width + first + i * step];
  }
  const grid = {
    width,
    height,
    cell: g.cell * step,
    originX: g.originX + first * g.cell,
    originY: g.originY + first * g.cell,
  };
  return { data: out, grid };
}

/** The view for the page, and the full surfaces for exact sections; both ready to be packed into files. */
export function transferableView(plan: SetupSurfaces): { packed: StageResult; full: StageResult } {
  const g = gridOf(plan.target);
  const step = Math.max(1, Math.ceil(Math.max(g.width, g.height) / VIEW_CELLS));
  const target = thinOut(plan.target.data, g, step);
  const none = new Float32Array(0);
  const rough = plan.rough ? plan.rough.data : none;
  const { top, under } = plan.whole ?? { top: none, under: none };
  const thin = (data: Float32Array) => (data.length > 0 ? thinOut(data, g, step).data : data);
  return {
    packed: {
      meta: { grid: target.grid },
      arrays: {
        target: target.data,
        rough: thin(rough),
        top: thin(top),
        under: thin(under),
        cut: thinOut(plan.cut.data, g, step).data,
        deviation: thinOut(plan.deviation, g, step).data,
        mask: thinOut(plan.mask, g, step).data,
      },
    },
    full: { meta: { grid: g }, arrays: { target: plan.target.data, rough, cut: plan.cut.data, top, under } },
  };
}

/** Heights along a straight line through a field at `n` even steps: the cell's own value, nothing interpolated. */
export function sectionOf(
  f: HeightField,
  { x0, y0, x1, y1 }: { x0: number; y0: number; x1: number; y1: number },
  n: number,
): Float32Array {
  const out = new Float32Array(n);
  for (let s = 0; s < n; s++) {
    const t = n > 1 ? s / (n - 1) : 0;
    out[s] = f.data[nearestCell(f, x0 + (x1 - x0) * t, y0 + (y1 - y0) * t)];
  }
  return out;
}
