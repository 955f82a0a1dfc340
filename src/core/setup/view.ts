import type { Cutter } from '../cutter/cutter';
import type { Board } from '../doc/board';
import { type Job, type Place, setupsOf } from '../doc/job';
import type { Gap, Layer, Seat, SeenLayer } from '../doc/layer';
import type { Machine } from '../doc/machine';
import type { Pass } from '../doc/pass';
import type { Setup } from '../doc/setup';
import { turningOf } from './frame';

/**
 * A job as one of its setups sees it: what it cuts, the board that it clamps, and what all setups share. It is a window on the document:
 * what is read comes from there, what is set goes there.
 */
export interface SetupView {
  readonly document: Job;
  name: string;
  order: string;
  readonly board: Board;
  readonly setup: Setup;
  machine: Machine;
  cutters: Cutter[];
  layers: Layer[];
  gaps: Gap[];
  seat: Seat;
  passes: Pass[];
  output: Job['output'];
  cell: number | null;
}

const OF_JOB = ['name', 'order', 'machine', 'cutters', 'output', 'cell'] as const;
const OF_SETUP = ['layers', 'gaps', 'seat', 'passes'] as const;

/** A job as a setup of it sees it. */
export function viewOf(document: Job, { board, setup }: Place): SetupView {
  const view = { document, board, setup };
  const pass = (from: object, keys: readonly string[]) => {
    for (const key of keys)
      Object.defineProperty(view, key, {
        enumerable: true,
        get: () => (from as Record<string, unknown>)[key],
        set: (v) => {
          (from as Record<string, unknown>)[key] = v;
        },
      });
  };
  pass(document, OF_JOB);
  pass(setup, OF_SETUP);
  return view as SetupView;
}

/** The view of the setup of that id, or of the first that cuts layers and is no jig. @throws Error when the job has no setup at all */
export function setupView(document: Job, id?: string | null): SetupView {
  const all = setupsOf(document);
  const at =
    all.find((p) => p.setup.id === id) ??
    all.find((p) => p.setup.layers.length > 0 && p.board.jigFor === null) ??
    all[0];
  if (!at) throw new Error('this job has no setup; add one');
  return viewOf(document, at);
}

/** The layers of a setup, and hidden after them those of the board's other setups, which its outlines and masks may name. */
export function seenLayers(view: Pick<SetupView, 'board' | 'setup' | 'layers'>): SeenLayer[] {
  const others = view.board.setups
    .filter((s) => s.id !== view.setup.id)
    .flatMap((s) =>
      s.layers.map((l) => ({
        ...l,
        hidden: true,
        ...(s.up === view.setup.up ? {} : { turnedIn: turningOf(view.board) }),
      })),
    );
  return others.length > 0 ? [...view.layers, ...others] : view.layers;
}
