import type { Cutter } from '../cutter/cutter';
import type { Board } from '../doc/board';
import { gridBetween } from '../field/height-field';
import { clipBox, growBox, joinBoxes } from '../outline/boxes';
import type { Bounds } from '../outline/polygon';
import { cellFor } from '../passes/cell';
import { MOTION } from '../program/reader';
import { onDrum, readFor } from '../program/round';
import { bodyOf } from '../proof/body';
import type { BoardParts } from '../proof/prove';
import { boxThrough, frameBetween, zeroOf } from '../setup/frame';
import type { SetupView } from '../setup/view';
import { APART, boxOf, type Plots, plotGrid } from './plots';
import type { PlannedProgram } from './programs';

/** A long move is looked at in pieces of this length, and what lies beyond all plots is gathered in squares of this side, mm. */
const PIECE = 32;

/** How far from its axis a bit with its shank and holder may meet wood that nothing has cut yet, with its tip at z, mm; 0 for not at all. */
function reachAt(cutter: Cutter, z: number): number {
  if (z >= 0) return 0;
  const parts = bodyOf(cutter).filter((p) => z + p.height < 0);
  return Math.max(cutter.diameter / 2, ...parts.map((p) => p.radius));
}

/** The boxes that a program's moves may meet wood in, setup coordinates, mm. */
function* sweptBoxes({ cutters, board, setup, machine }: SetupView, program: PlannedProgram): Generator<Bounds> {
  const zero = zeroOf(board, setup);
  const { text, file, cutter: tool } = program;
  const { motions: m, tools } = readFor({ text, file, tool }, onDrum(board, machine), zero.z);
  for (const [t, { tool, from }] of tools.entries()) {
    const cutter = cutters.find((c) => c.number === tool);
    if (!cutter) continue;
    const end = (tools[t + 1]?.from ?? m.length / MOTION) * MOTION;
    for (let k = from * MOTION; k < end; k += MOTION) {
      const reach = reachAt(cutter, Math.min(m[k + 2], m[k + 5]) + zero.z);
      if (reach === 0) continue;
      const [dx, dy] = [m[k + 3] - m[k], m[k + 4] - m[k + 1]];
      const n = Math.max(1, Math.ceil(Math.hypot(dx, dy) / PIECE));
      for (let i = 0; i < n; i++) {
        const [xa, ya] = [m[k] + zero.x + (dx * i) / n, m[k + 1] + zero.y + (dy * i) / n];
        const [xb, yb] = [xa + dx / n, ya + dy / n];
        yield growBox(
          { x0: Math.min(xa, xb), x1: Math.max(xa, xb), y0: Math.min(ya, yb), y1: Math.max(ya, yb) },
          reach,
        );
      }
    }
  }
}

const holds = (a: Bounds, b: Bounds) => a.x0 <= b.x0 && a.y0 <= b.y0 && a.x1 >= b.x1 && a.y1 >= b.y1;

/** A program of a setup, as it is written. */
export interface ProgramIn {
  view: SetupView;
  program: PlannedProgram;
}

/** What programs reach of a board beyond its plots, as boxes over its first setup, mm: programs from elsewhere may cut anywhere. */
function beyondPlots(board: Board, plots: Bounds[], programs: ProgramIn[]): Bounds[] {
  const squares = new Set<number>();
  const across = Math.ceil(board.x / PIECE);
  for (const { view, program } of programs) {
    const frame = frameBetween(board, board.setups[0], view.setup);
    for (const swept of sweptBoxes(view, program)) {
      const box = clipBox(boxThrough(frame, swept), board);
      if (!box || plots.some((p) => holds(p, box))) continue;
      for (let j = Math.floor(box.y0 / PIECE); j * PIECE < box.y1; j++)
        for (let i = Math.floor(box.x0 / PIECE); i * PIECE < box.x1; i++) squares.add(j * across + i);
    }
  }
  return [...squares].map((s) => {
    const [x0, y0] = [(s % across) * PIECE, Math.floor(s / across) * PIECE];
    return { x0, y0, x1: Math.min(board.x, x0 + PIECE), y1: Math.min(board.y, y0 + PIECE) };
  });
}

/**
 * Where a board is proven: its plots on the proof's own cells. Where programs reach beyond them the board is looked at there too, so that
 * nothing that is cut goes unseen.
 */
export function partsToProve(board: Board, { plots, around }: Plots, programs: ProgramIn[]): BoardParts {
  const own = plots.map((p) => gridBetween(p.grid));
  if (!around) return { grids: own, around };
  const boxes = own.map(boxOf);
  const more = beyondPlots(board, boxes, programs);
  if (more.length === 0) return { grids: own, around };
  const grids = joinBoxes([...boxes, ...more], APART).map((box) => {
    const within = own.filter((_, i) => holds(box, boxes[i]));
    if (within.length === 1 && holds(boxOf(within[0]), box)) return within[0];
    const cell = Math.min(...(within.length > 0 ? within : own).map((g) => g.cell));
    return gridBetween(plotGrid(board, box, cellFor(cell, (box.x1 - box.x0) * (box.y1 - box.y0))));
  });
  return { grids, around };
}
