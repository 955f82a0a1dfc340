import type { Job } from '../doc/job';
import { kindOf } from '../passes/registry';
import { cellsOf, plotsOf } from './plots';

/** One thing that planning tells that it does: its name as it is told, what of it takes alike on other jobs, and on how many cells. */
export interface Phase {
  name: string;
  kind: string;
  cells: number;
}

/** How a phase of a setup is told, where there are several. */
export const phaseName = (kind: string, setup: string, several: boolean): string =>
  several ? `${kind}, ${setup}` : kind;

/** What planning a job does, one after the other, as it is told. */
export function phasesOf(job: Job): Phase[] {
  const boards = job.boards
    .filter((b) => b.setups.length > 0)
    .map((board) => ({ board, cells: cellsOf(plotsOf(job, board)) }));
  const several = boards.flatMap(({ board }) => board.setups).length > 1;
  const setups = boards.flatMap(({ board, cells }) =>
    board.setups.flatMap((s) =>
      ['layers', ...s.passes.map((p) => kindOf(p).name)].map((kind) => ({
        name: phaseName(kind, s.name, several),
        kind,
        cells,
      })),
    ),
  );
  // Each setup of a board is proven on all its cells, pass by pass.
  const proven = boards.reduce(
    (n, { board, cells }) => n + cells * board.setups.reduce((m, s) => m + s.passes.length, 0),
    0,
  );
  return [...setups, { name: 'programs', kind: 'programs', cells: 0 }, { name: 'proof', kind: 'proof', cells: proven }];
}
