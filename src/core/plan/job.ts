import { z } from 'zod';
import { gapSchema, layerSchema, seatSchema, THE_BOARD } from '../arrange/layer';
import { type Cutter, cutterSchema } from '../cutter/cutter';
import { MOST_SKIM, skimDepths } from '../passes/skim';
import { trimNumber } from '../units/length';
import { orderProblem } from './order';
import { layersNamed, type Pass, passProblems, passSchema } from './pass';
import { upgradeJob } from './upgrade';

// Lengths in mm, feeds in mm/min, accelerations in mm/s2, angles in degrees, unless a name says otherwise.
const finite = z.number().finite();
const positive = finite.positive();
const size = positive.max(10_000);
const axes = z.object({ x: positive, y: positive, z: positive });

export const ORIGINS = ['lower-left', 'lower-right', 'upper-left', 'upper-right', 'centre'] as const;
export type Origin = (typeof ORIGINS)[number];

export const machineSchema = z.object({
  id: z.string().min(1).max(64),
  name: z.string().min(1).max(80),
  x: size,
  y: size,
  zTravel: positive.max(2000),
  minRpm: finite.min(0),
  maxRpm: positive,
  maxFeed: axes,
  acceleration: axes,
  junctionDeviation: positive.max(1),
  toolChanger: z.boolean(),
});
export type Machine = z.infer<typeof machineSchema>;

export const boardSchema = z.object({
  x: size,
  y: size,
  /** Measured, not nominal. */
  thickness: positive.max(500),
  material: z.string().min(1).max(60),
  grain: z.enum(['along-x', 'along-y', 'none']),
  origin: z.enum(ORIGINS),
  zZero: z.enum(['top', 'bed']),
  spoilboard: z.boolean(),
  /** What is on the board's face: paint and film must not be skimmed off. */
  face: z.enum(['bare', 'painted', 'masked']).default('bare'),
  /** Where the board's lower left corner lies on the machine's table. */
  place: z.object({ x: finite, y: finite }),
});
export type Board = z.infer<typeof boardSchema>;

const documentSchema = z
  .object({
    version: z.literal(2),
    name: z.string().trim().min(1).max(80),
    order: z.string().trim().max(40),
    board: boardSchema,
    machine: machineSchema,
    cutters: z.array(cutterSchema).min(1).max(50),
    /** From the lowest to the highest: each joins what lies beneath it. */
    layers: z.array(layerSchema).max(300),
    /** Distances between layers that are kept when either moves. */
    gaps: z.array(gapSchema).max(200),
    seat: seatSchema,
    passes: z.array(passSchema).min(1).max(40),
    output: z.object({ unit: z.enum(['mm', 'in']), oneFile: z.boolean() }),
    /** Cell of the height fields; null lets it be worked out from the finest bit. */
    cell: positive.min(0.01).max(2).nullable(),
  })
  .superRefine((job, ctx) => {
    const bad = (path: (string | number)[], message: string) => ctx.addIssue({ code: 'custom', path, message });
    job.passes.forEach((p, i) => {
      const c = job.cutters.find((q) => q.id === p.cutter);
      if (!c) {
        bad(['passes', i, 'cutter'], `"${p.cutter}" is not among the job's cutters; choose one that is`);
        return;
      }
      if (c.diameter > Math.max(job.board.x, job.board.y)) {
        bad(['passes', i, 'cutter'], `${c.name} is ${c.diameter} mm wide, wider than the board; choose a smaller bit`);
      }
      for (const { path, message } of passProblems(p, c)) bad(['passes', i, path], message);
      if (p.kind !== 'skim') return;
      if (p.side === 'face' && job.board.face !== 'bare')
        bad(['passes', i, 'side'], `the board's face is ${job.board.face}; skim its back instead`);
      const { high } = skimDepths(p, job.board.thickness);
      if (high > MOST_SKIM)
        bad(
          ['passes', i, 'points'],
          `a board that stands ${trimNumber(high, 2)} mm over what is left of it is too uneven to pass over; plane it to within ${MOST_SKIM} mm first`,
        );
    });
    const order = orderProblem(job.passes);
    if (order) bad(['passes'], `${order}; change their order`);
    const ids = new Set<string>();
    job.layers.forEach((l, i) => {
      if (ids.has(l.id)) bad(['layers', i, 'id'], `"${l.id}" is there twice; give every layer an id of its own`);
      ids.add(l.id);
    });
    job.layers.forEach((l, i) => {
      if (l.mask.kind === 'layer' && !ids.has(l.mask.layer))
        bad(['layers', i, 'mask'], `"${l.mask.layer}" is no layer of this job; choose another mask`);
    });
    job.passes.forEach((p, i) => {
      for (const id of layersNamed(p))
        if (!ids.has(id))
          bad(
            ['passes', i],
            `"${id}" is no layer of this job; choose another outline for ${p.kind === 'cutout' ? 'the cut-out' : 'the pass'}`,
          );
    });
    job.gaps.forEach((g, i) => {
      for (const end of [g.of, g.from]) {
        if (end !== THE_BOARD && !ids.has(end))
          bad(['gaps', i], `"${end}" is no layer of this job; remove the distance or name another`);
      }
    });
    if (job.output.oneFile && !job.machine.toolChanger) {
      bad(
        ['output', 'oneFile'],
        `one file needs a tool changer, which ${job.machine.name} has not; write a file for each bit`,
      );
    }
  });

/** The job document; older versions are brought up to date as they are read. */
export const jobSchema = z.preprocess(upgradeJob, documentSchema);
export type Job = z.infer<typeof documentSchema>;

/** The cutter of a pass. */
export function cutterOf(job: Pick<Job, 'cutters'>, pass: Pass): Cutter {
  return job.cutters.find((c) => c.id === pass.cutter)!;
}

/** What is wrong with a value that a schema refused, in one line: "board.thickness: 0 ...". */
export function describeIssues(error: z.ZodError, input: unknown): string {
  const issue = error.issues[0];
  let value: unknown = input;
  for (const key of issue.path) value = (value as Record<PropertyKey, unknown> | undefined)?.[key];
  const shown = value === undefined ? 'missing' : JSON.stringify(value)?.slice(0, 60);
  const where = issue.path.join('.') || 'the document';
  return issue.code === 'custom' ? `${where}: ${issue.message}` : `${where} is ${shown}: ${issue.message}`;
}

/** Most cells of a board's height field: 96 MB a field, of which a plan holds about six. */
export const MAX_CELLS = 24e6;

/** Cell that letters are shown and proven with at most, mm. */
const LETTER_CELL = 0.1;

/**
 * Cell of the height fields. A path computed on a grid cuts too deep by at most e along the normal while
 * c <= 2 cos(steepest) sqrt(e R); with e = 0.02 mm at 73 degrees that is R / 16 for a ball (bound derived from the chord of a
 * circle; measured on wheat-like reliefs).
 */
export function cellOf(job: Pick<Job, 'cell' | 'board' | 'passes' | 'cutters'>): { cell: number; wanted: number } {
  let wanted = 0.25;
  for (const p of job.passes) {
    const c = job.cutters.find((q) => q.id === p.cutter);
    if (!c) continue;
    // Letters are planned from their outlines, exactly; the grid only shows and proves them.
    if (p.kind === 'letter') {
      wanted = Math.min(wanted, LETTER_CELL);
      continue;
    }
    // A point has no radius to speak of: it is planned as finely as a 1.6 mm ball.
    const R = c.shape === 'tapered-ball' ? c.tipDiameter / 2 : c.shape === 'v' ? 0.8 : c.diameter / 2;
    wanted = Math.min(wanted, p.kind === 'finish' ? R / 15.875 : R / 20);
  }
  wanted = Math.max(0.01, job.cell ?? Math.floor(wanted * 1000) / 1000);
  return { cell: Math.max(wanted, Math.sqrt((job.board.x * job.board.y) / MAX_CELLS)), wanted };
}
