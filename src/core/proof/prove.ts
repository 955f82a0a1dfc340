import type { SurfaceFacts } from '../arrange/compose';
import type { Wanted } from '../arrange/target';
import { profileOf } from '../cutter/cutter';
import type { Board } from '../doc/board';
import { cellPlace, type Grid, type HeightField } from '../field/height-field';
import type { Found } from '../findings/finding';
import { ENGAGED, VOLUME } from '../kernels/engagement';
import type { KernelHost } from '../kernels/host';
import { engageStock } from '../kernels/stock-removal';
import { boardTops } from '../passes/skim/plan';
import { type Frame, frameBetween, placeThrough, turnedRows, zeroOf } from '../setup/frame';
import type { SetupView } from '../setup/view';
import { found } from './checks/registry';
import type { AfterCut } from './checks/rule';
import { type Look, lookCloser } from './closer';
import { type CutoutProof, checkCutout, type PlannedCutout } from './connect';
import { compareSurfaces, type Deviation } from './deviation';
import type { EyeFigures } from './eye';
import { type ProgramFigures, Tally } from './figures';
import { type Held, whatHolds } from './holds';
import { lineOf, type Run, simulate, type WrittenProgram } from './simulate';
import { putSurface, raiseBy, type Solid, surfaceOf, thinnestOf, wholeBoard, woodUnder } from './solid';

export interface SetupToProve {
  view: SetupView;
  programs: WrittenProgram[];
  target: Wanted;
  composite: SurfaceFacts;
  /** Cells where cut-outs and holes go through the board, null when there is none; and each cut-out with its pass. */
  through: Uint8Array | null;
  cutouts: (PlannedCutout & { pass: string })[];
  /** The target on finer grids, for a closer look. */
  look: Look;
}

export interface SetupProof {
  cut: HeightField;
  rough: HeightField | null;
  deviation: Deviation;
  eye: EyeFigures;
  /** Deepest cut below the board's top as it lies, mm; what goes through on purpose left out. */
  deepest: number;
  /** What was seen of each program. */
  programs: ProgramFigures[];
  /** What still joins the sides of each cut-out. */
  cutouts: (CutoutProof & { pass: string })[];
}

export interface BoardProof {
  solid: Solid;
  setups: SetupProof[];
  found: Found[];
  /** Board left at its thinnest place, mm. */
  thinnest: number;
}

/** Whether a cell or one of its neighbours is a slot's: walls are met to a cell. */
function besideSlot(slots: Uint8Array, k: number, width: number): boolean {
  for (const row of [k - width, k, k + width]) for (let q = row - 1; q <= row + 1; q++) if (slots[q]) return true;
  return false;
}

/**
 * Cuts a board with the programs of all its setups as they are written, each read back in its own frame, and says what that shows.
 * @param grid over the first setup
 */
export async function proveBoard(
  board: Board,
  grid: Grid,
  setups: SetupToProve[],
  host: KernelHost,
): Promise<BoardProof> {
  const solid = wholeBoard(grid, board.thickness);
  const frames = setups.map((s) => frameBetween(board, setups[0].view.setup, s.view.setup));
  setups.forEach((s, i) => {
    const skim = s.view.passes.find((p) => p.kind === 'skim');
    if (skim?.kind === 'skim') raiseBy(solid, frames[i], boardTops(skim, board.thickness, s.target.field));
  });
  const out: BoardProof = { solid, setups: [], found: [], thinnest: board.thickness };
  const open = new Uint8Array(grid.width * grid.height);
  for (const [i, s] of setups.entries()) {
    out.setups.push(await proveSetup(s, solid, frames[i], out.found, host));
    if (!s.through) continue;
    const own = frames[i].turned ? turnedRows(s.through, grid.width) : s.through;
    for (let k = 0; k < open.length; k++) open[k] |= own[k];
  }
  const thin = thinnestOf(solid, (k) => besideSlot(open, k, grid.width));
  out.thinnest = thin.web;
  // What is left of the board is told of the last setup that cuts layers: its depth is what can be changed.
  const told = Math.max(
    0,
    setups.findLastIndex((s) => s.view.layers.length > 0),
  );
  const { view, composite } = setups[told];
  const thinnest = { web: thin.web, ...placeThrough(frames[told], cellPlace(grid, thin.cell)) };
  out.found.push(...found('board', { view, solid, thinnest, composite }));
  return out;
}

const sumOf = (f: HeightField) => {
  let sum = 0;
  for (const v of f.data) sum += v;
  return sum * f.cell ** 2;
};

async function proveSetup(
  s: SetupToProve,
  solid: Solid,
  frame: Frame,
  all: Found[],
  host: KernelHost,
): Promise<SetupProof> {
  const { view, programs, target, through } = s;
  const cut = surfaceOf(solid, frame);
  let standing = sumOf(cut);
  const volume = new Map<string, number>();
  const tallies = new Map(programs.map((p) => [p.file, new Tally()]));
  const ways: Way[] = [];
  const onRun = async (run: Run) => {
    ways.push(wayOf(run));
    all.push(...found('run', { view, run }));
    tallies.get(run.file)?.add(run);
    const now = sumOf(run.after);
    volume.set(run.file, (volume.get(run.file) ?? 0) + standing - now);
    standing = now;
  };
  const held: Held[] = [];
  const onProgram = ({ file }: WrittenProgram) => {
    held.push({ file, ...whatHolds(woodUnder(solid, frame, cut.data), view.setup.holding) });
  };
  const zero = zeroOf(view.board, view.setup);
  const sim = await simulate(cut, { programs, cutters: view.cutters, zero, host, onRun, onProgram });
  sim.read.forEach((read, i) => {
    all.push(...found('program', { view, program: programs[i], read, held: held.slice(0, i + 1), cutouts: s.cutouts }));
  });
  const { deviation, deepest } = compared(cut, surfaceOf(solid, frame), s);
  const closer = await lookCloser(target, deviation.map, ways, s.look, host);
  const finer = closer.deepest && closer.deepest.deep < deviation.deepest ? closer.deepest : null;
  if (finer) Object.assign(deviation, { deepest: finer.deep, deepestAt: finer.cell });
  const cutouts = through && s.cutouts.length > 0 ? cutoutsOf(s, through, standingOf(solid, frame, cut.data)) : [];
  const cutBy = (cell: number) => lastOver(ways, finer && finer.cell === cell ? finer : cellPlace(cut, cell));
  putSurface(solid, frame, cut.data);
  all.push(...found('cut', { view, target, cut, deviation, cutouts, cutBy }));
  const figures = programs.map(({ file }, i): ProgramFigures => {
    const { bite, air } = tallies.get(file) as Tally;
    const { loose, weak } = held[i];
    return { volume: volume.get(file) ?? 0, bite, air, held: { loose, weak } };
  });
  return { cut, rough: sim.rough, deviation, eye: closer.eye, deepest, programs: figures, cutouts };
}

/**
 * How a cut surface lies to its target, and how deep it goes where nothing was to go through, mm.
 * @param before as it stood before the setup: what an earlier one has cut is not asked back. Becomes the target that is compared with
 */
function compared(
  cut: HeightField,
  before: HeightField,
  { target, through }: SetupToProve,
): Pick<SetupProof, 'deviation' | 'deepest'> {
  let lowest = 0;
  for (let k = 0; k < cut.data.length; k++) {
    const v = cut.data[k];
    if (v < lowest && before.data[k] > v && !(through && besideSlot(through, k, cut.width))) lowest = v;
    if (target.field.data[k] < before.data[k]) before.data[k] = target.field.data[k];
  }
  return { deviation: compareSurfaces(cut, before, target.mask), deepest: -lowest };
}

/** What still joins each cut-out's piece to its frame. */
function cutoutsOf({ view, cutouts }: SetupToProve, through: Uint8Array, wood: HeightField): SetupProof['cutouts'] {
  return cutouts.map((c) => ({ ...checkCutout(wood, through, view.board.thickness, c), pass: c.pass }));
}

/** What of a run tells which of its moves cut a place. */
type Way = Pick<Run, 'file' | 'lines' | 'notes' | 'cutter' | 'segments'>;
const wayOf = ({ file, lines, notes, cutter, segments }: Run): Way => ({ file, lines, notes, cutter, segments });

/** The last move that lowered a place: all runs cut a field of that one cell again. */
function lastOver(ways: Way[], { x, y }: { x: number; y: number }): ReturnType<AfterCut['cutBy']> {
  const one: HeightField = { width: 1, height: 1, cell: 0.01, originX: x, originY: y, data: new Float32Array([1e3]) };
  let last: ReturnType<AfterCut['cutBy']> = {};
  for (const way of ways) {
    const told = engageStock(one, profileOf(way.cutter), way.segments, 0);
    for (let i = way.lines.length - 1; i >= 0; i--) {
      if (told[i * ENGAGED + VOLUME] === 0) continue;
      last = lineOf(way, i);
      break;
    }
  }
  return last;
}

/** How much wood stands, as the height of a board of that thickness with an even underside, in a setup's coordinates. */
function standingOf(solid: Solid, frame: Frame, surface: Float32Array): HeightField {
  const wood = woodUnder(solid, frame, surface);
  for (let k = 0; k < wood.data.length; k++) wood.data[k] -= frame.thickness;
  return wood;
}
