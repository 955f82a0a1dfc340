import { useEffect, useState } from 'react';
import { ask } from '@/contract/ask';
import { PLANS } from '@/contract/plans';
import type { Grid } from '@/core/field/height-field';
import type { SetupView } from '@/core/setup/view';
import { arranged, arrangeInput } from '../arrange/use-arrangement';
import type { Surface, Web } from '../job/surface';
import { inView, type Looking } from './camera';
import type { Layout, ViewMode } from './layout';

/** A part of a surface, as finely as the screen shows it. */
export interface Part {
  grid: Grid;
  heights: Float32Array;
  mask: Uint8Array;
  deviation: Float32Array | null;
  web: Web | null;
}

/** Wait after the view has last moved, ms. */
const REST = 120;
/** Pixels of the screen that a cell may take before a finer part is asked for. */
const COARSE = 1.3;
/** As much more of the board as is in view is asked for on every side, so that small ways along find it there. */
const MORE = 0.25;
const MOST = 2048;

const OF = { plan: 'cut', 'left over': 'left', web: 'web' } as const;

interface Wanted {
  box: { x0: number; y0: number; x1: number; y1: number };
  most: number;
}

const none = new Uint8Array(0);

/** A part of what is proven, or of the layers as they are arranged; null where there is none. */
async function partOf({ surface, plan, job, mode }: Shown, { box, most }: Wanted): Promise<Part | null> {
  if (mode === 'turn') return null;
  if (!surface.proven) {
    if (mode !== 'plan') return null;
    const { grid, target, mask } = await arranged('thorough', (a) => a.part(arrangeInput(job), box, most));
    return { grid, heights: target, mask, deviation: null, web: null };
  }
  if (plan === null) return null;
  const p = await ask(PLANS.part, { id: plan, setup: job.setup.id, ...box, most, of: OF[mode] });
  if (mode === 'web') {
    const { top, under } = p;
    if (!top || !under) return null;
    const wood = top.map((v, k) => v - under[k]);
    return { grid: p.grid, heights: top, mask: none, deviation: null, web: { grid: p.grid, wood, heights: top } };
  }
  return p.cut && p.mask
    ? { grid: p.grid, heights: p.cut, mask: p.mask, deviation: p.deviation ?? null, web: null }
    : null;
}

interface Shown {
  surface: Surface;
  /** The finished plan that it is of. */
  plan: string | null;
  job: SetupView;
  mode: ViewMode;
}

/** A part that has come, what it is of, and at how many pixels a mm it was asked for. */
interface Had {
  of: Surface;
  mode: ViewMode;
  scale: number;
  part: Part;
}

/** Whether a part shows all that is in view, and no less finely than the screen, or than it was asked for at least as close by. */
function suffices({ part, scale }: Had, seen: Wanted['box'], fine: number, now: number): boolean {
  const { originX, originY, width, height, cell } = part.grid;
  const rim = cell;
  const covered =
    originX - rim <= seen.x0 &&
    originY - rim <= seen.y0 &&
    originX + (width - 1) * cell + rim >= seen.x1 &&
    originY + (height - 1) * cell + rim >= seen.y1;
  return covered && (cell <= fine || scale >= now);
}

/**
 * The part of a surface that is in view, as finely as the screen shows it, once the view rests: from the plan's own cells, or from the layers'
 * full grid. Null while the whole board's picture is as fine as the screen. One that is on its way is shown by the last that came.
 */
export function usePart(shown: Shown | null, looking: Looking, layout: Layout): Part | null {
  const [had, setHad] = useState<Had | null>(null);
  const { surface = null, plan = null, job = null, mode = 'plan' } = shown ?? {};
  const held = had && had.of === surface && had.mode === mode ? had : null;
  const ratio = typeof window === 'undefined' ? 1 : window.devicePixelRatio || 1;
  const fine = COARSE / (layout.scale * ratio);
  const needed = surface !== null && surface.grid.cell > fine;
  const { x0, y0, x1, y1 } = inView(looking, layout);
  const { scale } = layout;
  const enough = !needed || (held !== null && suffices(held, { x0, y0, x1, y1 }, fine, scale));
  useEffect(() => {
    if (enough || !surface || !job) return;
    let wanted = true;
    const timer = setTimeout(() => {
      const [w, h] = [(x1 - x0) * MORE, (y1 - y0) * MORE];
      const box = { x0: x0 - w, y0: y0 - h, x1: x1 + w, y1: y1 + h };
      // Of so many cells every second one is still as fine as the screen.
      const pixels = Math.max(box.x1 - box.x0, box.y1 - box.y0) * scale * ratio;
      const most = Math.min(MOST, Math.max(64, Math.ceil((2 / COARSE) * pixels)));
      partOf({ surface, plan, job, mode }, { box, most }).then(
        (p) => wanted && p && setHad({ of: surface, mode, scale, part: p }),
        // What cannot be had finer is shown as it is.
        () => {},
      );
    }, REST);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [enough, surface, plan, job, mode, scale, ratio, x0, y0, x1, y1]);
  return needed ? (held?.part ?? null) : null;
}
