import { MASK, type Wanted } from '../arrange/target';
import { type DrawingGrid, type Window, windowGrid } from '../arrange/window';
import { cellAt, cellPlace, type HeightField, makeField } from '../field/height-field';
import type { KernelHost } from '../kernels/host';
import { GOUGE_LIMIT } from './checks/gouge';
import { CLIFF, compareSurfaces } from './deviation';
import { type EyeFigures, OVERLOOKED } from './eye';
import { type Cutting, MovesByPlace } from './moves-by-place';

/** Cells of the closer look to one of the proof's. */
const FINER = 4;
/** Cells along a side of the tiles that suspect cells are gathered in, a window each. */
const TILE = 16;
/** Most windows of a setup: the worst first. */
const MOST = 2000;

/** The target on a window's grid, drawn from the layers; 1 in `seen` where the surface belongs to the piece. */
export type Look = (g: DrawingGrid) => Promise<{ field: HeightField; seen: Uint8Array }>;

/** Whether a cell and those around it are to be met and no wall stands among them. */
function even({ field: { width, height, cell, data }, mask }: Wanted, k: number): boolean {
  const i = k % width;
  const j = (k - i) / width;
  if (i === 0 || j === 0 || i + 1 === width || j + 1 === height) return false;
  const level = (q: number) => mask[q] === MASK.cut && Math.abs(data[q] - data[k]) <= CLIFF * cell;
  return level(k) && level(k - 1) && level(k + 1) && level(k - width) && level(k + width);
}

/**
 * What an edge beside a cell can hide, mm along the normal: one that bends the surface by D over a cell stands up to D / 2 above the
 * straight line between two cells.
 */
function hidden({ width, cell, data }: HeightField, k: number): number {
  const h = data[k];
  const w = data[k - 1];
  const e = data[k + 1];
  const s = data[k - width];
  const n = data[k + width];
  const bend = Math.max(2 * h - w - e, 2 * h - s - n);
  if (bend <= 0) return 0;
  return bend / 2 / Math.sqrt(1 + ((e - w) / (2 * cell)) ** 2 + ((n - s) / (2 * cell)) ** 2);
}

/**
 * Windows in which edges between cells could hide a cut deeper than the limit: where what the cells show and what an edge can hide come to
 * more than it together. The worst first; none where the cells show such a cut themselves.
 * @param map how the cut surface lies to the target, as compareSurfaces tells it
 */
export function windowsToLookAt(target: Wanted, map: Float32Array): Window[] {
  const { field } = target;
  const across = Math.ceil(field.width / TILE);
  const found = new Map<number, Suspects>();
  for (let k = 0; k < map.length; k++) {
    if (target.mask[k] !== MASK.cut) continue;
    // What is told already need not be looked for.
    if (map[k] < -GOUGE_LIMIT) return [];
    if (!even(target, k)) continue;
    const e = hidden(field, k);
    if (e <= OVERLOOKED || e - map[k] <= GOUGE_LIMIT) continue;
    const i = k % field.width;
    const j = (k - i) / field.width;
    const tile = Math.floor(j / TILE) * across + Math.floor(i / TILE);
    const at = found.get(tile);
    if (!at) {
      found.set(tile, { worst: e - map[k], i0: i, i1: i, j0: j, j1: j });
      continue;
    }
    at.worst = Math.max(at.worst, e - map[k]);
    at.i0 = Math.min(at.i0, i);
    at.i1 = Math.max(at.i1, i);
    at.j1 = j;
  }
  return [...found.values()].sort((a, b) => b.worst - a.worst).map((s) => windowAround(s, field));
}

/** Cells of a tile beside which an edge could hide a cut that is too deep: the deepest that it could be, mm, and the box around them. */
interface Suspects {
  worst: number;
  i0: number;
  i1: number;
  j0: number;
  j1: number;
}

/** The window of suspect cells and those beside them, between which the edge may stand. */
function windowAround({ i0, i1, j0, j1 }: Suspects, { width, height }: HeightField): Window {
  const [i, j] = [Math.max(0, i0 - 1), Math.max(0, j0 - 1)];
  return { i, j, width: Math.min(width, i1 + 2) - i, height: Math.min(height, j1 + 2) - j };
}

/** What of a window is judged: where the proof's own cell is even, and further from any wall than walls are known, half a cell. */
function judged(target: Wanted, fine: HeightField, seen: Uint8Array): Uint8Array {
  const { field } = target;
  const { width, height, cell, data } = fine;
  const mask = new Uint8Array(data.length);
  // The rim is there for what lies beside it, and is judged by the next window: a cell of the target's at a time.
  for (let b = FINER; b + FINER <= height - FINER; b += FINER) {
    for (let a = FINER; a + FINER <= width - FINER; a += FINER) {
      const k = cellAt(field, fine.originX + a * cell, fine.originY + b * cell);
      if (k < 0 || !even(target, k)) continue;
      for (let q = b * width + a; q < (b + FINER) * width; q += width)
        for (let n = q; n < q + FINER; n++) if (seen[n]) mask[n] = MASK.cut;
    }
  }
  const reach = FINER / 2 + 1;
  const steep = (q: number, n: number) => seen[n] !== seen[q] || Math.abs(data[n] - data[q]) > CLIFF * cell;
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const q = j * width + i;
      if (!(i + 1 < width && steep(q, q + 1)) && !(j + 1 < height && steep(q, q + width))) continue;
      for (let b = Math.max(0, j - reach); b <= Math.min(height - 1, j + reach + 1); b++)
        mask.fill(MASK.waste, b * width + Math.max(0, i - reach), b * width + Math.min(width, i + reach + 2));
    }
  }
  return mask;
}

/** What a closer look is made with. */
interface Looking {
  moves: MovesByPlace[];
  look: Look;
  host: KernelHost;
  /** The proof's own cell, over which pictures are averaged, mm. */
  over: number;
}

/** The deepest place below a target, mm (negative, 0 where there is none), where it is, and windows that were looked at. */
interface Deepest {
  deep: number;
  x: number;
  y: number;
  windows: number;
}

/**
 * Looks at a window of a target with a quarter of its cell: draws it from the layers, cuts it again with all runs, and compares. Where edges
 * between these cells could hide a cut that is too deep, once more with a quarter of theirs.
 */
async function lookAt(target: Wanted, w: Window, at: Looking, again: boolean): Promise<Deepest> {
  const { field } = target;
  const own = windowGrid(field, w);
  const cell = field.cell / FINER;
  // One cell more on every side, so that edges on the window's rim are seen with what lies beside them.
  const g: DrawingGrid = {
    cell,
    over: at.over,
    width: (w.width + 2) * FINER,
    height: (w.height + 2) * FINER,
    originX: own.originX - 1.5 * field.cell + cell / 2,
    originY: own.originY - 1.5 * field.cell + cell / 2,
  };
  const { field: fine, seen } = await at.look(g);
  const cut = makeField(g);
  for (const m of at.moves) await at.host.remove(cut, m.profile, m.over(g));
  const closer: Wanted = { field: fine, mask: judged(target, fine, seen), ground: target.ground };
  const d = compareSurfaces(cut, fine, closer.mask);
  const out: Deepest = { deep: d.deepest, ...cellPlace(g, Math.max(0, d.deepestAt)), windows: 1 };
  if (!again) return out;
  for (const inner of windowsToLookAt(closer, d.map)) {
    const more = await lookAt(closer, inner, at, false);
    out.windows += more.windows;
    if (more.deep < out.deep) Object.assign(out, { deep: more.deep, x: more.x, y: more.y });
  }
  return out;
}

/**
 * Looks closer where edges between the proof's cells could hide a cut that is too deep.
 * @returns the deepest place found: mm below the target (negative), its cell of the target and where in it; null where nothing lies below
 */
export async function lookCloser(
  target: Wanted,
  map: Float32Array,
  runs: Cutting[],
  look: Look,
  host: KernelHost,
): Promise<{ deepest: { deep: number; cell: number; x: number; y: number } | null; eye: EyeFigures }> {
  const { field } = target;
  const all = windowsToLookAt(target, map);
  const windows = all.slice(0, MOST);
  const moves = windows.length > 0 ? runs.map((r) => new MovesByPlace(r, field)) : [];
  const at: Looking = { moves, look, host, over: field.cell };
  let deepest: Deepest = { deep: 0, x: 0, y: 0, windows: 0 };
  let looked = 0;
  for (const w of windows) {
    const found = await lookAt(target, w, at, true);
    looked += found.windows;
    if (found.deep < deepest.deep) deepest = found;
  }
  const { deep, x, y } = deepest;
  return {
    deepest: deep < 0 ? { deep, cell: cellAt(field, x, y), x, y } : null,
    eye: { cell: field.cell, closer: looked, left: all.length - windows.length },
  };
}
