import { MASK } from '../arrange/target';
import { CELLS_A_RADIUS } from '../cutter/limits';
import type { Board } from '../doc/board';
import { cutterOf, type Job } from '../doc/job';
import { boardGrid, type Grid } from '../field/height-field';
import { clipBox, growBox, joinBoxes } from '../outline/boxes';
import type { Bounds } from '../outline/polygon';
import { cellFor, cellWanted } from '../passes/cell';
import { kindOf } from '../passes/registry';
import { resolveTrenches } from '../passes/trenches';
import { workedOn } from '../passes/worked-on';
import { gridOfBoard } from '../setup/board-grid';
import { boxThrough, type Frame, frameBetween } from '../setup/frame';
import { type SetupView, viewOf } from '../setup/view';
import { PlanStopped } from './stopped';

/** A rectangle of a board on which something is cut, with cells of its own, over the board's first setup. */
export interface Plot {
  grid: Grid;
  /** The cell that the passes ask for that work there, mm. */
  wanted: number;
  /** Ids of those passes. */
  passes: Set<string>;
}

/** Where a board is cut; `around`: whether there is board around the plots that nothing reaches. */
export interface Plots {
  plots: Plot[];
  around: boolean;
}

/** Boards of fewer cells are one plot: parts of them would save no time that anybody notices. */
const WORTH = 16e6;
/** Plots that hold more of a board than this are made one. */
const MOST_OF_IT = 0.7;
/**
 * Ground around what is cut that stays as it is, so that it is seen to, mm; where a layer turns out to reach beyond that, the next is tried, and
 * then the whole board.
 */
const BESIDE = [2, 100];
/** Plots nearer to each other than this are one, mm: wider than what their edges are moved onto cells by. */
export const APART = 8;
/** Plots begin at a cell of the board whose number is a multiple of this, so that coarser cells lie as they do on the whole board. */
const ALIGNED = 8;

/** A box that a pass works in. */
interface Ground {
  box: Bounds;
  pass: string;
}

/** Where the passes of a setup work, each with what its bit reaches, in the coordinates of the board's first setup; null for the whole board. */
function groundsOf(view: SetupView, frame: Frame, beside: number): Ground[] | null {
  const { board } = view;
  const trenches = resolveTrenches(view);
  const out: Ground[] = [];
  for (const [i, pass] of view.passes.entries()) {
    const cutter = cutterOf(view, pass);
    const boxes = workedOn(view, pass, trenches[i]);
    if (!boxes || !cutter) return null;
    const reach = kindOf(pass).beyond?.(pass, cutter) ?? cutter.diameter;
    for (const b of boxes) {
      const box = clipBox(boxThrough(frame, growBox(b, reach + beside)), board);
      if (box) out.push({ box, pass: pass.id });
    }
  }
  return out;
}

/** The grid of the cells of a board of `cell` mm that a box lies on, and no wider than the board. */
export function plotGrid(board: Pick<Board, 'x' | 'y'>, b: Bounds, cell: number): Grid {
  const whole = boardGrid(board.x, board.y, cell);
  const first = (v: number) => Math.max(0, Math.floor(v / cell / ALIGNED) * ALIGNED);
  const [i, j] = [first(b.x0), first(b.y0)];
  return {
    cell,
    width: Math.min(whole.width, Math.ceil(b.x1 / cell)) - i,
    height: Math.min(whole.height, Math.ceil(b.y1 / cell)) - j,
    originX: whole.originX + i * cell,
    originY: whole.originY + j * cell,
  };
}

/** The box that a grid's cells cover, mm. */
export const boxOf = (g: Grid): Bounds => ({
  x0: g.originX - g.cell / 2,
  y0: g.originY - g.cell / 2,
  x1: g.originX + (g.width - 0.5) * g.cell,
  y1: g.originY + (g.height - 0.5) * g.cell,
});

const areaOf = (b: Bounds) => (b.x1 - b.x0) * (b.y1 - b.y0);

/** A board that is cut beyond what its plots were reckoned to hold, by its id: its plots are to be wider. */
export class BeyondPlots extends Error {
  constructor(readonly board: string) {
    super(`what is to be cut of board ${board} reaches beyond its plots`);
  }
}

/** Whether anything is to be cut along the edge of a grid where its board goes on. */
export function reachesOut(g: Grid, mask: Uint8Array, board: Pick<Board, 'x' | 'y'>): boolean {
  const { x0, y0, x1, y1 } = boxOf(g);
  const open = (k: number) => mask[k] !== MASK.keep;
  for (let i = 0; i < g.width; i++) {
    if (y0 > g.cell && open(i)) return true;
    if (y1 < board.y - g.cell && open((g.height - 1) * g.width + i)) return true;
  }
  for (let j = 0; j < g.height; j++) {
    if (x0 > g.cell && open(j * g.width)) return true;
    if (x1 < board.x - g.cell && open((j + 1) * g.width - 1)) return true;
  }
  return false;
}

/**
 * The cell that a ball asks for round a drum: the drum bends away under it, so that what cells hide grows by 1 + R / rho (measured; the bound of a
 * board's cell comes of 1 / R alone).
 */
const roundCell = (wanted: number, { thickness }: Pick<Board, 'thickness'>): number =>
  wanted / Math.sqrt(1 + (wanted * CELLS_A_RADIUS) / thickness);

/**
 * The rectangles of a board on which its setups cut something, each with the cell that the bits working there ask for; what lies between them
 * costs nothing. A board that is small, or cut nearly everywhere, is one plot as a whole.
 * @param tries how often plots of this board have turned out too small
 */
export function plotsOf(job: Job, board: Board, tries = 0): Plots {
  const views = board.setups.map((setup) => viewOf(job, { board, setup }));
  const passes = views.flatMap((v) => v.passes);
  const whole = (): Plots => {
    const wanted = cellWanted(job, passes);
    const grid = gridOfBoard(board, cellFor(board.drum ? roundCell(wanted, board) : wanted, board.x * board.y));
    return { plots: [{ grid, wanted, passes: new Set(passes.map((p) => p.id)) }], around: false };
  };
  if (board.drum || (board.x * board.y) / cellWanted(job, passes) ** 2 < WORTH || tries >= BESIDE.length)
    return whole();
  const grounds = views.map((v) => groundsOf(v, frameBetween(board, board.setups[0], v.setup), BESIDE[tries]));
  if (grounds.some((g) => g === null)) return whole();
  const all = grounds.flatMap((g) => g as Ground[]);
  const boxes = joinBoxes(
    all.map((g) => g.box),
    APART,
  );
  if (boxes.length === 0 || boxes.reduce((s, b) => s + areaOf(b), 0) > MOST_OF_IT * board.x * board.y) return whole();
  const meets = (a: Bounds, b: Bounds) => a.x0 < b.x1 && b.x0 < a.x1 && a.y0 < b.y1 && b.y0 < a.y1;
  const plots = boxes.map((box): Plot => {
    const own = new Set(all.filter((g) => meets(g.box, box)).map((g) => g.pass));
    const wanted = cellWanted(
      job,
      passes.filter((p) => own.has(p.id)),
    );
    return { grid: plotGrid(board, box, cellFor(wanted, areaOf(box))), wanted, passes: own };
  });
  // A pass that works nowhere has its say too.
  for (const p of passes) if (!plots.some((q) => q.passes.has(p.id))) plots[0].passes.add(p.id);
  return { plots, around: true };
}

/** Cells of all plots. */
export const cellsOf = ({ plots }: Plots): number => plots.reduce((s, p) => s + p.grid.width * p.grid.height, 0);

/** Most cells of a job's plots. */
export const MOST_CELLS = 300e6;

/**
 * Refuses a job of more cells than are planned, with the size or the ball that would fit.
 * @throws PlanStopped
 */
export function refuseTooLarge(boards: Plots[]): void {
  const plots = boards.flatMap((b) => b.plots);
  const cells = boards.reduce((s, b) => s + cellsOf(b), 0);
  if (cells <= MOST_CELLS) return;
  const cell = Math.min(...plots.map((p) => p.grid.cell));
  // As many cells of this side as are planned cover the same ground.
  const wide = cell * Math.sqrt(cells / MOST_CELLS);
  throw PlanStopped.by({
    rule: 'too-large',
    severity: 'error',
    subject: {},
    place: null,
    figures: {
      cells: cells / 1e6,
      most: MOST_CELLS / 1e6,
      cell,
      share: 100 * Math.sqrt(MOST_CELLS / cells),
      ball: wide * 2 * CELLS_A_RADIUS,
    },
    fixes: [],
  });
}

/**
 * Bytes a cell that are held at most: of the plot that is planned; and while a board is proven, of all its plots, for the solid and what is
 * compared, and for each setup. And what is held whatever the size. Measured: 2.45 GB on one plot of 73.5 million cells, 3.64 GB where its ball
 * goes down by itself because nothing has been roughed; 2.29 GB on four plots of 65.2 million (`npm run bench`).
 */
const PLANNED = 47;
const PROVEN = 16;
const PROVEN_SETUP = 15;
const BASE = 0.25e9;

/** Memory that a job takes at most while it is planned, bytes. */
export function memoryFor(job: Job): number {
  let [planned, proven, kept] = [0, 0, 0];
  for (const board of job.boards) {
    const all = plotsOf(job, board);
    const cells = cellsOf(all);
    planned = Math.max(planned, ...all.plots.map((p) => PLANNED * p.grid.width * p.grid.height));
    proven = Math.max(proven, PROVEN * cells);
    kept += PROVEN_SETUP * cells * board.setups.length;
  }
  return BASE + Math.max(planned, proven + kept);
}
