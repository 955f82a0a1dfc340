import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { ask } from '@/contract/ask';
import { PLANS, type PlanInfo } from '@/contract/plans';
import { cellAt, cellPlace, type Grid, type HeightField, nearestCell } from '@/core/field/height-field';
import type { ArrangementLook } from '../arrange/use-arrangement';

/** What is shown of the board: the proven cut when the plan is of this very document, else the target at once. */
export interface Surface {
  grid: Grid;
  target: HeightField;
  cut: HeightField | null;
  rough: HeightField | null;
  /** The board's underside as it lies here, as the other setups leave it; null where none is cut from there. */
  under: HeightField | null;
  /** How much wood stands over each place, with what is up there; null where only one side is cut. */
  web: Web | null;
  deviation: Float32Array | null;
  mask: Uint8Array;
  proven: boolean;
  /** What is clipped of the layers; null when nothing is. */
  clipped: { grid: Grid; mask: Uint8Array } | null;
}

/** Wood over each cell of a grid, mm, with the surface that is up there. */
export interface Web {
  grid: Grid;
  wood: Float32Array;
  heights: Float32Array;
}

/** The wood between two surfaces on one grid. */
function webOf(grid: Grid, heights: Float32Array, under: Float32Array): Web {
  return { grid, heights, wood: heights.map((v, k) => v - under[k]) };
}

/** The wood between a surface and an underside on another grid. */
function webOver(grid: Grid, heights: Float32Array, under: HeightField): Web {
  const wood = heights.map((v, k) => {
    const { x, y } = cellPlace(grid, k);
    return v - under.data[nearestCell(under, x, y)];
  });
  return { grid, heights, wood };
}

/**
 * @param look the layers as they are joined, and behind them the underside that the board's other side asks for; null where nothing is carved there
 * @param wanted 'cut' shows the proven cut where there is one, 'layers' the layers as they are being arranged
 */
export function useSurface(
  { coarse, sharp, behind }: Pick<ArrangementLook, 'coarse' | 'sharp'> & { behind: HeightField | null },
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
        under: v.under.length > 0 ? field(v.under) : null,
        web: v.under.length > 0 ? webOf(v.grid, v.top, v.under) : null,
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
      under: behind,
      web: behind && coarse ? webOver(coarse.grid, coarse.target, behind) : null,
      deviation: null,
      mask: look.mask,
      proven: false,
      clipped: look.clipped ? { grid: look.grid, mask: look.clipped } : null,
    };
  }, [done, view.data, coarse, sharp, wanted, behind]);
}

/** Value of a field's cell at a place, or null outside. */
export function readAt(f: HeightField | null, x: number, y: number): number | null {
  if (!f) return null;
  const k = cellAt(f, x, y);
  return k < 0 ? null : f.data[k];
}
