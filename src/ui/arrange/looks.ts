import type { Effect, SurfaceFacts } from '@/core/arrange/compose';
import type { Arrangement } from '@/core/arrange/engine';
import { type FlatField, flatFieldAt, standingBounds } from '@/core/arrange/flat-field';
import { boundsOf } from '@/core/arrange/place';
import { lineThrough, rowOf, type Section } from '@/core/arrange/section';
import { outlineOf, type Shown } from '@/core/arrange/silhouette';
import { buildTarget } from '@/core/arrange/target';
import type { Cutter } from '@/core/cutter/cutter';
import type { Board } from '@/core/doc/board';
import type { Seat, SeenLayer } from '@/core/doc/layer';
import { layersNamed, type Pass } from '@/core/doc/pass';
import { AIR, type Grid, gridOf } from '@/core/field/height-field';
import { thinly, thinOut } from '@/core/field/thin';
import { type Bounds, joinBounds } from '@/core/outline/polygon';
import { regionOf, resolveAreas } from '@/core/plan/regions';
import type { Contents } from './contents';

export interface ArrangeInput {
  /** Those of the setup, and hidden behind them those of the board's other setups. */
  layers: SeenLayer[];
  seat: Seat;
  board: Pick<Board, 'x' | 'y' | 'thickness' | 'drum'>;
  /** How many of them are the setup's own. */
  own: number;
  passes: Pass[];
  cutters: Cutter[];
  /** The layers that are looked at closely; less closely while something moves. */
  selected: string[];
  /** Along which of its own axes a layer is cut in its section. */
  axis: 'x' | 'y';
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
  /** Where it stands by its cells, and the flat field under it. */
  standing: Bounds | null;
  field: FlatField | null;
}

/** A section through what is selected: of one layer along its own axis, of several along the board's x through the highest of them. */
export interface SelectedSection extends Section {
  /** What it is a section of: ids in the order of text. */
  of: string[];
  axis: 'x' | 'y';
}

/** A layer by itself along the board's x through its middle, over the board's whole length, mm with its lift; AIR where it has nothing. */
export type ThinSection = Float32Array;

export interface CoarseLook extends Look {
  close: CloseLook | null;
  section: SelectedSection | null;
  thin: Record<string, ThinSection>;
  /** Why layers cannot be shown, by id. */
  problems: Record<string, string>;
}

/** Cells along the longer side of what is drawn. */
export const VIEW = 1000;

/** The layers that are shown and have come, with what their silhouettes are taken from. */
export function shownOn(a: Arrangement, input: ArrangeInput, contents: Contents): Shown[] {
  const named = new Set(input.passes.flatMap(layersNamed));
  return input.layers.flatMap((layer, i) => {
    if (i < input.own ? layer.hidden : !named.has(layer.id)) return [];
    const [content, rendered] = [contents.get(layer), a.rendered(layer, input.layers)];
    return !content || !rendered ? [] : [{ layer, content, rendered }];
  });
}

/** The target of what is arranged, on some of its cells: evenly over all of the board, or over a part of it, mm, and so many along its longer side. */
export async function look(
  a: Arrangement,
  input: ArrangeInput,
  contents: Contents,
  of: { box?: Bounds; most: number } = { most: VIEW },
): Promise<Look> {
  const s = a.surface;
  const facts = a.facts();
  const g = s.grid;
  const some = thinly(g, of.most, of.box);
  const whole = some.step === 1 && some.grid.width === g.width && some.grid.height === g.height;
  const grid = whole ? gridOf(g) : some.grid;
  const thin = <T extends Float32Array | Uint8Array>(data: T) => (whole ? data : thinOut(data, g, some));
  const [z, cover, clipped] = [thin(s.z), thin(s.cover), thin(s.clipped)];
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

/** Samples of a section, and of the thin ones in the list. */
const SAMPLES = 201;
const THIN = 121;

/** The section through what is selected; null when nothing of it is shown. */
export function sectionLook(a: Arrangement, { layers, seat, selected, axis }: ArrangeInput): SelectedSection | null {
  const chosen = layers.filter((l) => selected.includes(l.id) && !l.hidden);
  if (chosen.length === 0) return null;
  const highest = chosen.reduce((m, l) => (l.rise > m.rise ? l : m));
  const line = chosen.length === 1 ? lineThrough(highest, axis) : acrossAll(chosen, lineThrough(highest, 'x'));
  const section = a.section(layers, seat, new Set(selected), line, SAMPLES);
  return section && { ...section, of: [...selected].sort(), axis: chosen.length === 1 ? axis : 'x' };
}

/** Along the board's x at the middle of a line, as far as some layers lie. */
function acrossAll(some: SeenLayer[], { y0, y1 }: { y0: number; y1: number }) {
  const { x0, x1 } = joinBounds(some.map(boundsOf));
  const more = 0.06 * (x1 - x0);
  return { x0: x0 - more, y0: (y0 + y1) / 2, x1: x1 + more, y1: (y0 + y1) / 2 };
}

/** Each of the setup's own layers by itself, as thin as the list shows it. */
export function thinSections(a: Arrangement, { layers, own, board }: ArrangeInput): Record<string, ThinSection> {
  const out: Record<string, ThinSection> = {};
  for (const l of layers.slice(0, own)) {
    const r = a.rendered(l, layers);
    if (!r) continue;
    const { y0, y1 } = lineThrough(l, 'x');
    const middle = (y0 + y1) / 2;
    const { heights } = rowOf(r, a.grid, { x0: 0, y0: middle, x1: board.x, y1: middle }, THIN);
    const sign = l.join === 'carve' ? -1 : 1;
    out[l.id] = heights.map((h) => (h === AIR ? AIR : sign * (h + l.lift)));
  }
  return out;
}

/** What the one selected layer does here; null when none or several are, or it is not there. */
export function closeLook(a: Arrangement, input: ArrangeInput, effects: Map<string, Effect>): CloseLook | null {
  const index = input.selected.length === 1 ? input.layers.findIndex((l) => l.id === input.selected[0]) : -1;
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
  if (input.moving) return { ...base, visible: 1 };
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
  return { ...base, visible: stands > 0 ? shows / stands : 0 };
}
