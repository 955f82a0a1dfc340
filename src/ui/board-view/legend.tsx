import { useMemo } from 'react';
import { DEPTH, DEVIATION, deviationRange, hasInk, OPEN, type Rgb, spanOf, THIN, WEB } from '@/core/arrange/picture';
import { sayLength } from '@/core/units/say';
import type { ViewMode } from '@/ui/board-view/layout';
import type { Surface } from '../job/surface';

const css = (ramp: [number, number, number][]) =>
  `linear-gradient(to right, ${[0, 64, 128, 192, 255].map((i) => `rgb(${ramp[i].join(' ')})`).join(', ')})`;

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

const ROW = 'flex items-center gap-1.5 text-[12.5px] leading-tight whitespace-nowrap';

/** The scale of a web map: open, too thin, the least that is to be left, and the board's thickness. */
function WebLegend({ thickness, web }: { thickness: number; web: number }) {
  return (
    <div className={ROW}>
      <Swatch left={false} colour={OPEN} />
      <span>open</span>
      <Swatch left={false} colour={THIN} />
      <span>thinner</span>
      <span>{sayLength(web)}</span>
      <Ramp of={WEB} />
      <span>{sayLength(thickness, 1)} of wood</span>
    </div>
  );
}

/** Colours of a map from its least to its most. */
const Ramp = ({ of }: { of: Rgb[] }) => (
  <span className="h-3 w-16 rounded-full border border-base-300" style={{ background: css(of) }} aria-hidden />
);

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
  const span = useMemo(
    () => (surface ? spanOf((surface.cut ?? surface.target).data, board.thickness) : 0),
    [surface, board.thickness],
  );
  if (!surface) return null;
  if (mode === 'web' && surface.web) return <WebLegend {...board} />;
  if (mode !== 'left over' || !deviation)
    return (
      <div className={ROW}>
        <span>{sayLength(-span, 1)}</span>
        <Ramp of={DEPTH} />
        <span>top</span>
      </div>
    );
  return (
    <div className={ROW}>
      <span>{sayLength(range)} too deep</span>
      <Swatch left={false} />
      <Ramp of={DEVIATION} />
      <Swatch left />
      <span>{sayLength(range)} left over</span>
    </div>
  );
}
