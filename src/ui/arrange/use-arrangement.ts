'use client';
import type { Remote } from 'comlink';
import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { cellOf } from '@/core/passes/cell';
import type { SetupView } from '@/core/setup/view';
import type { Pace } from '../board-view/pace';
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
  /** Has what a hand moves worked out before it is shown; null when it is let go. */
  ahead(job: SetupView | null): void;
  coarse: CoarseLook | null;
  /** As finely as it is shown, and then from the full grid, when it is of the very input that is shown. */
  sharp: Look | null;
}

/**
 * The layers joined: coarse at every change, and sharp when they rest; while something is being dragged only the coarse grid is worked on.
 * @param pace is told when a coarse look is about to be shown
 */
export function useArrangement(
  job: SetupView | undefined,
  { selected, axis, moving }: Looking,
  pace: Pace,
): ArrangementLook {
  const [work] = useState(
    () =>
      new Arranging(
        {
          coarse: (input) => hands.quick.ask((a) => a.coarse(input)),
          fine: (input) => hands.quick.ask((a) => a.fine(input)),
          full: (input) => hands.thorough.ask((a) => a.full(input)),
        },
        pace.flush,
      ),
  );
  const early = useRef<{ of: SetupView; input: ArrangeInput } | null>(null);
  const [letGo, setLetGo] = useState(0);
  const on = job !== undefined;
  const ahead = useCallback(
    (of: SetupView | null) => {
      if (of && on) {
        const input = arrangeInput(of, { selected, axis, moving: true });
        early.current = { of, input };
        work.show(input);
      } else if (early.current) {
        early.current = null;
        setLetGo((n) => n + 1);
      }
    },
    [work, selected, axis, on],
  );
  const input = useMemo(() => {
    // What was let go before it was shown has been worked out nevertheless: what is shown is asked for again.
    void letGo;
    if (!job) return null;
    const had = early.current;
    const same = had?.of.document === job.document && had.of.setup === job.setup;
    return same && moving && had.input.selected === selected && had.input.axis === axis
      ? had.input
      : arrangeInput(job, { selected, axis, moving });
  }, [job, selected, axis, moving, letGo]);
  const key = useMemo(() => (input && !moving ? surfaceKey(input) : ''), [input, moving]);
  useEffect(() => {
    if (input) work.show(input);
  }, [work, input]);
  useEffect(() => () => work.stop(), [work]);
  const { coarse, sharp } = useSyncExternalStore(work.subscribe, work.get, work.get);
  return { ahead, coarse, sharp: sharp?.of === key ? sharp.look : null };
}
