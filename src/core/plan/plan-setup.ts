import { joinFacts, type SurfaceFacts } from '../arrange/compose';
import { type DrawAll, raisedEdges } from '../arrange/edges';
import { grooveOf, isGroove } from '../arrange/grooves';
import { sourceKind } from '../arrange/kinds/registry';
import { placedOf } from '../arrange/render';
import { outlineOf, type Shown } from '../arrange/silhouette';
import { buildTarget, datumOf, FRAIL, frailToProve, keepStretches, type Region, type Target } from '../arrange/target';
import { keptOf } from '../doc/drum';
import type { OutlineRef } from '../doc/outline-ref';
import { outlineOfPass } from '../doc/pass';
import { cellAt, type Grid } from '../field/height-field';
import type { Found } from '../findings/finding';
import type { Polygon } from '../outline/polygon';
import { unionRings } from '../outline/union';
import { stepdownDeep } from '../passes/bearable';
import { cellOf } from '../passes/cell';
import { type CutGround, groundOf, joinGrounds } from '../passes/ground';
import { kindOf } from '../passes/registry';
import { cutSlots, type Slot } from '../passes/slots';
import { found } from '../proof/checks/registry';
import type { LayerSeen } from '../proof/checks/rule';
import type { LookCloser } from '../proof/closer';
import type { CutoutOfPass, PartToProve } from '../proof/look-at-part';
import type { SetupView } from '../setup/view';
import { composeJob } from './compose-job';
import type { LoadContent } from './composing';
import { drawingOf } from './draw-window';
import { joinPlanned, joinSeen } from './join-plots';
import { cutoutFacts, type Planned, planPasses } from './plan-passes';
import { BeyondPlots, type Plot, reachesOut } from './plots';
import { type ResolvedArea, regionOf, resolveAreas } from './regions';
import type { PlanEnvironment } from './stage';
import { type LeftStanding, undersideBefore } from './underside';

/** What a setup is planned on. */
export interface SetupInput {
  view: SetupView;
  /** The plots of its board, as it lies in this setup. */
  plots: Plot[];
}

export type DoneSetup = Awaited<ReturnType<typeof planSetup>>;

/** Whether a place lies on a plot; where there is only one, everything belongs to it. */
function hereOn(plot: Plot, plots: Plot[]): (x: number, y: number) => boolean {
  return plots.length === 1 ? () => true : (x, y) => cellAt(plot.grid, x, y) >= 0;
}

type Composite = Awaited<ReturnType<typeof composeJob>>;
/** An outline that is asked for, by what it is. */
type Outlines = Map<string, Polygon>;
const nameOf = (ref: OutlineRef) => JSON.stringify(ref);

/**
 * The outlines that a setup's passes name, as its layers on one plot give them: a ring belongs to the plot that it begins on.
 * @throws BeyondPlots where one begins on none of them, and would be forgotten
 */
async function outlinesOn({ view, plots }: SetupInput, plot: Plot, made: Composite): Promise<Outlines> {
  const here = hereOn(plot, plots);
  const out: Outlines = new Map();
  let shown: Shown[] | null = null;
  for (const pass of view.passes) {
    const ref = outlineOfPass(pass);
    if (!ref || out.has(nameOf(ref))) continue;
    shown ??= await made.shown();
    const rings = outlineOf(ref, shown, plot.grid, view.seat.mode);
    const everywhere = plots.map((p) => hereOn(p, plots));
    if (rings.some(([x, y]) => !everywhere.some((on) => on(x, y)))) throw new BeyondPlots(view.board.id);
    out.set(
      nameOf(ref),
      rings.filter((r) => here(r[0], r[1])),
    );
  }
  return out;
}

/** What of a setup is known only from all of its plots together. */
interface Whole {
  facts: SurfaceFacts;
  layers: LayerSeen[];
  areas: (ResolvedArea | null)[];
  outline(ref: OutlineRef): Promise<Polygon>;
}

/**
 * Draws the layers of a setup on all its plots and keeps what they come to together: how high and low they reach, which the seat asks for,
 * and the outlines that passes follow. Of several plots the composites are let go of and drawn again, or taken from the store, one by one.
 */
async function look(input: SetupInput, load: LoadContent, env: PlanEnvironment) {
  const { view, plots } = input;
  const facts: SurfaceFacts[] = [];
  const layers: LayerSeen[][] = [];
  const outlines: Outlines = new Map();
  let only: Composite | null = null;
  for (const plot of plots) {
    const made = await composeJob(view, plot.grid, load, env.stage);
    facts.push(made.facts);
    layers.push(made.layers);
    for (const [name, rings] of await outlinesOn(input, plot, made))
      outlines.set(name, [...(outlines.get(name) ?? []), ...rings]);
    if (plots.length === 1) only = made;
  }
  const outline = async (ref: OutlineRef) => outlines.get(nameOf(ref)) ?? [];
  const whole: Whole = {
    facts: joinFacts(facts),
    layers: joinSeen(layers),
    areas: await resolveAreas(view, outline),
    outline,
  };
  const made = async (plot: Plot) => {
    const had = only;
    only = null;
    return had ?? composeJob(view, plot.grid, load, env.stage);
  };
  return { whole, made };
}

/** A composite with what it is seated by. */
type Seated = Pick<Composite, 'key' | 'z' | 'cover'> & Pick<Whole, 'facts' | 'areas'>;

/**
 * What a part of a setup is held against: the target drawn from the layers once more on a grid of the proof's own, seated where the planned one
 * is, with slots and holes in it.
 */
export async function drawAgain(
  { view, composite, areas, slots }: Pick<DoneSetup, 'view' | 'composite' | 'areas' | 'slots'>,
  eye: Grid,
  load: LoadContent,
  env: PlanEnvironment,
): Promise<{ key: string; part: PartToProve }> {
  const made = await composeJob(view, eye, load, env.stage);
  const { key, target } = await targetOf(
    view,
    eye,
    { ...made, facts: composite, areas },
    env,
    frailToProve(cellOf(view).cell),
  );
  const { data } = target.field;
  for (let k = 0; k < data.length; k++) if (data[k] > 0) data[k] = 0;
  const opened = await cutSlots(target, slots, env.host);
  const { outside: _, ...drawn } = opened.target;
  const look: LookCloser = async (at, windows, each) => {
    const drawing = await drawingOf(view, { grid: eye, sloping: made.sloping }, load);
    const datum = datumOf({ ...view.seat, peak: composite.peak });
    await env.threads.work('closer', { drawing, datum, slots, at }, windows, each);
  };
  return { key, part: { target: drawn, through: opened.through, look } };
}

async function targetOf(
  view: SetupView,
  grid: Grid,
  { key: composite, z, cover, facts, areas }: Seated,
  env: PlanEnvironment,
  frail = FRAIL,
): Promise<{ key: string; target: Target; regions: (Region | null)[] }> {
  const plain = areas.map((a) => a && { ...a, polygon: a.polygon?.map((r) => Array.from(r)) });
  const { peak, low } = facts;
  const regions = areas.map((a) => a && regionOf(a, grid));
  const kept = keptOf(view.board).map(({ from, to }) => [from, to]);
  const { key, result } = await env.stage('target', { composite, peak, low, areas: plain, kept, frail }, async () => {
    const { mode, skin, drop } = view.seat;
    const within = regions.filter((r) => r !== null);
    const t = buildTarget({ grid, z, cover, mode, peak, low, skin, drop, regions: within, frail });
    keepStretches(t, kept);
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

/** The seated target of a plot, with what stands for it in keys. The composite is let go of with it: no closure that lasts may hold it. */
async function seat(
  { view, plot }: OnPlot,
  made: () => Promise<Composite>,
  whole: Pick<Whole, 'facts' | 'areas'>,
  { load, env }: Planning,
) {
  const { grid } = plot;
  const drawn = await made();
  const { regions, key, target } = await targetOf(view, grid, { ...drawn, ...whole }, env);
  if (reachesOut(grid, target.mask, view.board)) throw new BeyondPlots(view.board.id);
  const edges = await env.stage('edges', { composite: drawn.key, mode: view.seat.mode }, async () => {
    const surface = { grid, z: drawn.z, cover: drawn.cover, raised: view.seat.mode === 'raised' };
    const drawing = await drawingOf(view, { grid, sloping: drawn.sloping }, load);
    const draw: DrawAll = (grids, each) => env.threads.work('draw', drawing, grids, each);
    return { meta: null, arrays: { raised: await raisedEdges(surface, draw) } };
  });
  return { regions, key, target, raised: edges.result.arrays.raised as Float64Array };
}

/** A plot of a setup, and what belongs to it. */
interface OnPlot {
  view: SetupView;
  plot: Plot;
  here(x: number, y: number): boolean;
}

/** One plot of a setup, planned: its passes, and what they open in the board. */
async function planPlot(on: OnPlot, made: () => Promise<Composite>, whole: Whole, planning: Planning) {
  const { view, plot, here } = on;
  const { load, env, progress, before } = planning;
  const { regions, key, target, raised } = await seat(on, made, whole, planning);
  const grooves = async () => {
    const all = await Promise.all(view.layers.filter(isGroove).map(async (l) => grooveOf(l, (await load(l)).content)));
    return all.map((g) => ({ ...g, polygon: g.polygon.filter((r) => here(r[0], r[1])) }));
  };
  const edges = async () => {
    const made = view.layers.filter((l) => !l.hidden && !isGroove(l) && sourceKind(l).outline);
    const all = await Promise.all(made.map(async (l) => placedOf(l, (await load(l)).content)));
    return all.map((copies) => unionRings(copies.flatMap((c) => c.polygon ?? [])));
  };
  const shapes = { grooves, edges, outline: whole.outline, here, under: undersideBefore(view, before) };
  const asked = { view, target, raised, regions, key, passes: plot.passes, shapes };
  const { planned, ...after } = await planPasses(asked, env, progress);
  const slots = await slotsOf(on, planned, whole.outline);
  return { planned, level: target.ground, ground: groundOf(target), slots, left: after };
}

/** What the passes of a plot open in the board there. */
async function slotsOf({ view, here }: OnPlot, planned: Planned[], outline: Whole['outline']): Promise<Slot[]> {
  const out: Slot[] = [];
  for (const { pass, cutter, summary } of planned) {
    const kind = kindOf(pass);
    const own = kind.outline?.(pass);
    const { facts } = summary;
    const opened = kind.opens?.({ pass, cutter, facts, board: view.board, outline: own ? await outline(own) : [] });
    for (const slot of opened ?? []) out.push({ ...slot, chains: slot.chains.filter((c) => here(c[0], c[1])) });
  }
  return out;
}

/** What the kinds of the passes say of them, once all is planned. */
function judge(view: SetupView, planned: Planned[], ground: CutGround): Found[] {
  return planned.flatMap(({ pass, cutter, summary: { facts, trench } }) =>
    [stepdownDeep, ...(kindOf(pass).checks ?? [])].flatMap((check) =>
      check({ view, pass, cutter, facts, trench, ground }),
    ),
  );
}

/** What planning is done with. */
interface Planning {
  load: LoadContent;
  env: PlanEnvironment;
  progress: (name: string, share: number) => void;
  /** Setups of the same board that are cut before. */
  before: LeftStanding[];
}

/**
 * Plans one setup up to its paths: layers to target, passes on it plot by plot, and what can be said before anything is cut.
 * @param load reads a layer's content; called only when a stage needs it
 */
export async function planSetup(input: SetupInput, { load, env, progress, before }: Planning) {
  const { view, plots } = input;
  progress('layers', 0);
  const { whole, made } = await look(input, load, env);
  const { facts, layers, areas } = whole;
  const coarsest = plots.reduce((a, b) => (b.grid.cell / b.wanted > a.grid.cell / a.wanted ? b : a));
  const { wanted, grid } = coarsest;
  const said = found('before', { view, composite: facts, layers, cell: grid.cell, wanted });
  const done: Awaited<ReturnType<typeof planPlot>>[] = [];
  for (const [n, plot] of plots.entries()) {
    const own = (name: string, share: number) => progress(name, (n + share) / plots.length);
    const on = { view, plot, here: hereOn(plot, plots) };
    done.push(await planPlot(on, () => made(plot), whole, { load, env, progress: own, before }));
  }
  const planned = joinPlanned(
    view,
    done.map((d) => d.planned),
  );
  return {
    view,
    planned,
    composite: facts,
    areas,
    level: Math.min(...done.map((d) => d.level)),
    slots: done.flatMap((d) => d.slots),
    // Of a board's only setup nobody asks what it has left.
    left: view.board.setups.length > 1 ? done.map((d) => d.left) : [],
    cutouts: done.flatMap((d) => d.planned.flatMap(cutoutOfPass)),
    found: [...said, ...judge(view, planned, joinGrounds(done.map((d) => d.ground)))],
  };
}

/** A planned cut-out as its proof looks for it; one without a line is told by itself, and one that ends in the wood parts nothing. */
function cutoutOfPass({ pass, summary }: Planned): CutoutOfPass[] {
  const facts = cutoutFacts(summary);
  const parts = pass.kind === 'cutout' && pass.depth === null;
  return parts && facts && facts.rings.length > 0 ? [{ ...facts, pass: pass.id }] : [];
}
