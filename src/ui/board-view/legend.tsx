import { useMemo } from 'react';
import { DEPTH, DEVIATION, deviationRange, hasInk, OPEN, type Rgb, THIN, WEB } from '@/core/arrange/picture';
import { sayLength } from '@/core/units/say';
import type { ViewMode } from '@/ui/board-view/layout';
import type { Surface } from '../job/surface';

const css = (ramp: [number, number, number][]) =>
  `linear-gradient(to top, ${[0, 64, 128, 192, 255].map((i) => `rgb(${ramp[i].join(' ')})`).join(', ')})`;

const PITCH = 7;

/** A colour of the map with its pattern. */
function Swatch({ left, colour = DEVIATION[left ? 215 : 40] }: { left: boolean; colour?: Rgb }) {
  const ink: string[] = [];
  for (let j = 0; j < 16; j++)
    for (let i = 0; i < 32; i++) if (hasInk(left, i, j, PITCH)) ink.push(`M${i} ${j}h1v1h-1z`);
  return (
    <svg viewBox="0 0 32 16" className="h-4 w-8 rounded border border-base-300" aria-hidden>
      <rect width={32} height={16} fill={`rgb(${colour.join(' ')})`} />
      <path d={ink.join('')} fill="#000" fillOpacity={0.4} />
    </svg>
  );
}

/** The scale of a web map: the board's thickness, the least that is to be left, less than that, and open. */
function WebLegend({ thickness, web }: { thickness: number; web: number }) {
  return (
    <div className="panel absolute bottom-2 left-2 flex w-20 flex-col items-center gap-1 px-1 py-1.5 text-center text-[12.5px] leading-tight">
      <span>{sayLength(thickness, 1)} of wood</span>
      <span className="h-16 w-2.5 rounded-full border border-base-300" style={{ background: css(WEB) }} aria-hidden />
      <span>{sayLength(web)}</span>
      <Swatch left={false} colour={THIN} />
      <span>thinner</span>
      <Swatch left={false} colour={OPEN} />
      <span>open</span>
    </div>
  );
}

/** The colour scale of the view, with its ends named. */
export function Legend({
  mode,
  surface,
  board,
}: {
  mode: ViewMode;
  surface: Surface | null;
  board: { thickness: number; web: number };
}) {
  const deviation = surface?.deviation ?? null;
  const range = useMemo(() => (deviation ? deviationRange(deviation) : 0), [deviation]);
  if (!surface) return null;
  if (mode === 'web' && surface.web) return <WebLegend {...board} />;
  let low = 0;
  const f = surface.cut ?? surface.target;
  for (const v of f.data) if (v < low) low = v;
  const over = mode === 'left over' && surface.deviation;
  return (
    <div className="panel absolute bottom-2 left-2 flex w-16 flex-col items-center gap-1 px-1 py-1.5 text-center text-[12.5px] leading-tight">
      <span>{over ? `${sayLength(range)} left over` : 'top'}</span>
      {over && <Swatch left />}
      <span
        className="h-20 w-2.5 rounded-full border border-base-300"
        style={{ background: css(over ? DEVIATION : DEPTH) }}
        aria-hidden
      />
      {over && <Swatch left={false} />}
      <span>{over ? `${sayLength(range)} too deep` : sayLength(Math.max(low, -board.thickness), 1)}</span>
    </div>
  );
}
