import { MASK } from '../src/core/arrange/target';
import type { Cutter } from '../src/core/cutter/cutter';
import { reachable } from '../src/core/plan/drum-test-kit';
import type { SetupPlan } from '../src/core/plan/plan-test-kit';

/** Steeper than this is a wall, which is known to half a cell. */
const CLIFF = Math.tan((75 * Math.PI) / 180);
/** Cells around a place in which nothing may be that is known to a cell only. */
const AWAY = 3;

/** The most that a proven drum stands over what a bit can reach of its target, mm along the normal, away from wood that stays and from walls. */
export function overReach({ target, mask, cut }: SetupPlan, bit: Cutter): number {
  const reach = reachable(target, bit);
  const { width, height, cell, data } = target;
  const at = (i: number, j: number) => ((j + height) % height) * width + i;
  const aside = (i: number, j: number) => [at(i - 1, j), at(i + 1, j), at(i, j - 1), at(i, j + 1)];
  const known = (i: number, j: number) =>
    mask[at(i, j)] === MASK.cut && aside(i, j).every((q) => Math.abs(data[q] - data[at(i, j)]) <= CLIFF * cell);
  const even = Uint8Array.from({ length: data.length }, (_, k) => {
    const i = k % width;
    return i > 0 && i + 1 < width && known(i, Math.floor(k / width)) ? 1 : 0;
  });
  let worst = 0;
  for (let j = 0; j < height; j++)
    for (let i = AWAY + 1; i + AWAY + 1 < width; i++) {
      let near = false;
      for (let b = -AWAY; b <= AWAY && !near; b++) for (let a = -AWAY; a <= AWAY; a++) near ||= !even[at(i + a, j + b)];
      if (near) continue;
      let high = -Infinity;
      // An edge that stands between cells stands over both: up to half of what the surface bends by.
      let edge = 0;
      for (let b = -1; b <= 1; b++)
        for (let a = -1; a <= 1; a++) {
          const q = at(i + a, j + b);
          // Beside an edge a cell sideways is allowed.
          high = Math.max(high, reach.data[q]);
          const [w, e, s, n] = aside(i + a, j + b).map((p) => data[p]);
          edge = Math.max(edge, 2 * data[q] - w - e, 2 * data[q] - s - n);
        }
      const [w, e, s, n] = aside(i, j).map((p) => reach.data[p]);
      const slope = Math.hypot(1, (e - w) / (2 * cell), (n - s) / (2 * cell));
      worst = Math.max(worst, (cut.data[at(i, j)] - high - edge / 2) / slope);
    }
  return worst;
}

/** How deep a proven drum is cut under its target at most, mm along the normal, negative. */
export const deepestOf = ({ deviation }: SetupPlan): number => deviation.reduce((a, d) => Math.min(a, d), 0);
