import { type PointerEvent as ReactPointerEvent, useEffect, useState } from 'react';
import { pointerOn } from '../board-view/layout';
import type { Measured, StripPlace } from './measure';

/** Pixels before which a press is no line. */
const STILL = 4;

/** A line drawn across the strip between two places, to read off how far apart they are; a press without a way, or Escape, takes it away. */
export function useMeasure({ on, placeAt }: { on: boolean; placeAt(x: number, y: number): StripPlace }) {
  const [measured, setMeasured] = useState<Measured | null>(null);
  const [from, setFrom] = useState<{ x: number; y: number; place: StripPlace } | null>(null);
  useEffect(() => {
    if (!measured) return;
    const keys = (e: KeyboardEvent) => e.key === 'Escape' && setMeasured(null);
    addEventListener('keydown', keys);
    return () => removeEventListener('keydown', keys);
  }, [measured]);
  const bind = {
    onPointerDown: (e: ReactPointerEvent<SVGSVGElement>) => {
      if (!on || e.button !== 0) return;
      e.currentTarget.setPointerCapture(e.pointerId);
      const [x, y] = pointerOn(e.currentTarget, e);
      setMeasured(null);
      setFrom({ x, y, place: placeAt(x, y) });
    },
    onPointerMoveCapture: (e: ReactPointerEvent<SVGSVGElement>) => {
      if (!from) return;
      const [x, y] = pointerOn(e.currentTarget, e);
      if (Math.hypot(x - from.x, y - from.y) >= STILL) setMeasured({ from: from.place, to: placeAt(x, y) });
    },
    onPointerUp: () => setFrom(null),
    onPointerCancel: () => setFrom(null),
  };
  return { measured: on ? measured : null, bind };
}
