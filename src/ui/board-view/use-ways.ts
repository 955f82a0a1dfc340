import { useEffect, useState } from 'react';
import { ask } from '@/contract/ask';
import { PLANS } from '@/contract/plans';
import type { PlanWays } from '@/contract/wire';
import { inView, type Looking } from './camera';
import type { Layout } from './layout';

/** What ways are of: a finished plan, one of its setups, and one pass of it or all. */
export interface WaysOf {
  plan: string;
  setup: string;
  pass: string | null;
}

/** Ways that have come: what they are of, where, and how finely. */
interface Had {
  of: string;
  box: { x0: number; y0: number; x1: number; y1: number };
  scale: number;
  ways: PlanWays;
}

/** Wait after the view has last moved, ms. */
const REST = 120;
/** Pixels of the screen within which ways are drawn. */
const FINE = 0.5;
/** As much more of the board as is in view is asked for on every side. */
const MORE = 0.25;

/** The ways of a plan's bits in the part of the board that is in view, as finely as the screen shows them; the last that came while others are on their way. */
export function useWays(wanted: WaysOf | null, looking: Looking, layout: Layout): PlanWays | null {
  const [had, setHad] = useState<Had | null>(null);
  const of = wanted ? JSON.stringify(wanted) : null;
  const { x0, y0, x1, y1 } = inView(looking, layout);
  const { scale } = layout;
  const held = had !== null && had.of === of ? had : null;
  const enough =
    held !== null &&
    held.box.x0 <= x0 &&
    held.box.y0 <= y0 &&
    held.box.x1 >= x1 &&
    held.box.y1 >= y1 &&
    held.scale >= scale / 1.5 &&
    held.scale <= scale * 3;
  useEffect(() => {
    if (of === null || enough) return;
    let open = true;
    const timer = setTimeout(() => {
      const { plan, setup, pass } = JSON.parse(of) as WaysOf;
      const [w, h] = [(x1 - x0) * MORE, (y1 - y0) * MORE];
      const box = { x0: x0 - w, y0: y0 - h, x1: x1 + w, y1: y1 + h };
      ask(PLANS.ways, { id: plan, setup, pass: pass ?? undefined, fine: FINE / scale, ...box }).then(
        (ways) => open && setHad({ of, box, scale, ways }),
        // A result that was cleared away has none to show; its station says so.
        () => {},
      );
    }, REST);
    return () => {
      open = false;
      clearTimeout(timer);
    };
  }, [of, enough, x0, y0, x1, y1, scale]);
  return held?.ways ?? null;
}
