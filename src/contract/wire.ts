import type { Undercut } from '@/core/proof/hollow';
import type { Rests } from '@/core/proof/rests';
import type { SurfaceFacts } from '../core/arrange/compose';
import { PASS_SCHEMAS } from '../core/doc/pass';
import type { Grid } from '../core/field/height-field';
import type { Edit, Step } from '../core/findings/edit';
import type { Finding, Fix, Subject } from '../core/findings/finding';
import { MOVES } from '../core/motion/path';
import type { PassSummary } from '../core/plan/plan-passes';
import type { PlannedProgram } from '../core/plan/programs';
import type { BoardSummary, PlanSummary, SetupSummary, summaryOf } from '../core/plan/summary';
import type { PlanView } from '../core/plan/view';
import type { CutoutProof, TabFound } from '../core/proof/connect';
import type { LeftFigures } from '../core/proof/deviation';
import type { EyeFigures } from '../core/proof/eye';
import type { BiteFigure } from '../core/proof/figures';
import type { LoosePiece, WeakPiece } from '../core/proof/holds';
import type { ThinWays } from '../core/proof/thin-ways';
import { WAY_ARRAYS } from '../core/proof/way-parts';
import type { Opening } from '../core/proof/web';
import type { Drawing, DrawingPiece } from '../core/sources/drawing';
import type { SourceInfo } from '../core/sources/inspect';
import { z } from '../core/units/zod';
import type { Fields } from './endpoint';

/** Results of the core as they go over the wire. A field that the core adds or drops fails to compile here. */

const number = z.number();
const point = z.object({ x: number, y: number });

const step: z.ZodType<Step> = z.union([
  z.string().max(64),
  z.number().int().min(0),
  z.object({ id: z.string().max(64) }),
]);
const steps = z.array(step).min(1).max(12);
/** One change of a document; what it puts in is checked where the whole document is. */
export const edit: z.ZodType<Edit> = z.union([
  z.object({ set: steps, to: z.json() }),
  z.object({ insert: steps, at: z.number().int().min(0), value: z.json() }),
  z.object({ remove: steps }),
]);

const figures = z.record(z.string(), z.union([number, z.string(), z.boolean(), z.array(z.string())]));
const text = z.string().optional();
const subject = z.object({
  setup: text,
  pass: text,
  layer: text,
  bit: text,
  file: text,
  line: number.optional(),
  passage: z.string().optional(),
  path: z.array(z.union([z.string(), number])).optional(),
  reserve: z.literal(true).optional(),
} satisfies Fields<Subject>);
const fix = z.object({ id: z.string(), figures, edits: z.array(edit) } satisfies Fields<Fix>);
export const finding = z.object({
  id: z.string(),
  rule: z.string(),
  severity: z.enum(['error', 'warning', 'note']),
  subject,
  place: point.nullable(),
  figures,
  fixes: z.array(fix),
  stops: z.boolean(),
} satisfies Fields<Finding>);

const piece = z.object({
  d: z.string(),
  pen: number.nullable(),
  size: point,
  middle: point,
} satisfies Fields<DrawingPiece>);
const drawing = z.object({ pieces: z.array(piece), size: point, unitKnown: z.boolean() } satisfies Fields<Drawing>);
/** What a stored file holds. */
export const sourceInfo = z.object({
  kind: z.enum(['mesh', 'image', 'font', 'drawing']),
  unit: z.enum(['mm', 'in']),
  turns: z.tuple([number, number, number]),
  mirror: z.boolean(),
  base: number,
  flatBack: z.boolean(),
  size: z.object({ x: number, y: number, z: number }),
  triangles: number,
  pixels: z.object({ width: number, height: number, depth: number }).nullable(),
  terraces: z.object({ levels: number, step: number }).nullable(),
  recess: z.boolean(),
  drawing: drawing.nullable(),
  notes: z.array(z.string()),
} satisfies Fields<SourceInfo>);

export const grid = z.object({
  width: number,
  height: number,
  cell: number,
  originX: number,
  originY: number,
  drum: z.object({ radius: number, rows: number }).optional(),
} satisfies Fields<Grid>);

const composite = z.object({
  peak: number,
  low: number,
  peakAt: point,
  lowAt: point,
  covered: number,
  clipped: z.object({ area: number, most: number, x: number, y: number }),
} satisfies Fields<SurfaceFacts>);

const tab = z.object({
  x: number,
  y: number,
  length: number,
  thickness: number,
  section: number,
  holds: z.boolean(),
} satisfies Fields<TabFound>);
const cutout = z.object({
  joined: point.nullable(),
  tabs: z.array(tab),
  pass: z.string(),
} satisfies Fields<CutoutProof & { pass: string }>);

const pass = z.object({
  id: z.string(),
  kind: z.literal(PASS_SCHEMAS.map((p) => p.shape.kind.value)),
  cutter: z.string(),
  stockToLeave: number,
  stepover: number,
  stepdown: number,
  trench: number,
  ridge: number,
  seconds: number,
  naiveSeconds: number,
  cutLength: number,
  rapidLength: number,
  cutSeconds: number,
  rapidSeconds: number,
  spent: z.partialRecord(z.enum(MOVES), number),
  entries: z.partialRecord(z.enum(MOVES), number),
  moves: number,
  facts: z.unknown(),
} satisfies Fields<PassSummary>);

const rests = z.object({ share: number, span: number, wood: number, x: number, y: number } satisfies Fields<Rests>);
const setup = z.object({
  id: z.string(),
  board: z.string(),
  grid,
  ground: number,
  composite,
  zero: z.object({ x: number, y: number, z: number }),
  passes: z.array(pass),
  deepest: number,
  left: z.object({ share: number, volume: number, deepest: number } satisfies Fields<LeftFigures>),
  eye: z.object({ cell: number, closer: number, left: number } satisfies Fields<EyeFigures>),
  cutouts: z.array(cutout),
} satisfies Fields<SetupSummary>);

const bite = z.object({
  bit: z.string(),
  deep: number,
  most: number,
  x: number,
  y: number,
  z: number,
  line: number,
} satisfies Fields<BiteFigure>);
const moveFigures = { bite: bite.nullable(), air: number };
const loosePiece = z.object({ x: number, y: number, area: number } satisfies Fields<LoosePiece>);
const weakPiece = z.object({
  x: number,
  y: number,
  area: number,
  neck: number,
  section: number,
} satisfies Fields<WeakPiece>);

const undercut = z.object({
  x0: number,
  y0: number,
  x1: number,
  y1: number,
  radius: number,
  floor: number,
  ceiling: number,
} satisfies Fields<Undercut>);
const opening = z.object({ x: number, y: number, area: number, wanted: z.boolean() } satisfies Fields<Opening>);

/** A program without its text, which is asked for by itself. */
export type ProgramInfo = Omit<PlannedProgram, 'text'> & { bytes: number };
const program = z.object({
  file: z.string(),
  setup: z.string(),
  cutter: number,
  passes: z.array(z.string()),
  titles: z.array(z.string()),
  rough: z.boolean(),
  reserve: z.boolean(),
  seconds: number,
  naiveSeconds: number,
  cutLength: number,
  rapidLength: number,
  volume: number,
  ...moveFigures,
  byPass: z.array(z.object({ pass: z.string(), ...moveFigures })),
  held: z.object({ loose: z.array(loosePiece), weak: z.array(weakPiece) }),
  bytes: number,
} satisfies Fields<ProgramInfo>);

const board = z.object({
  id: z.string(),
  thinnest: number,
  openings: z.array(opening),
  undercuts: z.array(undercut),
  turned: rests.nullable(),
  otherFirst: rests.nullable(),
} satisfies Fields<BoardSummary>);

/** What a plan of a whole job came to. */
export type JobSummary = Omit<PlanSummary, 'programs'> & {
  programs: ProgramInfo[];
  /** How long each stage of the planning took, s. */
  stageSeconds: Record<string, number>;
};
export const jobSummary = z.object({
  setups: z.array(setup),
  boards: z.array(board),
  programs: z.array(program),
  findings: z.array(finding),
  seconds: number,
  stageSeconds: z.record(z.string(), number),
} satisfies Fields<JobSummary>);

/** The summary as one setup sees it. */
export type Summary = NonNullable<ReturnType<typeof summaryOf<ProgramInfo>>>;

/** Surfaces of a plan as core/plan/view packs them. */
const floats = z.instanceof(Float32Array);
export const planView = z
  .object({
    meta: z.object({ grid }),
    arrays: z.object({
      target: floats,
      rough: floats,
      cut: floats,
      deviation: floats,
      top: floats,
      under: floats,
      mask: z.instanceof(Uint8Array),
    }),
  })
  .transform(({ meta, arrays }): PlanView => ({ ...meta, ...arrays }));

/** What is asked for of a part of a board: how it is cut, what that leaves of the target, or how much wood stands. */
export const PARTS = ['cut', 'left', 'web'] as const;
const some = z.instanceof(Float32Array).optional();
/** A part of a plan's surfaces: those that were asked for. */
export const planPart = z
  .object({
    meta: z.object({ grid }),
    arrays: z.object({
      cut: some,
      deviation: some,
      top: some,
      under: some,
      mask: z.instanceof(Uint8Array).optional(),
    }),
  })
  .transform(({ meta, arrays }) => ({ ...meta, ...arrays }));
export type PlanPart = z.output<typeof planPart>;

/** Ways of bits, thinned to within so many mm. */
export const planWays = z
  .object({
    meta: z.object({ fine: z.number() }),
    arrays: z.object({ kind: z.instanceof(Uint8Array), ...Object.fromEntries(WAY_ARRAYS.map((a) => [a, floats])) }),
  })
  .transform(({ meta, arrays: { kind, ...places } }): ThinWays & { fine: number } => ({
    ...meta,
    kind: kind as Uint8Array,
    places: places as ThinWays['places'],
  }));
export type PlanWays = z.output<typeof planWays>;
