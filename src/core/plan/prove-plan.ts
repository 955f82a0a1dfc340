import type { Board } from '../doc/board';
import { type Grid, gridOf, type HeightField } from '../field/height-field';
import type { Found } from '../findings/finding';
import type { CutoutProof } from '../proof/connect';
import { type LeftFigures, leftFigures } from '../proof/deviation';
import type { EyeFigures } from '../proof/eye';
import type { ProgramFigures } from '../proof/figures';
import { proveBoard, type SetupToProve } from '../proof/prove';
import type { Solid } from '../proof/solid';
import { cutoutFacts } from './plan-passes';
import type { DoneSetup } from './plan-setup';
import type { PlannedProgram } from './programs';
import type { PlanEnvironment, StageResult } from './stage';

interface ProofMeta {
  found: Found[];
  thinnest: number;
  setups: {
    grid: Grid;
    deepest: number;
    left: LeftFigures;
    eye: EyeFigures;
    programs: ProgramFigures[];
    cutouts: (CutoutProof & { pass: string })[];
    rough: boolean;
  }[];
}

/** A setup as the proof shows it. */
export interface ProvenSetup {
  cut: HeightField;
  rough: HeightField | null;
  deviation: Float32Array;
  deepest: number;
  left: LeftFigures;
  eye: EyeFigures;
  programs: ProgramFigures[];
  cutouts: (CutoutProof & { pass: string })[];
}

function toProve(s: DoneSetup, programs: PlannedProgram[]): SetupToProve {
  return {
    view: s.view,
    programs: programs.map(({ file, text, cutter, rough, passes }) => ({ file, text, tool: cutter, rough, passes })),
    target: s.target,
    composite: s.composite,
    through: s.through,
    look: s.look,
    cutouts: s.planned.flatMap(({ pass, summary }) => {
      const facts = cutoutFacts(summary);
      return facts ? [{ ...facts, pass: pass.id }] : [];
    }),
  };
}

async function prove(
  board: Board,
  grid: Grid,
  setups: SetupToProve[],
  env: PlanEnvironment,
): Promise<StageResult<ProofMeta>> {
  const p = await proveBoard(board, grid, setups, env.host);
  const arrays: StageResult['arrays'] = { top: p.solid.top, bottom: p.solid.bottom };
  p.setups.forEach((s, i) => {
    arrays[`cut${i}`] = s.cut.data;
    arrays[`deviation${i}`] = s.deviation.map;
    if (s.rough) arrays[`rough${i}`] = s.rough.data;
  });
  return {
    meta: {
      found: p.found,
      thinnest: p.thinnest,
      setups: p.setups.map((s) => ({
        grid: gridOf(s.cut),
        deepest: s.deepest,
        left: leftFigures(s.deviation.left),
        eye: s.eye,
        programs: s.programs,
        cutouts: s.cutouts,
        rough: s.rough !== null,
      })),
    },
    arrays,
  };
}

/** Proves a board from the programs of its setups; a proof of the same programs in the same setups is taken from the store. */
export async function provePlan(
  board: Board,
  grid: Grid,
  setups: DoneSetup[],
  programs: PlannedProgram[],
  env: PlanEnvironment,
): Promise<{ found: Found[]; thinnest: number; solid: Solid; setups: ProvenSetup[] }> {
  const sets = setups.map((s) =>
    toProve(
      s,
      programs.filter((p) => p.setup === s.view.setup.id),
    ),
  );
  const { machine, cutters, cell } = setups[0].view;
  const input = {
    board,
    machine,
    cutters,
    cell,
    setups: setups.map((s, i) => ({
      target: s.key,
      slots: s.slots,
      facts: s.planned.map((p) => p.summary.facts),
      texts: sets[i].programs,
    })),
  };
  const { result } = await env.stage<ProofMeta>('proof', input, () => prove(board, grid, sets, env));
  const { meta, arrays } = result;
  const field = (name: string, g: Grid): HeightField => ({ ...g, data: arrays[name] as Float32Array });
  return {
    found: meta.found,
    thinnest: meta.thinnest,
    solid: { grid, top: arrays.top as Float32Array, bottom: arrays.bottom as Float32Array },
    setups: meta.setups.map((m, i) => ({
      ...m,
      cut: field(`cut${i}`, m.grid),
      rough: m.rough ? field(`rough${i}`, m.grid) : null,
      deviation: arrays[`deviation${i}`] as Float32Array,
    })),
  };
}
