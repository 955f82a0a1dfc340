import { compose, type Effect, emptySurface, type Op, opOf, type SurfaceFacts, surfaceFacts } from '../arrange/compose';
import { type LayerEffect, layerEffects } from '../arrange/effects';
import { renderKey } from '../arrange/engine';
import { isGroove } from '../arrange/grooves';
import type { ContentFacts } from '../arrange/kinds/kind';
import { sourceKind } from '../arrange/kinds/registry';
import { renderLayer } from '../arrange/render';
import type { Rendered } from '../arrange/rendered';
import type { Shown } from '../arrange/silhouette';
import { wallsOf } from '../arrange/vee-walls';
import type { DrawingGrid, Window } from '../arrange/window';
import type { SeenLayer } from '../doc/layer';
import { layersNamed } from '../doc/pass';
import type { LayerSeen } from '../proof/checks/rule';
import { seenLayers } from '../setup/view';
import { type Composing, type LoadContent, maskedBy } from './composing';
import { plannedOp } from './planned-op';
import type { RunStage } from './stage';

type LayerMeta = ContentFacts & { window: Window; lostPlan: number; thinCells: number };
/** What joining the layers has come to. */
interface Composed {
  facts: SurfaceFacts;
  /** Layers of V grooves on ground that is not level, by their places among those that are shown: their ids are no part of the key. */
  sloping: number[];
  effects: LayerEffect[];
}

interface RenderedLayer {
  key: string;
  r: Rendered;
  facts: Omit<LayerSeen, 'effect'> & ContentFacts;
}

/** Renders the layers that a setup sees, each once; a layer is rendered anew only when something of it has changed. */
class LayerRenderer {
  private readonly rendered = new Map<string, Promise<RenderedLayer>>();

  constructor(
    private readonly all: SeenLayer[],
    private readonly grid: DrawingGrid,
    private readonly load: LoadContent,
    private readonly stage: RunStage,
  ) {}

  render(l: SeenLayer, depth = 0): Promise<RenderedLayer> {
    // A layer under fewer masks is another one: what is rendered at the bottom of a ring of masks is not kept for the top.
    const name = `${l.id}|${depth}`;
    let made = this.rendered.get(name);
    if (!made) {
      made = this.make(l, depth);
      this.rendered.set(name, made);
    }
    return made;
  }

  private async make(l: SeenLayer, depth: number): Promise<RenderedLayer> {
    const named = maskedBy(l, this.all, depth);
    const other = named && (await this.render(named, depth + 1)).r;
    const input = { layer: renderKey(l, this.all, depth), grid: this.grid };
    const { key, result } = await this.stage<LayerMeta>('layer', input, async () => {
      const { content, facts } = await this.load(l);
      const r = renderLayer(l, content, this.grid, other);
      const { window, lostPlan, thinCells } = r;
      const arrays: Record<string, Float32Array | Uint8Array> = { heights: r.heights };
      if (r.weight) arrays.weight = r.weight;
      if (r.below) arrays.below = r.below;
      return { meta: { ...facts, window, lostPlan, thinCells }, arrays };
    });
    const { window, lostPlan, thinCells, ...facts } = result.meta;
    return {
      key,
      r: {
        window,
        lostPlan,
        thinCells,
        heights: result.arrays.heights as Float32Array,
        weight: (result.arrays.weight as Float32Array | undefined) ?? null,
        below: (result.arrays.below as Uint8Array | undefined) ?? null,
      },
      facts: { ...facts, id: l.id, lostPlan, thinCells },
    };
  }
}

/** The composite of a setup's layers on a grid. */
export async function composeJob(view: Composing, grid: DrawingGrid, load: LoadContent, stage: RunStage) {
  const all = seenLayers(view);
  const renderer = new LayerRenderer(all, grid, load, stage);
  const parts: ({ l: SeenLayer } & RenderedLayer)[] = [];
  for (const l of all) if (!l.hidden) parts.push({ l, ...(await renderer.render(l)) });
  const ops = parts.map(({ l, key }) => [key, l.join, l.lift, l.amount]);
  const made = await stage<Composed>('composite', { seat: view.seat, grid, ops }, async () => {
    const s = emptySurface(grid);
    const joined: Op[] = [];
    const planned: Op[] = [];
    for (const { l, r } of parts) {
      const walls = isGroove(l) ? wallsOf(l, (await load(l)).content) : null;
      joined.push(opOf(l, r, walls));
      planned.push(plannedOp(l, r, walls, grid));
    }
    const done: Effect[] = [];
    const counted = planned.some((o) => o.walls) ? done : undefined;
    compose(s, planned, view.seat, { i: 0, j: 0, width: grid.width, height: grid.height }, counted);
    const sloping = parts.flatMap((_, n) => (done[n]?.sloping ? [n] : []));
    return {
      meta: { facts: surfaceFacts(s), sloping, effects: layerEffects(joined, view.seat) },
      arrays: { z: s.z, cover: s.cover },
    };
  });
  const { facts, effects, sloping } = made.result.meta;
  const shownOf = async (l: SeenLayer, r: Rendered): Promise<Shown> => {
    // Files are traced around their cells: their content is not read again for it.
    const outlined = sourceKind(l).outline !== undefined;
    return { layer: l, rendered: r, content: outlined ? (await load(l)).content : {} };
  };
  return {
    key: made.key,
    facts,
    /** Layers of V grooves on ground that is not level, by their ids. */
    sloping: sloping.map((n) => parts[n].l.id),
    z: made.result.arrays.z as Float32Array,
    cover: made.result.arrays.cover as Uint8Array,
    layers: parts.map((p, i): LayerSeen => ({ ...p.facts, effect: effects[i] })),
    /** The layers with what their silhouettes are taken from, and those that passes name though they are not seen: hidden ones, and other setups'. */
    shown: async (): Promise<Shown[]> => {
      const named = new Set(view.passes.flatMap(layersNamed));
      const others = all.filter((l) => l.hidden && named.has(l.id));
      const seen = await Promise.all(others.map(async (l) => shownOf(l, (await renderer.render(l)).r)));
      return [...(await Promise.all(parts.map(({ l, r }) => shownOf(l, r)))), ...seen];
    },
  };
}
