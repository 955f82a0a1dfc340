import { cellsWithin } from '../arrange/cells-within';
import { cellAt, type HeightField, sampleField } from '../field/height-field';
import { ringLengths, ringPlace } from '../outline/flatten';
import { NearestOutline } from '../outline/nearest';

/** A cut-out as it was planned: what its proof is looked for along. Board coordinates, mm. */
export interface PlannedCutout {
  /** The tip's lines at the bottom, x y pairs, and the middles of the tabs on them. */
  rings: number[][];
  tabs: { x: number; y: number }[];
  /** Half of what a tab reaches along the line with its slopes, and the bit's radius. */
  reach: number;
  radius: number;
}

export interface TabFound {
  x: number;
  y: number;
  /** Length where it is narrowest, in the middle of the slot, at its full thickness; and its section there, mm and mm2. */
  length: number;
  thickness: number;
  section: number;
  /** Whether wood stands on both sides of the slot there: a tab beside the board's edge holds nothing. */
  holds: boolean;
}

export interface CutoutProof {
  /** Where wood joins both sides other than at tabs; null when nowhere. */
  joined: { x: number; y: number } | null;
  tabs: TabFound[];
}

/** Wood thinner than this holds nothing, mm. */
const HAIR = 0.005;
/** How far beside the slot the wood is looked for that a tab holds on to, mm. */
const SIDE = 1;
/** A tab counts as far as it is this near to its full thickness, mm. */
const FULL = 0.05;

/**
 * What still joins the two sides of a cut-out: cells of wood are followed from one side to the other, those of the tabs left out.
 * @param cut the board as the programs leave it, 0 at its top
 * @param slots 1 where the cut-outs run
 */
export function checkCutout(
  cut: HeightField,
  slots: Uint8Array,
  thickness: number,
  planned: PlannedCutout,
): CutoutProof {
  const rings = planned.rings.map((r) => Float64Array.from(r));
  return {
    joined: joinedAt(cut, slots, thickness, planned, rings),
    tabs: planned.tabs.map((t) => measureTab(cut, thickness, planned, rings, t)),
  };
}

function joinedAt(
  cut: HeightField,
  slots: Uint8Array,
  thickness: number,
  planned: PlannedCutout,
  rings: Float64Array[],
): { x: number; y: number } | null {
  const { width, height, cell, originX, originY, data } = cut;
  const solid = (k: number) => data[k] + thickness > HAIR;
  const place = (k: number) => ({ x: originX + (k % width) * cell, y: originY + Math.floor(k / width) * cell });
  const far = Math.hypot(planned.reach, planned.radius) + 2 * cell;
  const open = new Uint8Array(data.length);
  for (let k = 0; k < data.length; k++) if (solid(k)) open[k] = 1;
  for (const t of planned.tabs) {
    const i0 = Math.max(0, Math.floor((t.x - far - originX) / cell));
    const i1 = Math.min(width - 1, Math.ceil((t.x + far - originX) / cell));
    const j1 = Math.min(height - 1, Math.ceil((t.y + far - originY) / cell));
    for (let j = Math.max(0, Math.floor((t.y - far - originY) / cell)); j <= j1; j++) {
      for (let i = i0; i <= i1; i++) {
        const k = j * width + i;
        if (slots[k] && Math.hypot(originX + i * cell - t.x, originY + j * cell - t.y) <= far) open[k] = 0;
      }
    }
  }
  // The slot parts both sides: where none of it stands there is no way across.
  let bridge = false;
  for (let k = 0; k < slots.length && !bridge; k++) bridge = slots[k] === 1 && open[k] === 1;
  if (!bridge) return null;
  const inside = cellsWithin(rings, cut).cells;
  const stack: number[] = [];
  const from = new Int32Array(data.length).fill(-1);
  for (let k = 0; k < data.length; k++) {
    if (!inside[k] || slots[k] || !open[k]) continue;
    from[k] = k;
    stack.push(k);
  }
  while (stack.length > 0) {
    const k = stack.pop() as number;
    const i = k % width;
    for (const q of [i > 0 ? k - 1 : -1, i + 1 < width ? k + 1 : -1, k - width, k + width]) {
      if (q < 0 || q >= data.length || !open[q] || from[q] >= 0) continue;
      if (!inside[q] && !slots[q]) {
        // Back along the way to the middle of the slot, where the wood stands that joins them.
        let at = k;
        while (slots[from[at]]) at = from[at];
        return place(at);
      }
      from[q] = k;
      stack.push(q);
    }
  }
  return null;
}

/** Whether any wood stands at a place; none beyond the board. */
function isSolid(cut: HeightField, thickness: number, x: number, y: number): boolean {
  const k = cellAt(cut, x, y);
  return k >= 0 && cut.data[k] + thickness > HAIR;
}

function measureTab(
  cut: HeightField,
  thickness: number,
  { reach, radius }: PlannedCutout,
  rings: Float64Array[],
  tab: { x: number; y: number },
): TabFound {
  const near = new NearestOutline(rings, reach);
  const hit = near.find(tab.x, tab.y, { distance: 0, along: 0, ring: 0 });
  const ring = rings[hit.ring];
  const { at, total } = ringLengths(ring);
  const step = cut.cell / 4;
  const n = Math.ceil((reach + radius) / step);
  const heights: number[] = [];
  for (let k = -n; k <= n; k++) {
    const p = ringPlace(ring, at, total, hit.along + k * step);
    heights.push(Math.max(0, sampleField(cut, p.x, p.y) + thickness));
  }
  const here = ringPlace(ring, at, total, hit.along);
  const [before, after] = [-1, 1].map((s) => ringPlace(ring, at, total, hit.along + s));
  const long = Math.hypot(after.x - before.x, after.y - before.y) || 1;
  const side = (radius + SIDE) / long;
  const stands = (s: number) =>
    isSolid(cut, thickness, here.x - s * side * (after.y - before.y), here.y + s * side * (after.x - before.x));
  const full = Math.max(...heights);
  return {
    x: tab.x,
    y: tab.y,
    thickness: full,
    length: full > HAIR ? heights.filter((h) => h > full - FULL).length * step : 0,
    section: heights.reduce((s, h) => s + h * step, 0),
    holds: stands(1) && stands(-1),
  };
}
