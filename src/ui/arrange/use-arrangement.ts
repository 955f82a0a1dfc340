'use client';
import { type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';
import { cellOf } from '@/core/plan/cell';
import type { SetupView } from '@/core/setup/view';
import type { ArrangeApi, ArrangeInput, CoarseLook, Look } from './arrange.worker';
import { soundLayers } from './sound-layers';

const remotes: { quick?: Remote<ArrangeApi>; thorough?: Remote<ArrangeApi> } = {};

/**
 * The workers that arrange, two a page: the quick one answers while a hand moves, the thorough one works out full grids, so
 * that a new drag never waits for the last one's full grid.
 */
export function arranger(which: 'quick' | 'thorough' = 'quick'): Remote<ArrangeApi> {
  remotes[which] ??= wrap<ArrangeApi>(new Worker(new URL('./arrange.worker.ts', import.meta.url), { type: 'module' }));
  return remotes[which];
}

export function arrangeInput(job: SetupView, selected: string | null, moving = false): ArrangeInput {
  return {
    layers: soundLayers(job),
    own: job.layers.length,
    seat: job.seat,
    board: { x: job.board.x, y: job.board.y },
    passes: job.passes,
    cutters: job.cutters,
    selected,
    moving,
    cell: cellOf(job).cell,
  };
}

/** Wait after the last change before the full grid is worked out, ms. */
const REST = 120;

export interface ArrangementLook {
  coarse: CoarseLook | null;
  /** The full grid, when it is of the very input that is shown. */
  sharp: Look | null;
}

/**
 * The layers joined: coarse at every change, the newest first, and sharp when they rest.
 * @param moving something is being dragged: only the coarse grid is worked on
 */
export function useArrangement(job: SetupView | undefined, selected: string | null, moving: boolean): ArrangementLook {
  const input = useMemo(() => (job ? arrangeInput(job, selected, moving) : null), [job, selected, moving]);
  const [coarse, setCoarse] = useState<CoarseLook | null>(null);
  const [sharp, setSharp] = useState<{ of: string; look: Look } | null>(null);
  const latest = useRef<ArrangeInput | null>(null);
  const busy = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  // The selection does not change the surface.
  const key = useMemo(() => (input ? JSON.stringify({ ...input, selected: null, moving: false }) : ''), [input]);

  useEffect(() => {
    latest.current = input;
    if (!input || busy.current) return;
    busy.current = true;
    const run = async () => {
      while (latest.current) {
        const mine: ArrangeInput = latest.current;
        latest.current = null;
        const done = await arranger()
          .coarse(mine)
          .catch(() => null);
        if (done) setCoarse(done);
      }
      busy.current = false;
    };
    void run();
  }, [input]);

  const shown = useRef(input);
  shown.current = input;
  useEffect(() => {
    clearTimeout(timer.current);
    if (key === '' || moving) return;
    timer.current = setTimeout(() => {
      if (!shown.current) return;
      void arranger('thorough')
        .full(shown.current)
        .then(
          (look) => setSharp({ of: key, look }),
          () => {},
        );
    }, REST);
    return () => clearTimeout(timer.current);
  }, [key, moving]);

  return { coarse, sharp: sharp?.of === key ? sharp.look : null };
}
