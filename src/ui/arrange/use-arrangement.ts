'use client';
import type { Remote } from 'comlink';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { cellOf } from '@/core/passes/cell';
import type { SetupView } from '@/core/setup/view';
import { Hand } from '../workers/hand';
import type { ArrangeApi } from './arrange.worker';
import { Arranging, surfaceKey } from './arranging';
import type { ArrangeInput, CoarseLook, Look } from './looks';
import { soundLayers } from './sound-layers';

type Which = 'quick' | 'thorough';

const start = () => new Worker(new URL('./arrange.worker.ts', import.meta.url), { type: 'module' });
const ARRANGES = 'arranges the layers';
const hands: Record<Which, Hand<ArrangeApi>> = {
  quick: new Hand<ArrangeApi>(ARRANGES, start),
  thorough: new Hand<ArrangeApi>(ARRANGES, start),
};

/**
 * What one of the workers that arrange is asked for, two a page: the quick one answers while a hand moves and sharpens what is
 * shown when it rests, the thorough one works out full grids, so that neither ever waits for the last full grid.
 * @throws WorkerGone, and what the worker refuses
 */
export const arranged = <T>(which: Which, call: (a: Remote<ArrangeApi>) => Promise<T>): Promise<T> =>
  hands[which].askTwice(call);

/** What is looked at closely besides the layers themselves. */
export interface Looking {
  selected: string[];
  axis: 'x' | 'y';
  moving: boolean;
}

export function arrangeInput(
  job: SetupView,
  { selected, axis, moving }: Looking = { selected: [], axis: 'x', moving: false },
): ArrangeInput {
  return {
    layers: soundLayers(job),
    own: job.layers.length,
    seat: job.seat,
    board: { x: job.board.x, y: job.board.y, thickness: job.board.thickness, drum: job.board.drum },
    passes: job.passes,
    cutters: job.cutters,
    selected,
    axis,
    moving,
    cell: cellOf(job).cell,
  };
}

export interface ArrangementLook {
  coarse: CoarseLook | null;
  /** As finely as it is shown, and then from the full grid, when it is of the very input that is shown. */
  sharp: Look | null;
}

/** The layers joined: coarse at every change, and sharp when they rest; while something is being dragged only the coarse grid is worked on. */
export function useArrangement(job: SetupView | undefined, { selected, axis, moving }: Looking): ArrangementLook {
  const [work] = useState(
    () =>
      new Arranging({
        coarse: (input) => hands.quick.ask((a) => a.coarse(input)),
        fine: (input) => hands.quick.ask((a) => a.fine(input)),
        full: (input) => hands.thorough.ask((a) => a.full(input)),
      }),
  );
  const input = useMemo(
    () => (job ? arrangeInput(job, { selected, axis, moving }) : null),
    [job, selected, axis, moving],
  );
  const key = useMemo(() => (input ? surfaceKey(input) : ''), [input]);
  useEffect(() => {
    if (input) work.show(input);
  }, [work, input]);
  useEffect(() => () => work.stop(), [work]);
  const { coarse, sharp } = useSyncExternalStore(work.subscribe, work.get, work.get);
  return { coarse, sharp: sharp?.of === key ? sharp.look : null };
}
