import { expose, transfer } from 'comlink';
import type { Effect, Surface, SurfaceFacts } from '@/core/arrange/compose';
import { detailOf, largerFor } from '@/core/arrange/detail';
import { Arrangement, neededLayers } from '@/core/arrange/engine';
import { type FlatField, flatFieldAt, standingBounds } from '@/core/arrange/flat-field';
import { type MadeShape, shapeOf, strokesOf } from '@/core/arrange/made-shape';
import { changeOutline, joinSilhouettes, outlineOf, type Shown } from '@/core/arrange/silhouette';
import { buildTarget } from '@/core/arrange/target';
import { middleLines, traceOutlines } from '@/core/arrange/trace';
import { type Cutter, profileOf } from '@/core/cutter/cutter';
import type { Seat, SeenLayer } from '@/core/doc/layer';
import type { OutlineRef } from '@/core/doc/outline-ref';
import { layersNamed, type Pass } from '@/core/doc/pass';
import type { Words } from '@/core/doc/words';
import { AIR, boardGrid, type Grid, gridOf } from '@/core/field/height-field';
import { localHost } from '@/core/kernels/host';
import type { Bounds } from '@/core/outline/polygon';
import type { Joining } from '@/core/outline/union';
import { regionOf, resolveAreas } from '@/core/plan/regions';
import type { LaidWords } from '@/core/sources/lettering';
import { Contents } from './contents';

export interface ArrangeInput {
  /** Those of the setup, and hidden behind them those of the board's other setups. */
  layers: SeenLayer[];
  seat: Seat;
  board: { x: number; y: number };
  /** How many of them are the setup's own. */
  own: number;
  passes: Pass[];
  cutters: Cutter[];
  /** The layer whose effect is looked at closely; less closely while something moves. */
  selected: string | null;
  moving: boolean;
  /** Cell of the full grid, mm. */
  cell: number;
}

export interface Look {
  /** Cells of the grid that it was worked out on, and seconds that it took. */
  cells: number;
  seconds: number;
  grid: Grid;
  target: Float32Array;
  mask: Uint8Array;
  /** 1 where something was clipped; null when nothing was. */
  clipped: Uint8Array | null;
  facts: SurfaceFacts;
}

/** What the selected layer does, and where it lies. */
export interface CloseLook {
  id: string;
  effect: Effect | null;
  /** Share of what it stands on where it shows in the end. */
  visible: number;
  /** Heights along a line through its middle: beneath it, with it, and in the end. */
  section: { x0: number; x1: number; beneath: Float32Array; withIt: Float32Array; end: Float32Array } | null;
  /** Where it stands by its cells, and the flat field under it. */
  standing: Bounds | null;
  field: FlatField | null;
}

export interface CoarseLook extends Look {
  close: CloseLook | null;
  /** Why layers cannot be shown, by id. */
  problems: Record<string, string>;
}

/** Cells along the longer side while something moves. */
const COARSE = 360;
/** Cells along the longer side of what is drawn. */
const VIEW = 1000;
const MOST_FULL = 8e6;

const contents = new Contents();
let coarse: Arrangement | null = null;
let full: Arrangement | null = null;

function arrangementFor(had: Arrangement | null, board: { x: number; y: number }, cell: number): Arrangement {
  const grid = boardGrid(board.x, board.y, cell);
  if (had && had.grid.width === grid.width && had.grid.height === grid.height && had.grid.cell === cell) return had;
  return new Arrangement(grid, (l) => contents.get(l));
}

const coarseCell = (b: { x: number; y: number }) => Math.max(b.x, b.y) / COARSE;

/** The layers whose content is needed: what is shown, what masks name, and what passes name of other setups. */
function needed({ layers, own, passes }: ArrangeInput): SeenLayer[] {
  const named = new Set(passes.flatMap(layersNamed));
  return [...neededLayers(layers), ...layers.slice(own).filter((l) => named.has(l.id))];
}

/** The layers that are shown and have come, with what their silhouettes are taken from. */
function shownOn(a: Arrangement, input: ArrangeInput): Shown[] {
  const named = new Set(input.passes.flatMap(layersNamed));
  return input.layers.flatMap((layer, i) => {
    if (i < input.own ? layer.hidden : !named.has(layer.id)) return [];
    const [content, rendered] = [contents.get(layer), a.rendered(layer, input.layers)];
    return !content || !rendered ? [] : [{ layer, content, rendered }];
  });
}

/** The target of what is arranged, on every n-th cell of it. */
async function look(a: Arrangement, input: ArrangeInput): Promise<Look> {
  const s = a.surface;
  const facts = a.facts();
  const g = s.grid;
  const step = Math.max(1, Math.ceil(Math.max(g.width, g.height) / VIEW));
  let grid = gridOf(g);
  let { z, cover, clipped } = s;
  if (step > 1) {
    const first = Math.floor(step / 2);
    const width = Math.floor((g.width - first - 1) / step) + 1;
    const height = Math.floor((g.height - first - 1) / step) + 1;
    grid = {
      width,
      height,
      cell: g.cell * step,
      originX: g.originX + first * g.cell,
      originY: g.originY + first * g.cell,
    };
    z = new Float32Array(width * height);
    cover = new Uint8Array(width * height);
    clipped = new Float32Array(width * height);
    for (let j = 0; j < height; j++) {
      for (let i = 0; i < width; i++) {
        const k = (first + j * step) * g.width + first + i * step;
        z[j * width + i] = s.z[k];
        cover[j * width + i] = s.cover[k];
        clipped[j * width + i] = s.clipped[k];
      }
    }
  }
  const areas = await resolveAreas(input, (ref) => outlineOf(ref, shownOn(a, input), g, input.seat.mode));
  const { field, mask } = buildTarget({
    grid,
    z,
    cover,
    mode: input.seat.mode,
    peak: facts.peak,
    low: facts.low,
    skin: input.seat.skin,
    drop: input.seat.drop,
    regions: areas.filter((r) => r !== null).map((r) => regionOf(r, grid)),
  });
  return {
    cells: g.width * g.height,
    seconds: 0,
    grid,
    target: field.data,
    mask,
    clipped: facts.clipped.cells > 0 ? Uint8Array.from(clipped, (v) => (v > 0 ? 1 : 0)) : null,
    facts,
  };
}

function closeLook(a: Arrangement, input: ArrangeInput, effects: Map<string, Effect>): CloseLook | null {
  const index = input.layers.findIndex((l) => l.id === input.selected);
  const l = input.layers[index];
  if (!l || l.hidden) return null;
  const r = a.rendered(l, input.layers);
  if (!r) return null;
  const { grid } = a;
  const beneath = a.without(input.layers, input.seat, (_, i) => i >= index);
  const base = {
    id: l.id,
    effect: effects.get(l.id) ?? null,
    standing: standingBounds(r, grid, AIR),
    field: flatFieldAt(beneath, l.centre.x, l.centre.y),
  };
  if (input.moving) return { ...base, visible: 1, section: null };
  const upTo = a.without(input.layers, input.seat, (_, i) => i > index);
  const rest = a.without(input.layers, input.seat, (_, i) => i === index);
  let stands = 0;
  let shows = 0;
  const { window: w } = r;
  for (let j = 0; j < w.height; j++) {
    for (let i = 0; i < w.width; i++) {
      if (r.heights[j * w.width + i] === AIR) continue;
      stands++;
      const k = (w.j + j) * grid.width + w.i + i;
      if (Math.abs(rest.z[k] - a.surface.z[k]) > 1e-3 || rest.cover[k] !== a.surface.cover[k]) shows++;
    }
  }
  const row = Math.round((l.centre.y - grid.originY) / grid.cell);
  const inside = row >= 0 && row < grid.height && w.width > 0;
  const cut = (s: Surface) => s.z.slice(row * grid.width + w.i, row * grid.width + w.i + w.width);
  return {
    ...base,
    visible: stands > 0 ? shows / stands : 0,
    section: inside
      ? {
          x0: grid.originX + w.i * grid.cell,
          x1: grid.originX + (w.i + w.width - 1) * grid.cell,
          beneath: cut(beneath),
          withIt: cut(upTo),
          end: cut(a.surface),
        }
      : null,
  };
}

const api = {
  /** The arrangement on a coarse grid, at once. */
  async coarse(input: ArrangeInput): Promise<CoarseLook> {
    await contents.load(needed(input));
    const start = performance.now();
    coarse = arrangementFor(coarse, input.board, coarseCell(input.board));
    const effects = coarse.effects(input.layers, input.seat);
    const out = await look(coarse, input);
    const problems: Record<string, string> = {};
    for (const l of input.layers) {
      const p = contents.problem(l);
      if (p) problems[l.id] = p;
    }
    const close = closeLook(coarse, input, effects);
    // The surface's own arrays go on being worked with: what is handed over is a copy.
    const answer = { ...out, target: out.target.slice(), mask: out.mask.slice(), close, problems };
    answer.seconds = (performance.now() - start) / 1000;
    return transfer(answer, [answer.target.buffer, answer.mask.buffer]);
  },

  /** The arrangement on the full grid; only what has changed is worked out again. */
  async full(input: ArrangeInput): Promise<Look> {
    await contents.load(needed(input));
    const start = performance.now();
    const cell = Math.max(input.cell, Math.sqrt((input.board.x * input.board.y) / MOST_FULL));
    full = arrangementFor(full, input.board, cell);
    full.update(input.layers, input.seat);
    const out = await look(full, input);
    const answer = { ...out, target: out.target.slice(), mask: out.mask.slice() };
    answer.seconds = (performance.now() - start) / 1000;
    return transfer(answer, [answer.target.buffer, answer.mask.buffer]);
  },

  /** The flat field that lies under a layer, and the layer itself, on the full grid. */
  async fieldUnder(input: ArrangeInput, id: string): Promise<{ field: FlatField; standing: Bounds } | null> {
    await api.full(input);
    const index = input.layers.findIndex((l) => l.id === id);
    const l = input.layers[index];
    if (!full || !l) return null;
    const beneath = full.without(input.layers, input.seat, (_, i) => i >= index);
    const field = flatFieldAt(beneath, l.centre.x, l.centre.y);
    const r = full.rendered(l, input.layers);
    const standing = r && standingBounds(r, full.grid, AIR);
    return field && standing ? { field, standing } : null;
  },

  /** The outline of layers as a shape of its own; null when nothing is left of it. */
  async outline(input: ArrangeInput, ids: string[], ref: OutlineRef, how: Joining): Promise<MadeShape | null> {
    await api.full(input);
    if (!full) return null;
    const shown = shownOn(full, input).filter((s) => ids.includes(s.layer.id));
    if (shown.length === 0) return null;
    if (how === 'union') return shapeOf(outlineOf({ ...ref, of: ids }, shown, full.grid, input.seat.mode));
    return shapeOf(changeOutline(joinSilhouettes(how, shown, full.grid), ref));
  },

  /** What of a layer stands higher than a share of its rise, as outlines or as their middle lines of a width; null when nothing does. */
  async trace(input: ArrangeInput, id: string, share: number, width: number | null): Promise<MadeShape | null> {
    await api.full(input);
    const l = input.layers.find((o) => o.id === id);
    const r = l && full?.rendered(l, input.layers);
    if (!l || !r || !full) return null;
    const polygon = traceOutlines(r, full.grid, share * l.rise);
    return width === null ? shapeOf(polygon) : strokesOf(middleLines(polygon, full.grid.cell), width);
  },

  /** What bits would leave of this surface: shares missed, and for the one looked at the map of it. */
  async detail(
    input: ArrangeInput,
    cutters: Cutter[],
    tolerance: number,
    shown: string,
  ): Promise<{ shares: Record<string, number>; map: { grid: Grid; mask: Uint8Array }; larger: number | null }> {
    await contents.load(needed(input));
    const finest = Math.max(input.cell, Math.max(input.board.x, input.board.y) / 1500);
    const a = new Arrangement(boardGrid(input.board.x, input.board.y, finest), (l) => contents.get(l));
    a.update(input.layers, input.seat);
    const shares: Record<string, number> = {};
    let mask = new Uint8Array(a.surface.z.length);
    let larger: number | null = null;
    for (const c of cutters) {
      const d = await detailOf(a.surface, profileOf(c), tolerance, localHost);
      shares[c.id] = d.missed;
      if (c.id !== shown) continue;
      mask = Uint8Array.from(d.left, (v) => (v > tolerance ? 1 : 0));
      larger = await largerFor(a.surface, profileOf(c), tolerance, localHost);
    }
    return { shares, map: { grid: gridOf(a.grid), mask }, larger };
  },

  /** Size, origin and missing letters of words as they would be set. */
  async measure(words: Words): Promise<Omit<LaidWords, 'polygon'>> {
    const { polygon: _, ...rest } = await contents.lay(words);
    return rest;
  },
};

export type ArrangeApi = typeof api;

expose(api);
