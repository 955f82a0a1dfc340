'use client';
import { type RefObject, useEffect, useRef, useState } from 'react';
import { pointerOn } from './layout';

/** The glass: how wide it is, how many times as large things are in it, and how far over the finger it is held, pixels. */
const GLASS = { size: 116, times: 2.5, over: 92 };
/** What ends a finger's looking: it goes, or what it held down long has opened a menu. */
const ENDS = ['pointerup', 'pointercancel', 'lostpointercapture', 'contextmenu'] as const;
/** A finger that stays so long before it leads the view along wants to see what is under it, ms. */
const WAIT = 220;

interface Place {
  x: number;
  y: number;
}

/** Where the glass is held, so that no finger covers it and it stays in view. */
export function glassAt(finger: Place, room: { width: number }): Place {
  const half = GLASS.size / 2;
  const x = Math.min(room.width - half, Math.max(half, finger.x));
  if (finger.y - GLASS.over - half >= 0) return { x, y: finger.y - GLASS.over };
  // Near the upper edge it is held beside the finger, on the side where there is room.
  const aside = finger.x > room.width / 2 ? -GLASS.over : GLASS.over;
  return { x: Math.min(room.width - half, Math.max(half, finger.x + aside)), y: Math.max(half, finger.y) };
}

/** Where a finger rests or draws something along; null while none does. */
function useFinger(element: RefObject<HTMLElement | null>): Place | null {
  const [finger, setFinger] = useState<Place | null>(null);
  useEffect(() => {
    const on = element.current;
    if (!on) return;
    let held: number | null = null;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const place = (e: PointerEvent) => {
      const [x, y] = pointerOn(on, e);
      return { x, y };
    };
    const down = (e: PointerEvent) => {
      clearTimeout(timer);
      if (e.pointerType !== 'touch' || held !== null) return leave();
      held = e.pointerId;
      const at = place(e);
      timer = setTimeout(() => setFinger(at), WAIT);
    };
    const move = (e: PointerEvent) => {
      if (e.pointerId === held) setFinger((was) => (was ? place(e) : null));
    };
    const leave = () => {
      clearTimeout(timer);
      held = null;
      setFinger(null);
    };
    on.addEventListener('pointerdown', down, true);
    on.addEventListener('pointermove', move, true);
    for (const end of ENDS) on.addEventListener(end, leave, true);
    return () => {
      clearTimeout(timer);
      on.removeEventListener('pointerdown', down, true);
      on.removeEventListener('pointermove', move, true);
      for (const end of ENDS) on.removeEventListener(end, leave, true);
    };
  }, [element]);
  return finger;
}

/** What lies under a finger on the board, larger and beside it. @param off while the view itself is led along */
export function Magnifier({ element, off }: { element: RefObject<HTMLDivElement | null>; off: boolean }) {
  const finger = useFinger(element);
  const canvas = useRef<HTMLCanvasElement>(null);
  const shown = off ? null : finger;
  useEffect(() => {
    const [c, on] = [canvas.current, element.current];
    const g = c?.getContext('2d');
    if (!shown || !g || !on) return;
    const wide = GLASS.size / GLASS.times;
    // As fine as all canvases of the board are, also one that is drawn on elsewhere and does not tell its size here.
    const k = window.devicePixelRatio || 1;
    g.clearRect(0, 0, GLASS.size, GLASS.size);
    for (const of of on.querySelectorAll('canvas')) {
      if (of === c || of.clientWidth === 0) continue;
      const from = [(shown.x - wide / 2) * k, (shown.y - wide / 2) * k] as const;
      g.drawImage(of, ...from, wide * k, wide * k, 0, 0, GLASS.size, GLASS.size);
    }
  }, [shown, element]);
  if (!shown || !element.current) return null;
  const at = glassAt(shown, { width: element.current.clientWidth });
  const half = GLASS.size / 2;
  return (
    <div
      className="pointer-events-none absolute overflow-hidden rounded-full border-2 border-primary bg-base-100 shadow-lg"
      style={{ left: at.x - half, top: at.y - half, width: GLASS.size, height: GLASS.size }}
      data-testid="magnifier"
    >
      <canvas ref={canvas} width={GLASS.size} height={GLASS.size} aria-hidden />
      <svg className="absolute inset-0" width={GLASS.size} height={GLASS.size} aria-hidden>
        <path
          d={`M${half} ${half - 12}v24M${half - 12} ${half}h24`}
          stroke="var(--color-primary)"
          strokeWidth={1.5}
          fill="none"
        />
      </svg>
    </div>
  );
}
