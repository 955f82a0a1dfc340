import type { Seat } from '../doc/layer';
import { AIR } from '../field/height-field';
import { compose, type Effect, emptySurface, type Op, type Surface } from './compose';
import type { Rendered } from './rendered';
import { meetWindows, type Window } from './window';

/** What a layer does among the others. */
export interface LayerEffect {
  /** Whether any of it lies on the board. */
  stands: boolean;
  /** Share of what it stands on whose height it changes when it joins. */
  changed: number;
  /** Share of what it stands on that it puts below the base plane, where it is lost. */
  lost: number;
  /** Share of what it stands on where it shows in the end. */
  visible: number;
}

/** Samples of a layer that are looked at; a smaller layer is looked at cell by cell. */
const SAMPLES = 40_000;

/** Heights that differ by less are the same, mm. */
const SAME = 1e-3;

/** Every n-th cell of a rendered layer over a window, as a layer of its own on a grid of those cells. */
function sampled(r: Rendered, w: Window, step: number, width: number, height: number): Rendered {
  const heights = new Float32Array(width * height).fill(AIR);
  const weight = r.weight ? new Float32Array(width * height) : null;
  for (let j = 0; j < height; j++) {
    const row = w.j + j * step - r.window.j;
    if (row < 0 || row >= r.window.height) continue;
    for (let i = 0; i < width; i++) {
      const column = w.i + i * step - r.window.i;
      if (column < 0 || column >= r.window.width) continue;
      const from = row * r.window.width + column;
      heights[j * width + i] = r.heights[from];
      if (weight) weight[j * width + i] = r.weight![from];
    }
  }
  return { ...r, window: { i: 0, j: 0, width, height }, heights, weight, below: null };
}

/** What one layer does, its grooves by their distance alone: joined with the others that it meets, and without it. */
function effectOf(ops: Op[], index: number, seat: Seat): LayerEffect {
  const w = ops[index].rendered.window;
  if (w.width === 0 || w.height === 0) return { stands: false, changed: 0, lost: 0, visible: 0 };
  const step = Math.max(1, Math.ceil(Math.sqrt((w.width * w.height) / SAMPLES)));
  const [width, height] = [Math.ceil(w.width / step), Math.ceil(w.height / step)];
  const near = ops
    .map((op, i) => ({ op, own: i === index }))
    .filter(({ op }) => meetWindows(op.rendered.window, w).width > 0)
    .map(({ op, own }) => ({
      own,
      op: { ...op, rendered: sampled(op.rendered, w, step, width, height), walls: null },
    }));
  const grid = { width, height, cell: 1, originX: 0, originY: 0 };
  const whole = { i: 0, j: 0, width, height };
  const joined = (list: Op[], effects?: Effect[]): Surface => {
    const s = emptySurface(grid);
    compose(s, list, seat, whole, effects);
    return s;
  };
  const effects: Effect[] = [];
  const all = joined(
    near.map((n) => n.op),
    effects,
  );
  const rest = joined(near.filter((n) => !n.own).map((n) => n.op));
  const own = near.findIndex((n) => n.own);
  const { heights } = near[own].op.rendered;
  let [stands, shows] = [0, 0];
  for (let k = 0; k < heights.length; k++) {
    if (heights[k] === AIR) continue;
    stands++;
    if (Math.abs(rest.z[k] - all.z[k]) > SAME || rest.cover[k] !== all.cover[k]) shows++;
  }
  const { changed, covered, lost } = effects[own];
  const share = (n: number, of: number) => (of > 0 ? n / of : 0);
  return {
    stands: stands > 0,
    changed: share(changed, covered),
    lost: share(lost, covered),
    visible: share(shows, stands),
  };
}

/** What each of the layers of a surface does among the others, each looked at in up to 40,000 places. */
export function layerEffects(ops: Op[], seat: Seat): LayerEffect[] {
  return ops.map((_, i) => effectOf(ops, i, seat));
}
