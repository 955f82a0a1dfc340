'use client';
import { useEffect, useMemo, useState } from 'react';
import { gridOf, type HeightField } from '@/core/field/height-field';
import { frameBetween, gridThrough, turnedCells } from '@/core/setup/frame';
import { type SetupView, viewOf } from '@/core/setup/view';
import { arranged, arrangeInput } from './use-arrangement';

/** The last setup of the board's other side that cuts layers. */
function otherSide(job: SetupView): SetupView | null {
  const { board, setup, document } = job;
  const other = board.setups.findLast((s) => s.up !== setup.up && s.layers.some((l) => !l.hidden));
  return other ? viewOf(document, { board, setup: other }) : null;
}

/**
 * The underside of the board as the layers of its other side ask for it, on a coarse grid, in the coordinates of the setup that is shown; null where
 * nothing is carved there, or as long as it is not worked out. It is asked for again only when the other side changes, never by a hand that moves here.
 */
export function useBehind(job: SetupView | undefined): HeightField | null {
  const key = useMemo(() => {
    const other = job && otherSide(job);
    if (!job || !other) return '';
    const { passes: _, cutters: __, ...input } = arrangeInput(other);
    return JSON.stringify([input, job.board.flip, job.setup.up]);
  }, [job]);
  const [found, setFound] = useState<{ key: string; field: HeightField } | null>(null);
  useEffect(() => {
    const other = job && key !== '' ? otherSide(job) : null;
    if (!job || !other || found?.key === key) return;
    let gone = false;
    void arranged('thorough', (a) => a.behind(arrangeInput(other))).then(
      ({ grid, target }) => {
        if (gone) return;
        const frame = frameBetween(job.board, other.setup, job.setup);
        const under = target.map((v) => -frame.thickness - v);
        const data = frame.turned ? turnedCells(under, grid.width, frame.turned) : under;
        setFound({ key, field: { ...gridOf(gridThrough(frame, grid)), data } });
      },
      // What is wrong with the other side's layers is told there.
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [job, key, found?.key]);
  return found && found.key === key ? found.field : null;
}
