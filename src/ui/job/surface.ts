import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { ask } from '@/contract/ask';
import { PLANS, type PlanInfo } from '@/contract/plans';
import { cellAt, type Grid, type HeightField } from '@/core/field/height-field';
import type { ArrangementLook } from '../arrange/use-arrangement';

/** What is shown of the board: the proven cut when the plan is of this very document, else the target at once. */
export interface Surface {
  grid: Grid;
  target: HeightField;
  cut: HeightField | null;
  rough: HeightField | null;
  deviation: Float32Array | null;
  mask: Uint8Array;
  proven: boolean;
  /** What is clipped of the layers; null when nothing is. */
  clipped: { grid: Grid; mask: Uint8Array } | null;
}

/** @param wanted 'cut' shows the proven cut where there is one, 'layers' the layers as they are being arranged */
export function useSurface(
  { coarse, sharp }: ArrangementLook,
  plan: PlanInfo | null,
  fresh: boolean,
  wanted: 'cut' | 'layers',
  setup: string,
): Surface | null {
  const done = fresh && plan?.status === 'done' ? plan.id : null;
  const view = useQuery({
    queryKey: ['view', done, plan?.revision, setup],
    queryFn: () => ask(PLANS.view, { id: done!, setup }),
    enabled: done !== null,
    staleTime: Infinity,
  });
  return useMemo(() => {
    const v = done !== null ? view.data : undefined;
    const look = sharp ?? coarse;
    if (v && wanted === 'cut') {
      const field = (data: Float32Array): HeightField => ({ ...v.grid, data });
      return {
        grid: v.grid,
        target: field(v.target),
        cut: field(v.cut),
        rough: v.rough.length > 0 ? field(v.rough) : null,
        deviation: v.deviation,
        mask: v.mask,
        proven: true,
        clipped: null,
      };
    }
    if (!look) return null;
    return {
      grid: look.grid,
      target: { ...look.grid, data: look.target },
      cut: null,
      rough: null,
      deviation: null,
      mask: look.mask,
      proven: false,
      clipped: look.clipped ? { grid: look.grid, mask: look.clipped } : null,
    };
  }, [done, view.data, coarse, sharp, wanted]);
}

/** Value of a field's cell at a place, or null outside. */
export function readAt(f: HeightField | null, x: number, y: number): number | null {
  if (!f) return null;
  const k = cellAt(f, x, y);
  return k < 0 ? null : f.data[k];
}
