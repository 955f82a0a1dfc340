'use client';
import { useDrag } from '@use-gesture/react';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { type ReactNode, useEffect, useState } from 'react';
import { useNarrow } from '../controls/use-media';

/** How high a sheet stands: its handle and foot, half the window, nearly all of it. */
const STANDS = ['low', 'half', 'high'] as const;
type Stand = (typeof STANDS)[number];

/** Height of its handle and its foot together, px. */
export const LOW = 128;

const heightOf = (stand: Stand, window: number): number =>
  stand === 'low' ? LOW : Math.round(window * (stand === 'half' ? 0.5 : 0.86));

/** The stand nearest to a height, further on by half a window where it was thrown. */
function nearest(height: number, window: number, thrown: number): Stand {
  const to = height + thrown * 0.25 * window;
  return STANDS.reduce((a, b) => (Math.abs(heightOf(b, window) - to) < Math.abs(heightOf(a, window) - to) ? b : a));
}

/** Height of the window, as it is laid out. */
function useWindowHeight(): number {
  const [height, setHeight] = useState(800);
  useEffect(() => {
    const read = () => setHeight(window.innerHeight);
    read();
    addEventListener('resize', read);
    return () => removeEventListener('resize', read);
  }, []);
  return height;
}

/** The card beside the board; where there is no room beside it, a sheet below that is drawn up over the board. */
export function Sheet({ title, foot, children }: { title: string; foot: ReactNode; children: ReactNode }) {
  const narrow = useNarrow();
  const window = useWindowHeight();
  const [stand, setStand] = useState<Stand>('low');
  const [held, setHeld] = useState<number | null>(null);
  const drag = useDrag(
    ({ last, movement: [, down], velocity: [, speed], direction: [, way], tap }) => {
      if (tap) return;
      const height = Math.min(0.9 * window, Math.max(LOW, heightOf(stand, window) - down));
      setHeld(last ? null : height);
      if (last) setStand(nearest(height, window, speed > 0.4 ? -way : 0));
    },
    { filterTaps: true, axis: 'y' },
  );
  if (!narrow)
    return (
      <aside className="isolate flex w-[306px] shrink-0 flex-col border-l border-base-300 bg-base-100 2xl:w-[380px]">
        <div className="min-h-0 flex-1 overflow-y-auto">{children}</div>
        {foot}
      </aside>
    );
  const up = stand !== 'low';
  return (
    <aside
      aria-label={title}
      className="fixed inset-x-0 bottom-0 z-20 flex flex-col rounded-t-2xl border-t border-base-300 bg-base-100 shadow-[0_-4px_18px_rgb(0_0_0/0.18)]"
      style={{ height: held ?? heightOf(stand, window) }}
    >
      <button
        type="button"
        {...drag()}
        className="flex min-h-12 shrink-0 cursor-grab touch-none items-center gap-3 px-4"
        aria-expanded={up}
        onClick={() => setStand(up ? 'low' : 'half')}
      >
        <span className="slab flex-1 text-left text-lg">{title}</span>
        <span className="h-1.5 w-12 rounded-full bg-base-300" aria-hidden />
        <span className="flex flex-1 justify-end">
          {up ? <ChevronDown size={20} aria-hidden /> : <ChevronUp size={20} aria-hidden />}
        </span>
      </button>
      <div className={`min-h-0 flex-1 overflow-y-auto ${up || held !== null ? '' : 'invisible'}`}>{children}</div>
      {foot}
    </aside>
  );
}
