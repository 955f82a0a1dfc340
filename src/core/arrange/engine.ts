import type { Layer, Seat, SeenLayer } from '../doc/layer';
import type { Grid } from '../field/height-field';
import {
  compose,
  type Effect,
  emptySurface,
  type Op,
  opOf,
  type Surface,
  type SurfaceFacts,
  surfaceFacts,
} from './compose';
import { isGroove } from './grooves';
import type { Content } from './kinds/kind';
import { renderLayer } from './render';
import type { Rendered } from './rendered';
import { type Line, type Section, sectionAlong } from './section';
import { reachOfWalls, type Walls, wallsOf } from './vee-walls';
import { grownWindow, joinWindows, type Window } from './window';

/** Bytes of rendered layers that are kept; the ones used longest ago go first. */
const BUDGET = 384 * 1024 ** 2;

/** All that a rendered layer depends on besides the grid and its source's content. */
export function renderKey(l: SeenLayer, all: SeenLayer[], depth = 0): string {
  const { source, size, rise, centre, turn, mirror, slope, thin, invert, copies, mask, turnedIn } = l;
  const named = mask.kind === 'layer' ? all.find((o) => o.id === mask.layer) : undefined;
  // A mask of a masked layer counts; rings of masks end after a few.
  const other = named && depth < 4 ? renderKey(named, all, depth + 1) : null;
  return JSON.stringify([source, size, rise, centre, turn, mirror, slope, thin, invert, copies, mask, turnedIn, other]);
}

/** The layers whose content a composite needs: those that are shown, and those that masks of them name. */
export function neededLayers(layers: Layer[]): Layer[] {
  const need = new Set(layers.filter((l) => !l.hidden));
  for (const l of need) {
    const { mask } = l;
    const named = mask.kind === 'layer' ? layers.find((o) => o.id === mask.layer) : undefined;
    if (named) need.add(named);
  }
  return layers.filter((l) => need.has(l));
}

interface Step extends Op {
  key: string;
  id: string;
}

const bytesOf = (r: Rendered) => r.heights.byteLength + (r.weight?.byteLength ?? 0) + (r.below?.byteLength ?? 0);

/** Layers joined on one grid. What was rendered is kept, and only the cells that a change touches are composed again. */
export class Arrangement {
  readonly surface: Surface;
  private steps: Step[] = [];
  private seat = '';
  private readonly kept = new Map<string, Rendered>();
  private bytes = 0;
  /** The walls of layers of V grooves, by the layers' ids, with what they depend on. */
  private readonly walled = new Map<string, { key: string; walls: Walls | null }>();

  /** @param contentOf a layer's source as read, or null while it is on its way: the layer is then left out */
  constructor(
    readonly grid: Grid,
    private readonly contentOf: (l: Layer) => Content | null,
  ) {
    this.surface = emptySurface(grid);
  }

  /** A layer rendered on this grid, from what is kept or anew; null while its content is on its way. */
  rendered(l: Layer, all: Layer[], depth = 0): Rendered | null {
    const key = renderKey(l, all);
    const had = this.kept.get(key);
    if (had) {
      this.kept.delete(key);
      this.kept.set(key, had);
      return had;
    }
    const content = this.contentOf(l);
    if (!content) return null;
    const { mask } = l;
    const named = mask.kind === 'layer' ? all.find((o) => o.id === mask.layer && o.id !== l.id) : undefined;
    const other = named && depth < 4 ? this.rendered(named, all, depth + 1) : null;
    // A mask that is on its way would be kept as one that hides everything.
    if (named && depth < 4 && !other) return null;
    const r = renderLayer(l, content, this.grid, other);
    this.kept.set(key, r);
    this.bytes += bytesOf(r);
    for (const [k, old] of this.kept) {
      if (this.bytes <= BUDGET) break;
      if (k === key) continue;
      this.kept.delete(k);
      this.bytes -= bytesOf(old);
    }
    return r;
  }

  /** The walls of a layer of V grooves, from what is kept or anew. */
  private walls(l: Layer, all: Layer[]): Walls | null {
    if (!isGroove(l)) return null;
    const key = `${renderKey(l, all)}|${l.lift}`;
    const had = this.walled.get(l.id);
    if (had?.key === key) return had.walls;
    const content = this.contentOf(l);
    const walls = content && wallsOf(l, content);
    this.walled.set(l.id, { key, walls });
    return walls;
  }

  private stepsOf(layers: Layer[]): Step[] {
    return layers.flatMap((l) => {
      if (l.hidden) return [];
      const rendered = this.rendered(l, layers);
      return rendered
        ? [
            {
              ...opOf(l, rendered, this.walls(l, layers)),
              key: `${renderKey(l, layers)}|${l.join}|${l.lift}|${l.amount}`,
              id: l.id,
            },
          ]
        : [];
    });
  }

  /** Brings the surface up to date. @returns the windows that were composed again */
  update(layers: Layer[], seat: Seat): Window[] {
    const steps = this.stepsOf(layers);
    const seatKey = JSON.stringify(seat);
    const dirty = seatKey === this.seat ? changedWindows(this.grid, this.steps, steps) : [this.whole()];
    this.steps = steps;
    this.seat = seatKey;
    for (const w of dirty) compose(this.surface, steps, seat, w);
    return dirty;
  }

  private whole(): Window {
    return { i: 0, j: 0, width: this.grid.width, height: this.grid.height };
  }

  facts(): SurfaceFacts {
    return surfaceFacts(this.surface);
  }

  /** Composes all of the surface, and says what each layer does to what lies beneath it, by its id. */
  effects(layers: Layer[], seat: Seat): Map<string, Effect> {
    const out: Effect[] = [];
    this.steps = this.stepsOf(layers);
    this.seat = JSON.stringify(seat);
    compose(this.surface, this.steps, seat, this.whole(), out);
    return new Map(this.steps.map((s, i) => [s.id, out[i]]));
  }

  /** A section through joined layers along a line, the chosen ones told apart; null when none of them is shown. */
  section(layers: Layer[], seat: Seat, chosen: Set<string>, line: Line, samples: number): Section | null {
    const steps = this.stepsOf(layers);
    const places = steps.flatMap((s, i) => (chosen.has(s.id) ? [i] : []));
    return places.length > 0 ? sectionAlong(steps, places, { grid: this.grid, seat }, line, samples) : null;
  }

  /** The surface without some layers, or only with those beneath one of them. */
  without(layers: Layer[], seat: Seat, leave: (l: Layer, index: number) => boolean): Surface {
    const s = emptySurface(this.grid);
    compose(s, this.stepsOf(layers.map((l, i) => (leave(l, i) ? { ...l, hidden: true } : l))), seat, this.whole());
    return s;
  }
}

/**
 * Windows in which two lists of steps may differ: equal steps at the start and at the end are passed over, the windows
 * of all that lies between count.
 */
function changedWindows(grid: Grid, was: Step[], now: Step[]): Window[] {
  let a = 0;
  while (a < was.length && a < now.length && was[a].key === now[a].key) a++;
  let b = 0;
  while (b < was.length - a && b < now.length - a && was[was.length - 1 - b].key === now[now.length - 1 - b].key) b++;
  const windows = [...was.slice(a, was.length - b), ...now.slice(a, now.length - b)].map((s) => s.rendered.window);
  const out: Window[] = [];
  for (const w of windows.filter((v) => v.width > 0)) {
    // Windows that overlap are taken together when that is no more work than apart.
    const near = out.findIndex((o) => {
      const u = joinWindows([o, w]);
      return u.width * u.height <= 1.1 * (o.width * o.height + w.width * w.height);
    });
    if (near < 0) out.push(w);
    else out[near] = joinWindows([out[near], w]);
  }
  // Ground that changes changes the walls of grooves beside it.
  const reach = Math.max(...[was, now].map((steps) => reachOfWalls(steps.map((s) => s.walls))));
  return reach > 0 ? out.map((w) => grownWindow(grid, w, reach)) : out;
}
