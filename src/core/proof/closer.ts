import { MASK, type Wanted } from '../arrange/target';
import { type DrawingGrid, type Window, windowGrid } from '../arrange/window';
import { cellAt, cellPlace, type HeightField, makeField } from '../field/height-field';
import type { KernelHost } from '../kernels/host';
import { spansOf } from '../kernels/spans';
import { GOUGE_LIMIT } from './checks/gouge';
import { CLIFF, compareSurfaces } from './deviation';
import { type EyeFigures, OVERLOOKED } from './eye';
import { type MovesByPlace, movesByPlace, movesOver } from './moves-by-place';
import type { Run } from './simulate';

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
  if (i === 0 || i + 1 === width || k < width || k + width >= width * height) return false;
  const z = data[k];
  const most = CLIFF * cell;
  return (
    mask[k] === MASK.cut &&
    mask[k - 1] === MASK.cut &&
    mask[k + 1] === MASK.cut &&
    mask[k - width] === MASK.cut &&
    mask[k + width] === MASK.cut &&
    Math.abs(data[k - 1] - z) <= most &&
    Math.abs(data[k + 1] - z) <= most &&
    Math.abs(data[k - width] - z) <= most &&
    Math.abs(data[k + width] - z) <= most
  );
}

/** How far a cell stands above the straight line between those on either side of it, twice, mm: of the two lines the further. */
const bendAt = ({ width, data }: HeightField, k: number): number =>
  Math.max(2 * data[k] - data[k - 1] - data[k + 1], 2 * data[k] - data[k - width] - data[k + width]);

/**
 * What an edge beside a cell can hide, mm along the normal: one that bends the surface by D over a cell stands up to D / 2 above the
 * straight line between two cells.
 */
function hidden(f: HeightField, k: number): number {
  const { width, cell, data } = f;
  const [across, along] = [data[k + 1] - data[k - 1], data[k + width] - data[k - width]];
  return bendAt(f, k) / 2 / Math.sqrt(1 + (across / (2 * cell)) ** 2 + (along / (2 * cell)) ** 2);
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
    const most = bendAt(field, k) / 2;
    if (!(most > OVERLOOKED && most - map[k] > GOUGE_LIMIT) || !even(target, k)) continue;
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

/** What a closer look cuts its windows with: plain data, so that other threads can look too. */
export interface Looking {
  moves: MovesByPlace[];
  /** The proof's own cell, over which pictures are averaged, mm. */
  over: number;
}

/** A window that is to be looked at, and what of the target lies in it and one cell around. */
export interface ToLookAt {
  target: Wanted;
  window: Window;
}

/** Looks at windows with `lookAt`, in this thread or in others, and tells of each what was found. */
export type LookCloser = (at: Looking, windows: ToLookAt[], each: (found: Deepest) => void) => Promise<void>;

/** The deepest place below a target, mm (negative, 0 where there is none), where it is, and windows that were looked at. */
export interface Deepest {
  deep: number;
  x: number;
  y: number;
  windows: number;
}

/**
 * Looks at a window of a target with a quarter of its cell: draws it from the layers, cuts it again with all runs, and compares. Where edges
 * between these cells could hide a cut that is too deep, once more with a quarter of theirs.
 */
export async function lookAt(
  { target, window: w }: ToLookAt,
  at: Looking,
  look: Look,
  host: KernelHost,
  again = true,
): Promise<Deepest> {
  const { field } = target;
  const own = windowGrid(field, w);
  const cell = field.cell / FINER;
  // One cell more on every side, so that edges on the window's rim are seen with what lies beside them.
  const g: DrawingGrid = {
    cell,
    over: at.over,
    // Round a drum its cells are rays as well, so many times more to a turn.
    ...(field.drum ? { drum: { ...field.drum, rows: FINER * field.drum.rows } } : {}),
    width: (w.width + 2) * FINER,
    height: (w.height + 2) * FINER,
    originX: own.originX - 1.5 * field.cell + cell / 2,
    originY: own.originY - 1.5 * field.cell + cell / 2,
  };
  const { field: fine, seen } = await look(g);
  const cut = makeField(g);
  for (const m of at.moves) await host.remove(cut, m.profile, movesOver(m, g));
  const closer: Wanted = { field: fine, mask: judged(target, fine, seen), ground: target.ground };
  const d = compareSurfaces(cut, fine, closer.mask);
  const out: Deepest = { deep: d.deepest, ...cellPlace(g, Math.max(0, d.deepestAt)), windows: 1 };
  if (!again) return out;
  for (const window of windowsToLookAt(closer, d.map)) {
    const more = await lookAt({ target: closer, window }, at, look, host, false);
    out.windows += more.windows;
    if (more.deep < out.deep) Object.assign(out, { deep: more.deep, x: more.x, y: more.y });
  }
  return out;
}

/** A window by itself, with the cells beside it. */
function apart({ field, mask, ground }: Wanted, w: Window): ToLookAt {
  const [i, j] = [Math.max(0, w.i - 1), Math.max(0, w.j - 1)];
  const [i1, j1] = [Math.min(field.width, w.i + w.width + 1), Math.min(field.height, w.j + w.height + 1)];
  const g = windowGrid(field, { i, j, width: i1 - i, height: j1 - j });
  const target: Wanted = { field: makeField(g), mask: new Uint8Array(g.width * g.height), ground };
  for (let b = 0; b < g.height; b++) {
    const from = (j + b) * field.width + i;
    target.field.data.set(field.data.subarray(from, from + g.width), b * g.width);
    target.mask.set(mask.subarray(from, from + g.width), b * g.width);
  }
  return { target, window: { ...w, i: w.i - i, j: w.j - j } };
}

/**
 * Looks closer where edges between the proof's cells could hide a cut that is too deep.
 * @returns the deepest place found: mm below the target (negative), its cell of the target and where in it; null where nothing lies below
 */
export async function lookCloser(
  target: Wanted,
  map: Float32Array,
  runs: Pick<Run, 'cutter' | 'segments'>[],
  look: LookCloser,
): Promise<{ deepest: { deep: number; cell: number; x: number; y: number } | null; eye: EyeFigures }> {
  const { field } = target;
  const all = windowsToLookAt(target, map);
  const windows = all.slice(0, MOST);
  let deepest: Deepest = { deep: 0, x: 0, y: 0, windows: 0 };
  let looked = 0;
  if (windows.length > 0) {
    const at: Looking = {
      moves: runs.flatMap((r) => spansOf(r.cutter, r.segments)).map((s) => movesByPlace(s, field)),
      over: field.cell,
    };
    const each = (found: Deepest) => {
      looked += found.windows;
      if (isDeeper(found, deepest)) deepest = found;
    };
    await look(
      at,
      windows.map((w) => apart(target, w)),
      each,
    );
  }
  const { deep, x, y } = deepest;
  return {
    deepest: deep < 0 ? { deep, cell: cellAt(field, x, y), x, y } : null,
    eye: { cell: field.cell, closer: looked, left: all.length - windows.length },
  };
}

/** Which of two is told: the deeper one, and of equals always the same, whichever was looked at first. */
const isDeeper = (a: Deepest, b: Deepest) =>
  a.deep < b.deep || (a.deep === b.deep && (a.y < b.y || (a.y === b.y && a.x < b.x)));
