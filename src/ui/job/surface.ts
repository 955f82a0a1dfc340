import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { previewTarget } from '@/core/arrange/preview';
import type { Grid, HeightField } from '@/core/field/height-field';
import type { Job } from '@/core/plan/job';
import { resolveTrenches } from '@/core/plan/trenches';
import { fetchPreview, fetchView, type PlanInfo } from '../api';

/** What is shown of the board: the proven cut when the plan is of this very document, else a coarse target at once. */
export interface Surface {
  grid: Grid;
  target: HeightField;
  cut: HeightField | null;
  rough: HeightField | null;
  deviation: Float32Array | null;
  mask: Uint8Array;
  proven: boolean;
  /** Share of the relief's plan below the base plane. */
  lostPlan: number;
  /** Where that is, over the relief's own box; null when nothing is lost. */
  below: { grid: Grid; mask: Uint8Array } | null;
}

export function useSurface(job: Job | undefined, plan: PlanInfo | null, fresh: boolean): Surface | null {
  const relief = job?.relief;
  const preview = useQuery({
    queryKey: ['preview', relief?.hash, relief?.turns, relief?.mirror, relief?.base],
    queryFn: () => fetchPreview(relief!.hash, relief!),
    enabled: relief !== undefined,
    staleTime: Infinity,
    placeholderData: (old) => old,
  });
  const done = fresh && plan?.status === 'done' ? plan.id : null;
  const view = useQuery({
    queryKey: ['view', done],
    queryFn: () => fetchView(done!),
    enabled: done !== null,
    staleTime: Infinity,
  });
  const coarse = useMemo(() => {
    if (!job || !preview.data) return null;
    const { field, mask } = previewTarget(job, preview.data.grid, preview.data.data, resolveTrenches(job));
    return { grid: field, target: field, cut: null, rough: null, deviation: null, mask, proven: false };
  }, [job, preview.data]);
  return useMemo(() => {
    const lostPlan = preview.data?.lostPlan ?? 0;
    const below = preview.data && lostPlan > 0 ? { grid: preview.data.grid, mask: preview.data.below } : null;
    const v = done !== null ? view.data : undefined;
    if (v) {
      const field = (data: Float32Array): HeightField => ({ ...v.grid, data });
      return {
        grid: v.grid,
        target: field(v.target),
        cut: field(v.cut),
        rough: v.rough.length > 0 ? field(v.rough) : null,
        deviation: v.deviation,
        mask: v.mask,
        proven: true,
        lostPlan,
        below,
      };
    }
    return coarse && { ...coarse, lostPlan, below };
  }, [done, view.data, coarse, preview.data]);
}

/** Value of a field's cell at a place, or null outside. */
export function readAt(f: HeightField | null, x: number, y: number): number | null {
  if (!f) return null;
  const i = Math.round((x - f.originX) / f.cell);
  const j = Math.round((y - f.originY) / f.cell);
  return i < 0 || j < 0 || i >= f.width || j >= f.height ? null : f.data[j * f.width + i];
}
