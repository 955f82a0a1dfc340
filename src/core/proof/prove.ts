import type { SurfaceFacts } from '../arrange/compose';
import type { Board } from '../doc/board';
import { bornBy } from '../doc/material';
import { cellAt, type Grid, type HeightField } from '../field/height-field';
import { type PartedField, pooledOver } from '../field/parted';
import type { Found } from '../findings/finding';
import type { KernelHost } from '../kernels/host';
import { kindOf } from '../passes/registry';
import { onDrum } from '../program/round';
import { type Frame, frameBetween, placeThrough, zeroOf } from '../setup/frame';
import type { SetupView } from '../setup/view';
import { found } from './checks/registry';
import type { AfterProgram } from './checks/rule';
import { joinLeft, type LeftFigures } from './deviation';
import { cutoutsBefore } from './earlier';
import { type EyeFigures, joinEyes } from './eye';
import { type ProgramFigures, Tally } from './figures';
import { FRAIL, type Held, whatHolds } from './holds';
import { type Hollow, hollowVolume, type Undercut, undercutsOf, undercutThrough } from './hollow';
import {
  type CutoutOfPass,
  type FoundCutout,
  lookAtPart,
  type PartLook,
  type PartToProve,
  type Way,
  wayOf,
} from './look-at-part';
import { type Rests, restsOf } from './rests';
import { type Run, simulate, type WrittenProgram } from './simulate';
import {
  hollowThrough,
  raiseBy,
  type StandingBoard,
  standsEverywhere,
  surfaceOf,
  wholeBoard,
  woodUnder,
} from './solid';
import { thinOf } from './thin';
import type { Ways } from './way-parts';
import { WayBook } from './ways';
import type { Opening } from './web';

export interface SetupToProve {
  view: SetupView;
  programs: WrittenProgram[];
  composite: SurfaceFacts;
  cutouts: CutoutOfPass[];
  /** In the order of the board's. */
  parts: PartToProve[];
}

/** What a setup's programs leave of one part, and how that lies to its target: see Deviation. */
export interface PartProof {
  cut: HeightField;
  rough: HeightField | null;
  map: Float32Array;
}

export interface SetupProof {
  parts: PartProof[];
  left: LeftFigures;
  eye: EyeFigures;
  /** Deepest cut below the board's top as it lies, mm; what goes through on purpose left out. */
  deepest: number;
  /** What was seen of each program. */
  programs: ProgramFigures[];
  /** What still joins the sides of each cut-out. */
  cutouts: FoundCutout[];
  /** The ways of its bits, with what they met. */
  ways: Ways;
}

/** Where a board is cut: its parts' grids over the first setup, which do not overlap, and whether there is board around them that nothing reaches. */
export interface BoardParts {
  grids: Grid[];
  around: boolean;
}

export interface BoardProof {
  /** Of every part of the board. */
  solids: StandingBoard[];
  setups: SetupProof[];
  found: Found[];
  /** Board left at its thinnest place that is not open on purpose, mm. */
  thinnest: number;
  /** Where it is open, places with the face up, the largest first. */
  openings: Opening[];
  /** Where slot bits have gone along beneath the wood, as it lies with the face up. */
  undercuts: Undercut[];
  /** What the board lies on once it is turned over, and what it would in its first setup if its other side were cut before; null where it lies flat. */
  turned: Rests | null;
  otherFirst: Rests | null;
}

/**
 * Cuts a board with the programs of all its setups as they are written, each read back in its own frame, and says what that shows. Nothing may
 * be cut beyond the parts.
 */
export async function proveBoard(
  board: Board,
  { grids, around }: BoardParts,
  setups: SetupToProve[],
  host: KernelHost,
): Promise<BoardProof> {
  const solids = grids.map((g) => wholeBoard(g, board.thickness));
  const frames = setups.map((s) => frameBetween(board, setups[0].view.setup, s.view.setup));
  setups.forEach((s, i) => {
    const first = s.view.passes.find((p) => kindOf(p).tops);
    if (!first) return;
    for (const [n, solid] of solids.entries()) {
      const over = kindOf(first).tops?.(first, board, s.parts[n].target.field);
      if (over) raiseBy(solid, frames[i], over);
    }
  });
  const out: BoardProof = {
    solids,
    setups: [],
    found: [],
    thinnest: board.thickness,
    openings: [],
    undercuts: [],
    turned: null,
    otherFirst: null,
  };
  for (const [i, s] of setups.entries()) {
    const clamped = { solids, frame: frames[i], around, earlier: cutoutsBefore(board, setups.slice(0, i), s) };
    const { undercuts, rests, ...proof } = await proveSetup(s, clamped, out.found, host);
    out.setups.push(proof);
    out.turned ??= rests;
    const faceUp = frameBetween(board, s.view.setup, { up: 'face' });
    out.undercuts.push(...undercuts.map((u) => undercutThrough(faceUp, u)));
  }
  if (solids.length === 1) out.otherFirst = restsOf(solids[0], frames[0]);
  const thin = thinOf(board, solids, setups, frames);
  out.thinnest = around ? Math.min(thin.thinnest.web, board.thickness) : thin.thinnest.web;
  // What is left of the board is told of the last setup that cuts layers: its depth is what can be changed.
  const told = Math.max(
    0,
    setups.findLastIndex((s) => s.view.layers.length > 0),
  );
  const there = <P extends { x: number; y: number }>(p: P) => placeThrough(frames[told], p);
  out.found.push(
    ...found('board', {
      view: setups[told].view,
      thin: thin.places.filter((p) => !p.wanted).map(there),
      faces: setups.filter((s) => s.view.layers.length > 0).map(({ view, composite }) => ({ view, composite })),
    }),
  );
  const faceUp = frameBetween(board, setups[0].view.setup, { up: 'face' });
  out.openings = thin.places
    .filter((p) => p.open > 0)
    .map(({ open, wanted, ...p }) => ({ area: open, wanted, ...placeThrough(faceUp, { x: p.x, y: p.y }) }))
    .sort((a, b) => b.area - a.area);
  return out;
}

/** The board as a setup finds it. */
interface Clamped {
  solids: StandingBoard[];
  frame: Frame;
  around: boolean;
  /** Cut-outs of the setups before, as they lie in it. */
  earlier: AfterProgram['earlier'];
}

const sumOf = (parts: HeightField[]) => {
  let sum = 0;
  for (const f of parts) {
    let own = 0;
    for (const v of f.data) own += v;
    sum += own * f.cell ** 2;
  }
  return sum;
};

/** Wood under surfaces, less what is hollow beneath them, mm3. */
const woodOf = (cuts: HeightField[], hollows: (Hollow | null)[]) =>
  sumOf(cuts) - hollows.reduce((v, h, n) => v + (h ? hollowVolume(cuts[n], h) : 0), 0);

async function proveSetup(
  s: SetupToProve,
  clamped: Clamped,
  all: Found[],
  host: KernelHost,
): Promise<SetupProof & { undercuts: Undercut[]; rests: Rests | null }> {
  const { view, programs } = s;
  const { solids, frame } = clamped;
  const { x, y } = view.board;
  // Of a board in plots most lies flat around what is cut.
  const rests = solids.length === 1 ? restsOf(solids[0], frame) : null;
  if (rests) all.push(...found('laid', { view, rests }));
  const cuts = solids.map((solid) => surfaceOf(solid, frame));
  const hollows = solids.map((solid) => hollowThrough(solid.hollow, solid, frame));
  let standing = woodOf(cuts, hollows);
  const volume = new Map<string, number>();
  const tallies = new Map(programs.map((p) => [p.file, new Tally(p)]));
  const ways: Way[] = [];
  const book = new WayBook(programs);
  const onRun = async (run: Run) => {
    ways.push(wayOf(run));
    book.add(run);
    all.push(...found('run', { view, run }));
    tallies.get(run.file)?.add(run);
    const now = woodOf(cuts, hollows);
    volume.set(run.file, (volume.get(run.file) ?? 0) + standing - now);
    standing = now;
  };
  const held: Held[] = [];
  const onProgram = ({ file }: WrittenProgram) => void held.push({ file, ...holdingNow(s, clamped, cuts) });
  const zero = zeroOf(view.board, view.setup);
  const cutters = view.cutters.map((c) => bornBy(view.board.material, c));
  const round = onDrum(view.board, view.machine);
  const cutting = { programs, cutters, zero, round, host, hollows, onRun, onProgram };
  const surface: PartedField = { parts: cuts, around: clamped.around ? { x, y, height: 0 } : null };
  const sim = await simulate(surface, cutting);
  solids.forEach((solid, n) => {
    solid.hollow = hollowThrough(hollows[n], solid, frame);
  });
  sim.read.forEach((read, i) => {
    const said = { view, program: programs[i], read, held: held.slice(0, i + 1), cutouts: s.cutouts };
    all.push(...found('program', { ...said, earlier: clamped.earlier }));
  });
  const looks = await looksAt(s, clamped, cuts, ways);
  all.push(...onceEach(looks.flatMap((l) => l.found)));
  return {
    rests,
    undercuts: ways.flatMap((w) => undercutsOf(w.cutter, w.segments)),
    parts: looks.map(({ map }, n) => ({ cut: cuts[n], rough: sim.rough?.[n] ?? null, map })),
    left: joinLeft(looks.map((l) => l.left)),
    eye: joinEyes(looks.map((l) => l.eye)),
    deepest: Math.max(...looks.map((l) => l.deepest)),
    programs: held.map(({ file, loose, weak }) => {
      const { figures } = tallies.get(file) as Tally;
      return { volume: volume.get(file) ?? 0, ...figures, held: { loose, weak } };
    }),
    cutouts: looks.flatMap((l) => l.cutouts),
    ways: book.ways,
  };
}

/** Holds each part against its target, once all programs of a setup have cut it. */
async function looksAt(
  s: SetupToProve,
  { solids, frame }: Clamped,
  cuts: HeightField[],
  ways: Way[],
): Promise<PartLook[]> {
  const looks: PartLook[] = [];
  for (const [n, solid] of solids.entries()) {
    const cutouts = s.cutouts.filter((c) => solids.length === 1 || partOf(cuts, c) === n);
    looks.push(await lookAtPart(s.parts[n], { view: s.view, solid, frame, cut: cuts[n], ways, cutouts }));
  }
  return looks;
}

/** What holds the pieces of a board as a setup's programs have left it so far. */
function holdingNow(
  { view }: SetupToProve,
  { solids, frame, around }: Clamped,
  cuts: HeightField[],
): Omit<Held, 'file'> {
  const { x, y, thickness } = view.board;
  // A board that is thick everywhere is in one piece.
  if (solids.every((solid, n) => standsEverywhere(solid, frame, cuts[n].data, FRAIL))) return { loose: [], weak: [] };
  const parts = solids.map((solid, n) => woodUnder(solid, frame, cuts[n].data));
  const wood: PartedField = { parts, around: around ? { x, y, height: thickness } : null };
  return whatHolds(pooledOver(wood, 0, 'min'), view.setup.holding);
}

/** The part that a cut-out lies in. */
function partOf(parts: HeightField[], { rings: [ring] }: CutoutOfPass): number {
  return parts.findIndex((p) => cellAt(p, ring[0], ring[1]) >= 0);
}

/** Findings without those that say of another part what is said already. */
function onceEach(all: Found[]): Found[] {
  const said = new Set<string>();
  return all.filter((f) => {
    const words = JSON.stringify([f.rule, f.subject, f.place, f.figures]);
    return !said.has(words) && said.add(words);
  });
}
