import type { SurfaceFacts } from '../../arrange/compose';
import type { LayerEffect } from '../../arrange/effects';
import type { Wanted } from '../../arrange/target';
import type { HeightField } from '../../field/height-field';
import type { Found, Subject } from '../../findings/finding';
import type { ReadProgram } from '../../program/reader';
import type { SetupView } from '../../setup/view';
import type { CutoutProof, PlannedCutout } from '../connect';
import type { Deviation } from '../deviation';
import type { Held } from '../holds';
import type { Rests } from '../rests';
import { lineOf, type Run, type WrittenProgram } from '../simulate';

/** What is known of a layer from its content and from rendering it. */
export interface LayerSeen {
  id: string;
  /** Whether an image's heights come in visible steps, and how high one is as a share of white; 0 when not. */
  step: number;
  /** Letters that the font does not have. */
  missing: string[];
  /** What words measure in their font, mm; null for others. */
  measured: { x: number; y: number } | null;
  /** Whether it is a model of a recess: its rim stands high and its middle lies low. */
  recess: boolean;
  lostPlan: number;
  thinCells: number;
  effect: LayerEffect;
}

/** A setup before anything is cut. */
export interface BeforeCut {
  view: SetupView;
  composite: SurfaceFacts;
  layers: LayerSeen[];
  /** Cell that it is planned with, and the one that its bits ask for, mm. */
  cell: number;
  wanted: number;
}

/** What a run of one bit did. */
export interface AfterRun {
  view: SetupView;
  run: Run;
}

/** A program as it was read back. */
export interface AfterProgram {
  view: SetupView;
  program: WrittenProgram;
  read: ReadProgram;
  /** What holds after each program of the setup up to this one, the last of them. */
  held: Held[];
  /** Cut-outs of the setup as they were planned. */
  cutouts: (PlannedCutout & { pass: string })[];
  /** Cut-outs of the setups before, in this setup's coordinates, each with the name of its setup. */
  earlier: (Pick<PlannedCutout, 'rings' | 'tabs'> & { setup: string })[];
}

/** A setup after all its programs. */
export interface AfterCut {
  view: SetupView;
  target: Wanted;
  cut: HeightField;
  deviation: Deviation;
  /** What holds each cut-out's piece, with the id of its pass. */
  cutouts: (CutoutProof & { pass: string })[];
  /** The programs' line that left a cell of the target as it is, as a finding's subject names it; nothing where none has cut there. */
  cutBy(cell: number): Pick<Subject, 'file' | 'line' | 'passage'>;
}

/** The thinnest place of a piece of a board that is too thin. */
export interface ThinPlace {
  x: number;
  y: number;
  /** Wood that is left, mm. */
  web: number;
  /** How much of the piece is open, mm2. */
  open: number;
  wanted: boolean;
}

/** A board as it lies in a setup that finds its other side cut, before it is cut there. */
export interface Laid {
  view: SetupView;
  rests: Rests;
}

/** A board after all its setups. */
export interface AfterBoard {
  /** The setup that findings of the whole board are told of. */
  view: SetupView;
  /** Where less wood is left than the board is to keep, in that setup's coordinates, the thinnest first; none that is open on purpose. */
  thin: ThinPlace[];
  /** Its setups that cut layers, with the highest and the lowest point of these. */
  faces: { view: SetupView; composite: SurfaceFacts }[];
}

/** One thing that is looked for, at the moment when it can be seen; its text is in findings/texts. */
export interface Rule {
  id: string;
  before?(at: BeforeCut): Found[];
  laid?(at: Laid): Found[];
  run?(at: AfterRun): Found[];
  program?(at: AfterProgram): Found[];
  cut?(at: AfterCut): Found[];
  board?(at: AfterBoard): Found[];
}

/** What a finding about a run is about. */
export const aboutRun = ({ view, run }: AfterRun, i: number) => ({
  setup: view.setup.id,
  bit: run.cutter.id,
  ...lineOf(run, i),
});
