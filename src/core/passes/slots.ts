import { cellsWithin } from '../arrange/cells-within';
import { MASK, type Target } from '../arrange/target';
import type { Cutter } from '../cutter/cutter';
import type { KernelHost } from '../kernels/host';
import { SEGMENT } from '../kernels/segment';
import { removeBy } from '../kernels/spans';
import type { Polygon } from '../outline/polygon';

/** What a pass cuts that no layer asks for: a bit that runs exactly along chains of x y z points, mm. */
export interface Slot {
  cutter: Cutter;
  chains: Float64Array[];
  /** Heights between these two in it need not be met; null when all must. */
  loose: [number, number] | null;
  /** Whether it goes through the board. */
  through: boolean;
  /** The outline outside of which it cuts nothing; where left out it cuts wherever its bit comes. */
  within?: Polygon;
}

/** Higher than anything, mm: where no bit has been. */
const UNCUT = 1e6;

/**
 * The target with slots in it.
 * @returns through: 1 on the cells where slots go through the board, null when there is no slot
 */
export async function cutSlots(
  target: Target,
  slots: Slot[],
  host: KernelHost,
): Promise<{ target: Target; through: Uint8Array | null }> {
  if (slots.length === 0) return { target, through: null };
  const field = { ...target.field, data: target.field.data.slice() };
  const mask = target.mask.slice();
  const through = new Uint8Array(mask.length);
  for (const { cutter, chains, loose, through: open, within } of slots) {
    const inside = within && cellsWithin(within, field).cells;
    // Where a slot comes at all, and how deep there: a tab may stand higher than ground that is cleared already.
    const cut = { ...field, data: new Float32Array(mask.length).fill(UNCUT) };
    for (const points of chains) {
      const n = points.length / 3 - 1;
      const segments = new Float64Array(n * SEGMENT);
      for (let k = 0; k < n; k++) segments.set(points.subarray(3 * k, 3 * k + 6), k * SEGMENT);
      await removeBy(host, cut, cutter, segments);
    }
    const { width } = field;
    for (let k = 0; k < mask.length; k++) {
      const z = cut.data[k];
      if (z === UNCUT || (inside && inside[k] === 0)) continue;
      if (open) through[k] = 1;
      if (z >= field.data[k]) continue;
      field.data[k] = z;
      mask[k] = loose && z > loose[0] && z < loose[1] ? MASK.waste : MASK.cut;
      // Walls are met to a cell: kept board right beside a slot is compared as a wall is.
      for (const row of [k - width, k, k + width])
        for (let q = row - 1; q <= row + 1; q++) if (mask[q] === MASK.keep) mask[q] = MASK.cut;
    }
  }
  return { target: { ...target, field, mask }, through };
}
