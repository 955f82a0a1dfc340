import type { Layer } from '../core/arrange/layer';
import { MASK } from '../core/arrange/target';
import type { Cutter } from '../core/cutter/cutter';
import type { HeightField } from '../core/field/height-field';
import type { Job } from '../core/plan/job';
import type { Plan } from '../core/plan/pipeline';
import { fieldToPng, maskToPng } from '../core/sources/height-image';

/** Height range of the two surface images, board coordinates: the board's top is exactly white. */
function range(job: Job): { low: number; high: number } {
  const into = Math.max(0, ...job.passes.map((p) => ('into' in p ? p.into : 0)));
  return { low: -(job.board.thickness + Math.max(2, into + 1)), high: 0 };
}

const place = (f: HeightField, job: Job, zero: { x: number; y: number; z: number }, file: string) => {
  const { low, high } = range(job);
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
function reportCutter({ id, flutes, feed, plunge, rpm, ...body }: Cutter) {
  return body;
}

/**
 * The report of a plan, docs/job-file.md: everything in mm and in the programs' own coordinates.
 * @param files the names that the programs were written under
 */
export function makeReport(
  job: Job,
  plan: Plan,
  files: string[],
  stages: Record<string, number>,
  peakMemoryMb: number,
) {
  const { summary } = plan;
  const { board, machine } = job;
  return {
    board: {
      x: board.x,
      y: board.y,
      thickness: board.thickness,
      origin: board.origin,
      zZero: board.zZero,
      spoilboard: board.spoilboard,
    },
    machine: {
      name: machine.name,
      x: machine.x,
      y: machine.y,
      zTravel: machine.zTravel,
      maxFeed: machine.maxFeed,
      acceleration: machine.acceleration,
      junctionDeviation: machine.junctionDeviation,
      maxRpm: machine.maxRpm,
    },
    relief: job.layers[0] ? layerReport(job.layers[0]) : null,
    layers: job.layers.map(layerReport),
    composite: { peak: summary.composite.peak, low: summary.composite.low, clipped: summary.composite.clipped },
    cutters: job.cutters.map(reportCutter),
    programs: summary.programs.map((p, i) => ({
      file: files[i],
      cutter: p.cutter,
      passes: p.passes.map((id) => {
        const { kind, stockToLeave, stepover, stepdown } = summary.passes.find((q) => q.id === id)!;
        return { kind, stockToLeave, stepover, stepdown };
      }),
      seconds: p.seconds,
      naiveSeconds: p.naiveSeconds,
      cutLength: p.cutLength,
      rapidLength: p.rapidLength,
      back: p.back,
    })),
    cutouts: summary.cutouts.map((c) => {
      const facts = summary.passes.find((p) => p.id === c.pass)?.cutout;
      const from = <T extends { x: number; y: number }>(p: T): T => ({
        ...p,
        x: p.x - summary.zero.x,
        y: p.y - summary.zero.y,
      });
      return {
        start: facts ? facts.start - summary.zero.z : null,
        bottom: facts ? facts.bottom - summary.zero.z : null,
        laps: facts?.levels ?? null,
        joined: c.joined && from(c.joined),
        tabs: c.tabs.map(from),
      };
    }),
    target: place(plan.target, job, summary.zero, 'target.png'),
    cut: place(plan.cut, job, summary.zero, 'cut.png'),
    mask: { file: 'mask.png', ...MASK },
    stages,
    peakMemoryMb,
    findings: summary.findings.map((f) => ({
      rule: f.rule,
      severity: f.severity,
      message: `${f.message}; ${f.remedy}`,
      x: f.x - summary.zero.x,
      y: f.y - summary.zero.y,
    })),
  };
}

function layerReport(l: Layer) {
  return {
    name: l.name,
    kind: l.source.kind,
    size: l.size,
    rise: l.rise,
    lift: l.lift,
    join: l.join,
    ...(l.source.kind === 'mesh' ? { unit: l.source.unit, turns: l.source.turns } : {}),
  };
}

/** The three images of a plan. */
export function planImages(job: Job, plan: Plan): { name: string; bytes: Uint8Array }[] {
  const { low, high } = range(job);
  return [
    { name: 'target.png', bytes: fieldToPng(plan.target, low, high) },
    { name: 'cut.png', bytes: fieldToPng(plan.cut, low, high) },
    { name: 'mask.png', bytes: maskToPng(plan.target.width, plan.target.height, plan.mask) },
  ];
}
