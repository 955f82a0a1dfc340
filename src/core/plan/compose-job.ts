import { compose, emptySurface, opOf, type SurfaceFacts, surfaceFacts } from '../arrange/compose';
import { renderKey } from '../arrange/engine';
import type { Layer } from '../arrange/layer';
import { type Content, type Rendered, renderLayer } from '../arrange/render';
import type { Shown } from '../arrange/silhouette';
import type { Window } from '../arrange/window';
import type { Grid } from '../field/height-field';
import type { Job } from './job';
import type { PlanEnvironment } from './stage';

/** Raised when what a stage computes from the same input changes, so that stored results are not taken for new ones. */
export const VERSION = 8;

/** What is known of a layer's content besides its heights. */
export interface ContentFacts {
  /** Bits a sample of an image, 0 for others. */
  depth: number;
  /** Whether an image's heights come in visible steps, and how high one is as a share of white; 0 when not. */
  step: number;
  /** Letters that the font does not have. */
  missing: string[];
}

export type LoadContent = (l: Layer) => Promise<{ content: Content; facts: ContentFacts }>;

type LayerMeta = ContentFacts & { window: Window; lostPlan: number; thinCells: number };

export interface LayerFacts extends ContentFacts {
  id: string;
  lostPlan: number;
  thinCells: number;
}

/** The composite of a job's layers on the board's grid; a layer is rendered again only when something of it has changed. */
export async function composeJob(
  job: Pick<Job, 'layers' | 'seat'>,
  grid: Grid,
  load: LoadContent,
  env: Pick<PlanEnvironment, 'stage'>,
) {
  const rendered = new Map<string, { key: string; r: Rendered; facts: LayerFacts }>();
  const render = async (l: Layer, depth = 0): Promise<{ key: string; r: Rendered; facts: LayerFacts }> => {
    const had = rendered.get(l.id);
    if (had) return had;
    const { mask } = l;
    const named = mask.kind === 'layer' ? job.layers.find((o) => o.id === mask.layer && o.id !== l.id) : undefined;
    const other = named && depth < 4 ? (await render(named, depth + 1)).r : null;
    const { key, result } = await env.stage<LayerMeta>(
      'layer',
      { VERSION, layer: renderKey(l, job.layers), grid },
      async () => {
        const { content, facts } = await load(l);
        const r = renderLayer(l, content, grid, other);
        const { window, lostPlan, thinCells } = r;
        const arrays: Record<string, Float32Array | Uint8Array> = { heights: r.heights };
        if (r.weight) arrays.weight = r.weight;
        if (r.below) arrays.below = r.below;
        return { meta: { ...facts, window, lostPlan, thinCells }, arrays };
      },
    );
    const { window, lostPlan, thinCells, ...facts } = result.meta;
    const out = {
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
    rendered.set(l.id, out);
    return out;
  };
  const shown = job.layers.filter((l) => !l.hidden);
  const parts: ({ l: Layer } & Awaited<ReturnType<typeof render>>)[] = [];
  for (const l of shown) parts.push({ l, ...(await render(l)) });
  const input = { VERSION, seat: job.seat, grid, ops: parts.map(({ l, key }) => [key, l.join, l.lift, l.amount]) };
  const made = await env.stage<SurfaceFacts>('composite', input, async () => {
    const s = emptySurface(grid);
    compose(
      s,
      parts.map(({ l, r }) => opOf(l, r)),
      job.seat,
      { i: 0, j: 0, width: grid.width, height: grid.height },
    );
    return { meta: surfaceFacts(s), arrays: { z: s.z, cover: s.cover } };
  });
  return {
    key: made.key,
    facts: made.result.meta,
    z: made.result.arrays.z as Float32Array,
    cover: made.result.arrays.cover as Uint8Array,
    layers: parts.map((p) => p.facts),
    /** The layers with what their silhouettes are taken from. */
    shown: (): Promise<Shown[]> =>
      Promise.all(
        parts.map(async ({ l, r }) => {
          // Files are traced around their cells: their content is not read again for it.
          const outlined = l.source.kind === 'words' || l.source.kind === 'shape';
          return { layer: l, rendered: r, content: outlined ? (await load(l)).content : {} };
        }),
      ),
  };
}
