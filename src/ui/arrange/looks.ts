import type { Effect, Surface, SurfaceFacts } from '@/core/arrange/compose';
import type { Arrangement } from '@/core/arrange/engine';
import { type FlatField, flatFieldAt, standingBounds } from '@/core/arrange/flat-field';
import { outlineOf, type Shown } from '@/core/arrange/silhouette';
import { buildTarget } from '@/core/arrange/target';
import type { Cutter } from '@/core/cutter/cutter';
import type { Seat, SeenLayer } from '@/core/doc/layer';
import { layersNamed, type Pass } from '@/core/doc/pass';
import { AIR, type Grid, gridOf } from '@/core/field/height-field';
import type { Bounds } from '@/core/outline/polygon';
import { regionOf, resolveAreas } from '@/core/plan/regions';
import type { Contents } from './contents';

export interface ArrangeInput {
  /** Those of the setup, and hidden behind them those of the board's other setups. */
  layers: SeenLayer[];
  seat: Seat;
  board: { x: number; y: number; thickness: number };
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

/** Cells along the longer side of what is drawn. */
const VIEW = 1000;

/** The layers that are shown and have come, with what their silhouettes are taken from. */
export function shownOn(a: Arrangement, input: ArrangeInput, contents: Contents): Shown[] {
  const named = new Set(input.passes.flatMap(layersNamed));
  return input.layers.flatMap((layer, i) => {
    if (i < input.own ? layer.hidden : !named.has(layer.id)) return [];
    const [content, rendered] = [contents.get(layer), a.rendered(layer, input.layers)];
    return !content || !rendered ? [] : [{ layer, content, rendered }];
  });
}

/** The target of what is arranged, on every n-th cell of it. */
export async function look(a: Arrangement, input: ArrangeInput, contents: Contents): Promise<Look> {
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
  const areas = await resolveAreas(input, (ref) => outlineOf(ref, shownOn(a, input, contents), g, input.seat.mode));
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
    clipped: facts.clipped.area > 0 ? Uint8Array.from(clipped, (v) => (v > 0 ? 1 : 0)) : null,
    facts,
  };
}

/** What the selected layer does here; null when none is, or it is not there. */
export function closeLook(a: Arrangement, input: ArrangeInput, effects: Map<string, Effect>): CloseLook | null {
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
