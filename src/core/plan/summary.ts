import type { SurfaceFacts } from '../arrange/compose';
import type { Grid, HeightField } from '../field/height-field';
import type { Finding } from '../findings/finding';
import type { CutoutProof } from '../proof/connect';
import type { LeftFigures } from '../proof/deviation';
import type { EyeFigures } from '../proof/eye';
import type { Undercut } from '../proof/hollow';
import type { Rests } from '../proof/rests';
import type { Solid } from '../proof/solid';
import type { Ways } from '../proof/way-parts';
import type { Opening } from '../proof/web';
import type { PassSummary } from './plan-passes';
import type { PlannedProgram } from './programs';

/** What is known of a setup once it is planned and proven. */
export interface SetupSummary {
  id: string;
  board: string;
  grid: Grid;
  ground: number;
  /** Highest and lowest point of the joined layers, and what of them is clipped. */
  composite: SurfaceFacts;
  zero: { x: number; y: number; z: number };
  passes: PassSummary[];
  deepest: number;
  /** What stands over the target. */
  left: LeftFigures;
  eye: EyeFigures;
  /** What the proof found of every cut-out. */
  cutouts: (CutoutProof & { pass: string })[];
}

/** What is known of a board once all its setups are proven. */
export interface BoardSummary {
  id: string;
  /** What is left of it at its thinnest place that is not open on purpose, mm; where it is open, and where it is hollow beneath. */
  thinnest: number;
  openings: Opening[];
  undercuts: Undercut[];
  /** What it lies on once it is turned over, and what it would in its first setup if its other side were cut before; null where it lies flat. */
  turned: Rests | null;
  otherFirst: Rests | null;
}

export interface PlanSummary {
  setups: SetupSummary[];
  boards: BoardSummary[];
  programs: PlannedProgram[];
  findings: Finding[];
  seconds: number;
}

/** Surfaces of a setup, in its own coordinates. */
export interface SetupSurfaces {
  target: HeightField;
  mask: Uint8Array;
  cut: HeightField;
  rough: HeightField | null;
  deviation: Float32Array;
  /** The board as all setups together leave it: the side that is up here, and its underside; null where it has no other setup. */
  whole: { top: Float32Array; under: Float32Array } | null;
  /** The ways of its bits as its programs say, with what they met. */
  ways: Ways;
}

export interface Plan {
  summary: PlanSummary;
  /** Of every setup, in the order of the summary's. */
  surfaces: SetupSurfaces[];
  /** Every board as all its setups leave it. */
  solids: Solid[];
}

/** How long programs take together, s; those in reserve are not cut as a matter of course. */
export const secondsOf = (programs: { seconds: number; reserve: boolean }[]): number =>
  programs.reduce((s, p) => s + (p.reserve ? 0 : p.seconds), 0);

/** A summary as one of its setups sees it: its own figures, programs and findings, and those of the whole job. */
export function summaryOf<P extends { setup: string; seconds: number; reserve: boolean }>(
  s: Omit<PlanSummary, 'programs'> & { programs: P[] },
  setup: string,
) {
  const own = s.setups.find((e) => e.id === setup);
  if (!own) return null;
  const board = s.boards.find((b) => b.id === own.board);
  const programs = s.programs.filter((p) => p.setup === setup);
  return {
    ...own,
    thinnest: board?.thinnest ?? 0,
    openings: board?.openings ?? [],
    undercuts: board?.undercuts ?? [],
    turned: board?.turned ?? null,
    otherFirst: board?.otherFirst ?? null,
    programs,
    findings: s.findings.filter((f) => f.subject.setup === undefined || f.subject.setup === setup),
    /** What was found in the other setups of the job: whoever runs this one is to know of it. */
    elsewhere: s.findings.filter((f) => f.subject.setup !== undefined && f.subject.setup !== setup),
    seconds: secondsOf(programs),
  };
}
