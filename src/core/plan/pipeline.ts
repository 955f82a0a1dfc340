import type { SurfaceFacts } from '../arrange/compose';
import { grooveOf, isGroove } from '../arrange/grooves';
import { type OutlineRef, outlineOf, type Shown } from '../arrange/silhouette';
import { buildTarget, type Target } from '../arrange/target';
import { boardGrid, type Grid, gridOf, type HeightField } from '../field/height-field';
import { type CutoutFacts, cutoutSlot } from '../passes/cutout';
import { holeSlot } from '../passes/holes';
import { boardTops } from '../passes/skim';
import { cutSlots, type Slot } from '../passes/slots';
import { zeroOf } from '../program/writer';
import type { CutoutProof } from '../proof/connect';
import { type Finding, sortFindings } from '../proof/finding';
import { prove } from '../proof/prove';
import { formatLength } from '../units/length';
import { composeJob, type LoadContent, VERSION } from './compose-job';
import { cutoutFindings } from './cutout-findings';
import { geometryFindings } from './geometry';
import { cellOf, type Job } from './job';
import type { CutoutPass } from './pass';
import { compareFlats, type FlatSaving, PassPlanner, type PassSummary } from './paths';
import { type PlannedProgram, writePrograms } from './programs';
import { regionOf, resolveAreas } from './regions';
import type { PlanEnvironment } from './stage';

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
