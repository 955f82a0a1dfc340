import { MASK } from '../arrange/target';
import type { Board } from '../doc/board';
import { type Grid, gridOf, type HeightField } from '../field/height-field';
import { gridOver, spreadOver } from '../field/parted';
import type { Found } from '../findings/finding';
import type { LeftFigures } from '../proof/deviation';
import type { EyeFigures } from '../proof/eye';
import type { ProgramFigures } from '../proof/figures';
import type { Undercut } from '../proof/hollow';
import type { FoundCutout, PartToProve } from '../proof/look-at-part';
import { type BoardParts, proveBoard, type SetupToProve } from '../proof/prove';
import type { Rests } from '../proof/rests';
import type { Solid } from '../proof/solid';
import { type PassWays, WAY_ARRAYS, type Ways } from '../proof/way-parts';
import type { Opening } from '../proof/web';
import { frameBetween, gridThrough } from '../setup/frame';
import type { DoneSetup } from './plan-setup';
import type { PlannedProgram } from './programs';
import type { PlanEnvironment, StageResult } from './stage';

interface ProofMeta {
  found: Found[];
  thinnest: number;
  openings: Opening[];
  undercuts: Undercut[];
  turned: Rests | null;
  otherFirst: Rests | null;
  setups: {
    deepest: number;
    left: LeftFigures;
    eye: EyeFigures;
    programs: ProgramFigures[];
    cutouts: FoundCutout[];
    rough: boolean;
    passWays: PassWays[];
  }[];
}

/** A setup as the proof shows it: its surfaces on one grid over the whole board. */
export interface ProvenSetup {
  target: HeightField;
  mask: Uint8Array;
  cut: HeightField;
  rough: HeightField | null;
  deviation: Float32Array;
  deepest: number;
  left: LeftFigures;
  eye: EyeFigures;
  programs: ProgramFigures[];
  cutouts: FoundCutout[];
  ways: Ways;
}

/** A board as the proof shows it. */
export interface ProvenBoard {
  found: Found[];
  /** What is left of it at its thinnest place, mm. */
  thinnest: number;
  /** Where it is open, with the face up. */
  openings: Opening[];
  /** Where slot bits have gone along beneath the wood, with the face up. */
  undercuts: Undercut[];
  /** What it lies on once it is turned over, and what it would in its first setup if its other side were cut before; null where it lies flat. */
  turned: Rests | null;
  otherFirst: Rests | null;
  solid: Solid;
  setups: ProvenSetup[];
}

/** A board that is to be proven: where, and its setups with what stands for their targets in keys. */
export interface BoardToProve {
  board: Board;
  at: BoardParts;
  setups: (DoneSetup & { parts: PartToProve[]; seen: string[] })[];
}

function toProve(s: BoardToProve['setups'][number], programs: PlannedProgram[]): SetupToProve {
  return {
    view: s.view,
    programs: programs.map(({ file, text, cutter, rough, passes, titles }) => ({
      file,
      text,
      tool: cutter,
      rough,
      passes,
      titles,
    })),
    composite: s.composite,
    cutouts: s.cutouts,
    parts: s.parts,
  };
}

/** Most cells that a board in parts is shown on. */
const MOST_SHOWN = 8e6;

/** The grid that a board is shown on: its only part's, or one over all of it, a cell the nearest part's. */
function shownOn(board: Board, { grids, around }: BoardParts): Grid {
  return around ? gridOver(board, Math.min(...grids.map((g) => g.cell)), MOST_SHOWN) : grids[0];
}

/** Values of all parts of a board on the grid that it is shown on. */
function shown<T extends Float32Array | Uint8Array>(
  on: Grid,
  parts: { grid: Grid; data: T }[],
  beyond: number,
  around: boolean,
): T {
  return around ? spreadOver(on, parts, beyond) : parts[0].data;
}

async function prove(
  { board, at }: BoardToProve,
  setups: SetupToProve[],
  env: PlanEnvironment,
): Promise<StageResult<ProofMeta>> {
  const p = await proveBoard(board, at, setups, env.host);
  const on = shownOn(board, at);
  const put = (parts: { grid: Grid; data: Float32Array }[], beyond: number, g = on) =>
    shown(g, parts, beyond, at.around);
  const arrays: StageResult['arrays'] = {
    top: put(
      p.solids.map(({ grid, top }) => ({ grid, data: top })),
      0,
    ),
    bottom: put(
      p.solids.map(({ grid, bottom }) => ({ grid, data: bottom })),
      -board.thickness,
    ),
  };
  p.setups.forEach(({ parts, ways }, i) => {
    arrays[`way kind${i}`] = ways.kind;
    for (const a of WAY_ARRAYS) arrays[`way ${a}${i}`] = ways.places[a];
    const g = gridThrough(frameBetween(board, board.setups[0], setups[i].view.setup), on);
    arrays[`cut${i}`] = put(
      parts.map(({ cut }) => ({ grid: cut, data: cut.data })),
      0,
      g,
    );
    arrays[`deviation${i}`] = put(
      parts.map(({ cut, map }) => ({ grid: cut, data: map })),
      0,
      g,
    );
    const roughs = parts.flatMap(({ rough }) => (rough ? { grid: rough, data: rough.data } : []));
    if (roughs.length > 0) arrays[`rough${i}`] = put(roughs, 0, g);
  });
  return {
    meta: {
      found: p.found,
      thinnest: p.thinnest,
      openings: p.openings,
      undercuts: p.undercuts,
      turned: p.turned,
      otherFirst: p.otherFirst,
      setups: p.setups.map(({ parts, ways, ...rest }) => ({
        ...rest,
        rough: parts.some((q) => q.rough !== null),
        passWays: ways.passes,
      })),
    },
    arrays,
  };
}

/** Proves a board from the programs of its setups; a proof of the same programs in the same setups is taken from the store. */
export async function provePlan(
  b: BoardToProve,
  programs: PlannedProgram[],
  env: PlanEnvironment,
): Promise<ProvenBoard> {
  const { board, at, setups } = b;
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
    at,
    setups: setups.map((s, i) => ({
      targets: s.seen,
      slots: s.slots.map((t) => ({ ...t, chains: t.chains.map((c) => Array.from(c)) })),
      facts: s.planned.map((p) => p.summary.facts),
      texts: sets[i].programs,
    })),
  };
  const { result } = await env.stage<ProofMeta>('proof', input, () => prove(b, sets, env));
  const { meta, arrays } = result;
  const on = shownOn(board, at);
  return {
    found: meta.found,
    thinnest: meta.thinnest,
    openings: meta.openings,
    undercuts: meta.undercuts,
    turned: meta.turned,
    otherFirst: meta.otherFirst,
    solid: { grid: on, top: arrays.top as Float32Array, bottom: arrays.bottom as Float32Array },
    setups: meta.setups.map((m, i) => {
      const g = gridOf(gridThrough(frameBetween(board, board.setups[0], setups[i].view.setup), on));
      const field = (name: string): HeightField => ({ ...g, data: arrays[name] as Float32Array });
      const { parts } = setups[i];
      const target = parts.map((p) => ({ grid: p.target.field, data: p.target.field.data }));
      const mask = parts.map((p) => ({ grid: p.target.field, data: p.target.mask }));
      return {
        ...m,
        target: { ...g, data: shown(g, target, 0, at.around) },
        mask: shown(g, mask, MASK.keep, at.around),
        cut: field(`cut${i}`),
        rough: m.rough ? field(`rough${i}`) : null,
        deviation: arrays[`deviation${i}`] as Float32Array,
        ways: {
          passes: m.passWays,
          kind: arrays[`way kind${i}`] as Uint8Array,
          places: Object.fromEntries(WAY_ARRAYS.map((a) => [a, arrays[`way ${a}${i}`]])) as Ways['places'],
        },
      };
    }),
  };
}
