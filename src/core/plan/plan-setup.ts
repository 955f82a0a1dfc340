import { grooveOf, isGroove } from '../arrange/grooves';
import { outlineOf, type Shown } from '../arrange/silhouette';
import { buildTarget, type Region, type Target } from '../arrange/target';
import type { OutlineRef } from '../doc/outline-ref';
import type { Pass } from '../doc/pass';
import type { Grid } from '../field/height-field';
import type { Found } from '../findings/finding';
import type { Polygon } from '../outline/polygon';
import { kindOf } from '../passes/registry';
import { cutSlots, type Slot } from '../passes/slots';
import { found } from '../proof/checks/registry';
import type { SetupView } from '../setup/view';
import { composeJob, type LoadContent } from './compose-job';
import { type Planned, planPasses } from './plan-passes';
import { regionOf, resolveAreas } from './regions';
import type { PlanEnvironment } from './stage';

/** What a setup is planned on. */
export interface SetupInput {
  view: SetupView;
  /** Over the board as it lies in this setup; `cell` and `wanted` as cellOf says. */
  grid: Grid;
  wanted: number;
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

/** The seated target of a setup, with what stands for it in keys. The composite is let go of with it: no closure that lasts may hold it. */
async function seat(input: SetupInput, load: LoadContent, env: PlanEnvironment) {
  const made = await composeJob(input.view, input.grid, load, env.stage);
  const outline = outlinesOf(input, made.shown);
  const areas = await resolveAreas(input.view, outline);
  const regions = areas.map((a) => a && regionOf(a, input.grid));
  const { key, target } = await targetOf(input, made, { areas, regions }, env);
  return { facts: made.facts, layers: made.layers, outline, areas, regions, key, target };
}

/** What the passes of a setup work on: areas with their outlines, and the cells of each. */
interface Grounds {
  areas: Awaited<ReturnType<typeof resolveAreas>>;
  regions: (Region | null)[];
}

async function targetOf(
  { view, grid }: SetupInput,
  made: Awaited<ReturnType<typeof composeJob>>,
  { areas, regions }: Grounds,
  env: PlanEnvironment,
): Promise<{ key: string; target: Target }> {
  const plain = areas.map((a) => a && { ...a, polygon: a.polygon?.map((r) => Array.from(r)) });
  const { key, result } = await env.stage('target', { composite: made.key, areas: plain }, async () => {
    const t = buildTarget({
      grid,
      z: made.z,
      cover: made.cover,
      mode: view.seat.mode,
      peak: made.facts.peak,
      low: made.facts.low,
      skin: view.seat.skin,
      drop: view.seat.drop,
      regions: regions.filter((r) => r !== null),
    });
    return { meta: { ground: t.ground }, arrays: { field: t.field.data, mask: t.mask, outside: t.outside } };
  });
  const target: Target = {
    field: { ...grid, data: result.arrays.field as Float32Array },
    mask: result.arrays.mask as Uint8Array,
    outside: result.arrays.outside as Float32Array,
    ground: result.meta.ground,
  };
  return { key, target };
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
  const { facts, layers, outline, areas, regions, key, target } = await seat(input, load, env);
  const said = found('before', { view, target, composite: facts, layers, cell: grid.cell, wanted });
  const grooves = () =>
    Promise.all(view.layers.filter(isGroove).map(async (l) => grooveOf(l, (await load(l)).content)));
  const planned = await planPasses({ view, target, regions, key, shapes: { grooves, outline } }, env, progress);
  const { slots, notes } = await judge(view, planned, target, outline);
  const opened = await cutSlots(target, slots, env.host);
  const { outside: _, ...drawn } = opened.target;
  return {
    view,
    key,
    planned,
    composite: facts,
    target: drawn,
    through: opened.through,
    slots: slots.map((s) => ({ ...s, chains: s.chains.map((c) => Array.from(c)) })),
    trenches: areas.map((a) => a?.trench ?? 0),
    found: [...said, ...notes],
  };
}
