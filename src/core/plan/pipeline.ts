import { compose, emptySurface, opOf, type SurfaceFacts, surfaceFacts } from '../arrange/compose';
import { renderKey } from '../arrange/engine';
import { grooveOf, isGroove } from '../arrange/grooves';
import type { Layer } from '../arrange/layer';
import { type Content, type Rendered, renderLayer } from '../arrange/render';
import { type OutlineRef, outlineOf, type Shown } from '../arrange/silhouette';
import { buildTarget, type Target } from '../arrange/target';
import type { Window } from '../arrange/window';
import { boardGrid, type Grid, gridOf, type HeightField } from '../field/height-field';
import { SAFE_HEIGHT } from '../passes/context';
import { type CutoutFacts, cutoutSlot } from '../passes/cutout';
import { holeSlot } from '../passes/holes';
import { boardTops } from '../passes/skim';
import { cutSlots, type Slot } from '../passes/slots';
import { commentText, fileStem, type ProgramPart, writeProgram, zeroOf } from '../program/writer';
import type { CutoutProof } from '../proof/connect';
import { type Finding, sortFindings } from '../proof/finding';
import { prove } from '../proof/prove';
import { formatDuration, formatLength } from '../units/length';
import { cutoutFindings } from './cutout-findings';
import { geometryFindings } from './geometry';
import { cellOf, type Job } from './job';
import type { CutoutPass, Pass } from './pass';
import { compareFlats, type FlatSaving, PassPlanner, type PassSummary, type Planned } from './paths';
import { regionOf, resolveAreas } from './regions';
import type { PlanEnvironment } from './stage';

export interface PlannedProgram {
  file: string;
  /** Number of the bit it starts with. */
  cutter: number;
  text: string;
  passes: string[];
  rough: boolean;
  /** Whether the board lies on its face, turned over its y axis, while it runs. */
  back: boolean;
  seconds: number;
  naiveSeconds: number;
  cutLength: number;
  rapidLength: number;
  /** mm3 that the proof saw it remove. */
  volume: number;
}

export interface PlanSummary {
  grid: Grid;
  ground: number;
  /** Highest and lowest point of the joined layers, and what of them is clipped. */
  composite: SurfaceFacts;
  zero: { x: number; y: number; z: number };
  passes: PassSummary[];
  programs: PlannedProgram[];
  findings: Finding[];
  thinnest: number;
  deepest: number;
  leftShare: number;
  seconds: number;
  /** What clearing level fields with a flat bit saves, or would save; null where there are none. */
  flats: FlatSaving | null;
  /** What the proof found of every cut-out. */
  cutouts: (CutoutProof & { pass: string })[];
}

export interface Plan {
  summary: PlanSummary;
  target: HeightField;
  mask: Uint8Array;
  cut: HeightField;
  rough: HeightField | null;
  deviation: Float32Array;
}

/** Raised when what a stage computes from the same input changes, so that stored results are not taken for new ones. */
const VERSION = 6;

/** What is known of a layer's content besides its heights. */
export interface ContentFacts {
  /** Bits a sample of an image, 0 for others. */
  depth: number;
  /** Whether an image's heights come in visible steps, and how high one is as a share of white; 0 when not. */
  step: number;
  /** Letters that the font does not have. */
  missing: string[];
}

/** Most that arcs may lie off the path that they are fitted to, mm. */
const ARC_TOLERANCE = 0.01;

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

/**
 * The whole way from layers to proven programs. A pure function of the job and its files; each stage is keyed by what it
 * depends on, so that a stored result is used again when only later stages have changed.
 * @param load reads a layer's content; called only when a stage needs it
 */
export async function planJob(job: Job, load: LoadContent, env: PlanEnvironment): Promise<Plan> {
  const { cell } = cellOf(job);
  const grid = boardGrid(job.board.x, job.board.y, cell);
  env.progress('layers', 0);
  const made = await composeJob(job, grid, load, env);

  env.progress('target', 0.05);
  let shown: Promise<Shown[]> | null = null;
  const outline = async (ref: OutlineRef) => {
    shown ??= made.shown();
    return outlineOf(ref, await shown, grid, job.seat.mode);
  };
  const areas = await resolveAreas(job, outline);
  const plain = areas.map((a) => a && { ...a, polygon: a.polygon?.map((r) => Array.from(r)) });
  const regions = areas.map((a) => a && regionOf(a, grid));
  const seated = await env.stage('target', { composite: made.key, areas: plain }, async () => {
    const t = buildTarget({
      grid,
      z: made.z,
      cover: made.cover,
      mode: job.seat.mode,
      peak: made.facts.peak,
      low: made.facts.low,
      skin: job.seat.skin,
      drop: job.seat.drop,
      regions: regions.filter((r) => r !== null),
    });
    return { meta: { ground: t.ground }, arrays: { field: t.field.data, mask: t.mask, outside: t.outside } };
  });
  const arrays = seated.result.arrays;
  const target: Target = {
    field: { ...grid, data: arrays.field as Float32Array },
    mask: arrays.mask as Uint8Array,
    outside: arrays.outside as Float32Array,
    ground: seated.result.meta.ground,
  };
  const findings = geometryFindings(
    job,
    target,
    areas.map((a) => a?.trench ?? 0),
    made.facts,
    made.layers,
  );

  const grooves = () => Promise.all(job.layers.filter(isGroove).map(async (l) => grooveOf(l, (await load(l)).content)));
  const paths = new PassPlanner(job, target, regions, seated.key, env, { grooves, outline });
  const planned = await paths.plan(job.passes, (name, share) => env.progress(name, 0.1 + 0.4 * share));
  const flats = await compareFlats(job, planned, paths);

  const skim = job.passes.find((p) => p.kind === 'skim') ?? null;
  env.progress('programs', 0.55);
  const zero = zeroOf(job.board);
  const programs = writePrograms(job, planned, zero);
  env.progress('proof', 0.6);
  for (const { summary } of planned) {
    for (const e of summary.edges)
      findings.push({
        rule: 'groove',
        severity: 'warning',
        message: `${job.layers.find((l) => l.id === e.layer)?.name ?? 'a groove'} runs over an edge that is ${formatLength(e.step)} high`,
        remedy: 'move or turn it so that all of it lies on even ground, or cut it less deep',
        x: e.x,
        y: e.y,
      });
  }
  const slots: Slot[] = [];
  const cutouts: { pass: CutoutPass; facts: CutoutFacts }[] = [];
  for (const { pass, cutter, summary } of planned) {
    if (pass.kind === 'hole') slots.push(holeSlot(pass, cutter, job.board.thickness));
    if (pass.kind !== 'cutout' || !summary.cutout) continue;
    const facts = summary.cutout;
    slots.push(cutoutSlot(pass, cutter, facts, await outline(pass.outline)));
    cutouts.push({ pass, facts });
    findings.push(...cutoutFindings(job, pass, cutter, facts));
  }
  const { target: whole, through } = await cutSlots(target, slots, env.host);
  const proofInput = {
    VERSION,
    target: seated.key,
    slots: slots.map((s) => ({ ...s, chains: s.chains.map((c) => Array.from(c)) })),
    texts: programs.map((p) => [p.file, p.text, p.rough]),
    board: job.board,
    machine: job.machine,
    cutters: job.cutters,
    points: skim?.points ?? null,
  };
  const proof = await env.stage('proof', proofInput, async () => {
    const written = programs.map((p) => ({ file: p.file, text: p.text, tool: p.cutter, rough: p.rough, back: p.back }));
    const p = await prove(
      {
        programs: written,
        cutters: job.cutters,
        zero,
        target: whole,
        board: job.board,
        machine: job.machine,
        through,
        tops: (turned) => skim && boardTops(skim, job.board.thickness, grid, job.board.x, turned),
        cutouts: cutouts.map((c) => c.facts),
      },
      env.host,
    );
    return {
      meta: {
        findings: p.findings,
        thinnest: p.thinnest,
        deepest: p.deepest,
        leftShare: p.deviation.leftShare,
        volumes: p.volumes,
        cutouts: p.cutouts,
      },
      arrays: { cut: p.cut.data, deviation: p.deviation.map, ...(p.rough ? { rough: p.rough.data } : {}) },
    };
  });
  env.progress('done', 1);
  const m = proof.result.meta;
  programs.forEach((p, i) => {
    p.volume = m.volumes[i];
  });
  const out = proof.result.arrays as Record<string, Float32Array>;
  return {
    summary: {
      grid: gridOf(grid),
      ground: target.ground,
      composite: made.facts,
      zero,
      passes: planned.map((p) => p.summary),
      programs,
      findings: sortFindings([...findings, ...m.findings]),
      thinnest: m.thinnest,
      deepest: m.deepest,
      leftShare: m.leftShare,
      seconds: programs.reduce((s, p) => s + p.seconds, 0),
      flats,
      cutouts: m.cutouts.map((c, i) => ({ ...c, pass: cutouts[i].pass.id })),
    },
    target: whole.field,
    mask: whole.mask,
    cut: { ...grid, data: out.cut },
    rough: out.rough ? { ...grid, data: out.rough } : null,
    deviation: out.deviation,
  };
}

/** Whether the board lies on its face for a pass. */
const backUp = (p: Pass) => p.kind === 'skim' && p.side === 'back';

/** Passes that follow each other with the same bit share a run; a run is a file, or all are in one where bits change by themselves. */
function writePrograms(job: Job, planned: Planned[], zero: { x: number; y: number; z: number }): PlannedProgram[] {
  const runs: Planned[][] = [];
  for (const p of planned) {
    if (p.moves.length === 0) continue;
    const last = runs.at(-1);
    const same = last && backUp(last[0].pass) === backUp(p.pass);
    if (same && (job.output.oneFile || last[0].cutter.id === p.cutter.id)) last.push(p);
    else runs.push([p]);
  }
  return runs.map((run, i) => {
    const sum = (key: 'seconds' | 'naiveSeconds' | 'cutLength' | 'rapidLength') =>
      run.reduce((s, p) => s + p.summary[key], 0);
    const bits = [...new Set(run.map((p) => p.cutter.name))];
    const file = `${fileStem(job.order, job.name, `${i + 1}-${bits.join('-')}`)}.nc`;
    const { board } = job;
    const header = [
      `${job.name}${job.order ? `, order ${job.order}` : ''}`,
      `board ${formatLength(board.x)} x ${formatLength(board.y)} x ${formatLength(board.thickness)} ${board.material}`,
      `origin ${board.origin}, Z zero on the ${board.zZero === 'top' ? 'board top' : 'machine bed'}, ${job.output.unit}`,
      ...run.map(
        (p) =>
          `${p.pass.kind} with bit ${p.cutter.number} ${p.cutter.name} at ${p.cutter.rpm} rpm, ${formatDuration(p.summary.seconds)}`,
      ),
      ...(backUp(run[0].pass) ? ['board on its face, turned over its y axis'] : []),
      ...(run.some((p) => p.pass.kind === 'skim')
        ? ['Z zero counts from the face that the skim leaves: set it from the bed']
        : []),
      `about ${formatDuration(sum('seconds'))}`,
      'eye and hearing protection, dust extraction, never leave it running alone',
    ].map(commentText);
    const parts: ProgramPart[] = run.map((p) => ({
      title: `${p.pass.kind}, ${p.cutter.name}`,
      toolNumber: p.cutter.number,
      rpm: p.cutter.rpm,
      moves: p.moves,
      arcs: p.pass.kind === 'cutout' || p.pass.kind === 'hole' ? ARC_TOLERANCE : 0,
    }));
    const text = writeProgram(parts, {
      header,
      zero,
      unit: job.output.unit,
      safeZ: SAFE_HEIGHT,
      toolChanger: job.output.oneFile && job.machine.toolChanger,
    });
    return {
      file,
      cutter: run[0].cutter.number,
      text,
      passes: run.map((p) => p.pass.id),
      back: backUp(run[0].pass),
      rough: run.every((p) => p.pass.kind === 'skim' || p.pass.kind === 'rough' || p.pass.kind === 'flat'),
      seconds: sum('seconds'),
      naiveSeconds: sum('naiveSeconds'),
      cutLength: sum('cutLength'),
      rapidLength: sum('rapidLength'),
      volume: 0,
    };
  });
}
