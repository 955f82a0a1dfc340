import type { SurfaceFacts } from '../arrange/compose';
import { raisedEdges } from '../arrange/edges';
import { grooveOf, isGroove } from '../arrange/grooves';
import { outlineOf, type Shown } from '../arrange/silhouette';
import { buildTarget, datumOf, MASK, type Region, type Target } from '../arrange/target';
import type { OutlineRef } from '../doc/outline-ref';
import type { Pass } from '../doc/pass';
import { type Grid, gridOf, type HeightField } from '../field/height-field';
import type { Found } from '../findings/finding';
import type { KernelHost } from '../kernels/host';
import type { Polygon } from '../outline/polygon';
import { kindOf } from '../passes/registry';
import { cutSlots, type Slot } from '../passes/slots';
import { found } from '../proof/checks/registry';
import type { Look } from '../proof/closer';
import type { SetupView } from '../setup/view';
import { composeJob, type LoadContent } from './compose-job';
import { drawerOf } from './draw-window';
import { type Planned, planPasses } from './plan-passes';
import { type ResolvedArea, regionOf, resolveAreas } from './regions';
import type { PlanEnvironment } from './stage';

/** What a setup is planned on. */
export interface SetupInput {
  view: SetupView;
  /** Over the board as it lies in this setup; `cell` and `wanted` as cellOf says. */
  grid: Grid;
  wanted: number;
  /** The grid that the proof looks with. */
  eye: Grid;
}

export type DoneSetup = Awaited<ReturnType<typeof planSetup>>;

/** Outlines that are asked for, from layers that are shown when the first one is. */
function outlinesOf({ view, grid }: SetupInput, show: () => Promise<Shown[]>) {
  let shown: Promise<Shown[]> | null = null;
  return async (ref: OutlineRef): Promise<Polygon> => {
    shown ??= show();
    return outlineOf(ref, await shown, grid, view.seat.mode);
  };
}

/** A setup's composite with what its passes work on; null areas for passes that have none. */
type Seated = Pick<Composite, 'key' | 'z' | 'cover'> & {
  /** What the composite is seated by, and the areas with their outlines. */
  facts: SurfaceFacts;
  areas: (ResolvedArea | null)[];
};
type Composite = Awaited<ReturnType<typeof composeJob>>;

/** The seated target of a setup, with what stands for it in keys. The composite is let go of with it: no closure that lasts may hold it. */
async function seat(input: SetupInput, load: LoadContent, env: PlanEnvironment) {
  const { view, grid } = input;
  const made = await composeJob(view, grid, load, env.stage);
  const outline = outlinesOf(input, made.shown);
  const areas = await resolveAreas(view, outline);
  const { regions, key, target } = await targetOf(view, grid, { ...made, areas }, env);
  const edges = await env.stage('edges', { composite: made.key, mode: view.seat.mode }, async () => {
    const drawn = { grid, z: made.z, cover: made.cover, raised: view.seat.mode === 'raised' };
    return { meta: null, arrays: { raised: await raisedEdges(drawn, drawerOf(view, grid, load)) } };
  });
  const raised = edges.result.arrays.raised as Float64Array;
  return { facts: made.facts, layers: made.layers, outline, areas, regions, key, target, raised };
}

/** The target on finer windows, as the proof looks at them: drawn from the layers, seated, with slots as their bits leave them. */
function closerLook(
  { view, eye }: SetupInput,
  { peak }: SurfaceFacts,
  slots: Slot[],
  load: LoadContent,
  host: KernelHost,
): Look {
  const draw = drawerOf(view, eye, load);
  const datum = datumOf({ ...view.seat, peak });
  return async (g) => {
    const { z, cover } = await draw(g);
    const field: HeightField = { ...gridOf(g), data: z.map((v, k) => (cover[k] ? Math.min(0, datum + v) : datum)) };
    const mask = new Uint8Array(z.length).fill(MASK.cut);
    const opened = await cutSlots({ field, mask, outside: new Float32Array(0), ground: datum }, slots, host);
    return { field: opened.target.field, seen: cover };
  };
}

/** The target as the proof sees it: drawn from the layers once more on a grid of its own, seated where the planned one is. */
async function drawAgain(
  { view, eye }: SetupInput,
  seated: Pick<Seated, 'facts' | 'areas'>,
  load: LoadContent,
  env: PlanEnvironment,
) {
  const made = await composeJob(view, eye, load, env.stage);
  const { key, target } = await targetOf(view, eye, { ...made, ...seated }, env);
  const { data } = target.field;
  for (let k = 0; k < data.length; k++) if (data[k] > 0) data[k] = 0;
  return { key, target };
}

async function targetOf(
  view: SetupView,
  grid: Grid,
  { key: composite, z, cover, facts, areas }: Seated,
  env: PlanEnvironment,
): Promise<{ key: string; target: Target; regions: (Region | null)[] }> {
  const plain = areas.map((a) => a && { ...a, polygon: a.polygon?.map((r) => Array.from(r)) });
  const { peak, low } = facts;
  const regions = areas.map((a) => a && regionOf(a, grid));
  const { key, result } = await env.stage('target', { composite, peak, low, areas: plain }, async () => {
    const { mode, skin, drop } = view.seat;
    const t = buildTarget({ grid, z, cover, mode, peak, low, skin, drop, regions: regions.filter((r) => r !== null) });
    return { meta: { ground: t.ground }, arrays: { field: t.field.data, mask: t.mask, outside: t.outside } };
  });
  const target: Target = {
    field: { ...grid, data: result.arrays.field as Float32Array },
    mask: result.arrays.mask as Uint8Array,
    outside: result.arrays.outside as Float32Array,
    ground: result.meta.ground,
  };
  return { key, target, regions };
}

/** What the passes open in the board, and what their kinds say of them. */
async function judge(
  view: SetupView,
  planned: Planned[],
  target: Target,
  outline: (r: OutlineRef) => Promise<Polygon>,
) {
  const slots: Slot[] = [];
  const notes: Found[] = [];
  const none: Polygon = [];
  for (const { pass, cutter, summary } of planned) {
    const kind = kindOf(pass);
    const { facts, trench } = summary;
    const own = kind.outline?.(pass);
    const slot = kind.opens?.({ pass, cutter, facts, board: view.board, outline: own ? await outline(own) : none });
    if (slot) slots.push(slot);
    for (const check of kind.checks ?? [])
      notes.push(...check({ view, pass: pass as Pass, cutter, facts, trench, target }));
  }
  return { slots, notes };
}

/**
 * Plans one setup up to its paths: layers to target, passes on it, and what can be said before anything is cut.
 * @param load reads a layer's content; called only when a stage needs it
 */
export async function planSetup(
  input: SetupInput,
  load: LoadContent,
  env: PlanEnvironment,
  progress: (name: string, share: number) => void,
) {
  const { view, grid, wanted } = input;
  progress('layers', 0);
  const { facts, layers, outline, areas, regions, key, target, raised } = await seat(input, load, env);
  const said = found('before', { view, target, composite: facts, layers, cell: grid.cell, wanted });
  const grooves = () =>
    Promise.all(view.layers.filter(isGroove).map(async (l) => grooveOf(l, (await load(l)).content)));
  const planned = await planPasses({ view, target, raised, regions, key, shapes: { grooves, outline } }, env, progress);
  const { slots, notes } = await judge(view, planned, target, outline);
  const seen = await drawAgain(input, { facts, areas }, load, env);
  const opened = await cutSlots(seen.target, slots, env.host);
  const { outside: _, ...drawn } = opened.target;
  return {
    view,
    key: seen.key,
    planned,
    composite: facts,
    target: drawn,
    through: opened.through,
    look: closerLook(input, facts, slots, load, env.host),
    slots: slots.map((s) => ({ ...s, chains: s.chains.map((c) => Array.from(c)) })),
    trenches: areas.map((a) => a?.trench ?? 0),
    found: [...said, ...notes],
  };
}
