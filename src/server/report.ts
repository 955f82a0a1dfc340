import { sourceKind } from '../core/arrange/kinds/registry';
import { MASK } from '../core/arrange/target';
import type { Cutter } from '../core/cutter/cutter';
import type { Job } from '../core/doc/job';
import type { Layer } from '../core/doc/layer';
import type { HeightField } from '../core/field/height-field';
import { labelOf, textOf } from '../core/findings/texts/text-of';
import { cutoutFacts } from '../core/plan/plan-passes';
import type { Plan, SetupSummary, SetupSurfaces } from '../core/plan/summary';
import { barOf } from '../core/proof/bar';
import { type SetupView, setupView } from '../core/setup/view';
import { fieldToPng, maskToPng } from '../core/sources/height-image';

type Zero = { x: number; y: number; z: number };

/** A setup of a plan with its surfaces, and what its images are called. */
interface Part {
  view: SetupView;
  summary: SetupSummary;
  surfaces: SetupSurfaces;
  suffix: string;
}

/** The setups of a plan; the first that cuts layers has the plain names, the others their own behind them. */
function partsOf(job: Job, plan: Plan): Part[] {
  const parts = plan.summary.setups.map((summary, i) => ({
    view: setupView(job, summary.id),
    summary,
    surfaces: plan.surfaces[i],
  }));
  const main = Math.max(
    0,
    parts.findIndex((p) => p.view.layers.length > 0),
  );
  return parts.map((p, i) => ({ ...p, suffix: i === main ? '' : `-${i + 1}` }));
}

/** Height range of the surface images, setup coordinates: the board's top is exactly white. */
function range(view: SetupView): { low: number; high: number } {
  const into = Math.max(0, ...view.passes.map((p) => ('into' in p ? p.into : 0)));
  return { low: -(view.board.thickness + Math.max(2, into + 1)), high: 0 };
}

const place = (f: HeightField, { view, summary: { zero } }: Part, file: string) => {
  const { low, high } = range(view);
  return {
    file,
    cell: f.cell,
    x0: f.originX - zero.x,
    y0: f.originY + (f.height - 1) * f.cell - zero.y,
    firstRow: 'north' as const,
    z0: low - zero.z,
    z65535: high - zero.z,
  };
};

/** A cutter as the report describes it: its body and its limits, not how it is run. */
function reportCutter({ id, flutes, feed, plunge, rpm, price, runs, ...body }: Cutter) {
  return body;
}

function layerReport(l: Layer) {
  return {
    name: l.name,
    kind: l.source.kind,
    size: l.size,
    rise: l.rise,
    lift: l.lift,
    join: l.join,
    ...sourceKind(l).report?.(l),
  };
}

const from = <T extends { x: number; y: number }>(p: T, zero: Zero): T => ({ ...p, x: p.x - zero.x, y: p.y - zero.y });

function cutoutReport({ summary }: Part) {
  const { zero } = summary;
  return summary.cutouts.map((c) => {
    const facts = cutoutFacts(summary.passes.find((p) => p.id === c.pass));
    return {
      start: facts ? facts.start - zero.z : null,
      bottom: facts ? facts.bottom - zero.z : null,
      laps: facts?.levels ?? null,
      joined: c.joined && from(c.joined, zero),
      tabs: c.tabs.map((t) => from(t, zero)),
    };
  });
}

function setupReport(part: Part) {
  const { view, summary, surfaces, suffix } = part;
  const { setup } = view;
  return {
    id: setup.id,
    name: setup.name,
    up: setup.up,
    origin: setup.zero.origin,
    zZero: setup.zero.z,
    layers: view.layers.map(layerReport),
    composite: { peak: summary.composite.peak, low: summary.composite.low, clipped: summary.composite.clipped },
    cutouts: cutoutReport(part),
    target: place(surfaces.target, part, `target${suffix}.png`),
    cut: place(surfaces.cut, part, `cut${suffix}.png`),
    mask: { file: `mask${suffix}.png`, ...MASK },
  };
}

/** What the proof saw of a program, places in the programs' own coordinates. */
function provenReport(
  { bite, air, byPass, held }: Plan['summary']['programs'][number],
  zero: { x: number; y: number; z: number },
) {
  const here = <P extends { x: number; y: number }>(p: P): P => ({ ...p, x: p.x - zero.x, y: p.y - zero.y });
  const placed = (b: typeof bite) => b && { ...here(b), z: b.z - zero.z };
  return {
    bite: placed(bite),
    air,
    byPass: byPass.map((f) => ({ ...f, bite: placed(f.bite) })),
    held: { loose: held.loose.map(here), weak: held.weak.map(here) },
  };
}

/** Programs with their passes, named as they were written. */
function programReport(plan: Plan, files: string[]) {
  const { programs, setups } = plan.summary;
  return programs.map((p, i) => ({
    file: files[i],
    setup: p.setup,
    cutter: p.cutter,
    reserve: p.reserve,
    passes: p.passes.map((id) => {
      const all = setups.find((s) => s.id === p.setup)!.passes;
      const { kind, stockToLeave, stepover, stepdown, entries } = all.find((q) => q.id === id)!;
      return { kind, stockToLeave, stepover, stepdown, entries };
    }),
    seconds: p.seconds,
    naiveSeconds: p.naiveSeconds,
    cutLength: p.cutLength,
    rapidLength: p.rapidLength,
    volume: p.volume,
    ...provenReport(p, setups.find((s) => s.id === p.setup)!.zero),
  }));
}

function findingReport(plan: Plan) {
  return plan.summary.findings.map((f) => {
    const { message, remedy } = textOf(f);
    const zero = plan.summary.setups.find((s) => s.id === f.subject.setup)?.zero ?? { x: 0, y: 0, z: 0 };
    return {
      id: f.id,
      rule: f.rule,
      severity: f.severity,
      message: remedy ? `${message}; ${remedy}` : message,
      ...(f.place ? { x: f.place.x - zero.x, y: f.place.y - zero.y } : {}),
      ...(f.subject.setup === undefined ? {} : { setup: f.subject.setup }),
      figures: f.figures,
      fixes: f.fixes.map((fix) => ({ label: labelOf(fix), edits: fix.edits })),
    };
  });
}

/** Of a drum how its programs turn it, and what they leave of it; nothing of a board. */
function drumReport({ view: { board, machine }, surfaces }: Part) {
  const { drum, thickness } = board;
  if (!drum || !machine.rotary) return {};
  const { letter, feed } = machine.rotary;
  const degrees = 180 / (Math.PI * thickness);
  return { drum: { ...drum, diameter: 2 * thickness, letter, feed, degrees, left: barOf(surfaces.cut, thickness) } };
}

/**
 * The report of a plan, docs/job-file.md: everything in mm and in the programs' own coordinates. What there is one of in a job of one
 * setup stands at the top too.
 * @param files the names that the programs were written under
 */
export function makeReport(
  job: Job,
  plan: Plan,
  files: string[],
  stages: Record<string, number>,
  peakMemoryMb: number,
) {
  const parts = partsOf(job, plan);
  const main = parts.find((p) => p.suffix === '')!;
  const { board, setup, machine, layers } = main.view;
  const first = setupReport(main);
  return {
    board: {
      x: board.x,
      y: board.y,
      thickness: board.thickness,
      origin: setup.zero.origin,
      zZero: setup.zero.z,
      spoilboard: setup.spoilboard !== null,
      ...drumReport(main),
    },
    machine: {
      name: machine.name,
      x: machine.x,
      y: machine.y,
      zTravel: machine.zTravel,
      bedToNose: machine.bedToNose,
      maxFeed: machine.maxFeed,
      acceleration: machine.acceleration,
      junctionDeviation: machine.junctionDeviation,
      maxRpm: machine.maxRpm,
    },
    relief: layers[0] ? layerReport(layers[0]) : null,
    layers: first.layers,
    composite: first.composite,
    cutters: job.cutters.map(reportCutter),
    programs: programReport(plan, files),
    cutouts: first.cutouts,
    target: first.target,
    cut: first.cut,
    mask: first.mask,
    setups: parts.map(setupReport),
    boards: plan.summary.boards,
    stages,
    peakMemoryMb,
    findings: findingReport(plan),
  };
}

/** The images of a plan, three a setup. */
export function planImages(job: Job, plan: Plan): { name: string; bytes: Uint8Array }[] {
  return partsOf(job, plan).flatMap(({ view, surfaces: s, suffix }) => {
    const { low, high } = range(view);
    return [
      { name: `target${suffix}.png`, bytes: fieldToPng(s.target, low, high) },
      { name: `cut${suffix}.png`, bytes: fieldToPng(s.cut, low, high) },
      { name: `mask${suffix}.png`, bytes: maskToPng(s.target.width, s.target.height, s.mask) },
    ];
  });
}
