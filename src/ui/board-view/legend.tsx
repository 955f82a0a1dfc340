import { useMemo } from 'react';
import { DEPTH, DEVIATION, deviationRange } from '@/core/arrange/picture';
import type { ViewMode } from '@/ui/board-view/layout';
import type { Surface } from '../job/surface';

const css = (ramp: [number, number, number][]) =>
  `linear-gradient(to top, ${[0, 64, 128, 192, 255].map((i) => `rgb(${ramp[i].join(' ')})`).join(', ')})`;

/** The colour scale of the view, with its ends named. */
export function Legend({ mode, surface }: { mode: ViewMode; surface: Surface | null }) {
  const deviation = surface?.deviation ?? null;
  const range = useMemo(() => (deviation ? deviationRange(deviation) : 0), [deviation]);
  if (!surface) return null;
  let low = 0;
  const f = surface.cut ?? surface.target;
  for (const v of f.data) if (v < low) low = v;
  const over = mode === 'left over' && surface.deviation;
  return (
    <div className="panel absolute bottom-2 left-2 flex w-16 flex-col items-center gap-1 px-1 py-1.5 text-center text-[12.5px] leading-tight">
      <span>{over ? `${range} mm left` : 'top'}</span>
      <span
        className="h-20 w-2.5 rounded-full border border-base-300"
        style={{ background: css(over ? DEVIATION : DEPTH) }}
        aria-hidden
      />
      <span>{over ? `${range} mm too deep` : `${low.toFixed(1)} mm`}</span>
    </div>
  );
}
