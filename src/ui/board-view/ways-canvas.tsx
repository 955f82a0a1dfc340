'use client';
import { useEffect, useRef } from 'react';
import type { PlanWays } from '@/contract/wire';
import { saidUnit, sayFeed, sayLength, sayNumber } from '@/core/units/say';
import { useDark } from '../theme-switch';
import { type Layout, onScreen } from './layout';
import { type PointerPlace, usePointer } from './pointer-place';
import { themeColour } from './theme-colour';
import { drawWays, WAY_LINES, wayAt } from './way-lines';

/** The ways of the bits over the board's picture. */
export function WaysCanvas({
  ways,
  layout,
  width,
  height,
}: {
  ways: PlanWays;
  layout: Layout;
  width: number;
  height: number;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [dark] = useDark();
  useEffect(() => {
    const c = canvas.current;
    const g = c?.getContext('2d');
    if (!c || !g) return;
    // The theme's colours are read anew when it changes.
    void dark;
    const ratio = window.devicePixelRatio || 1;
    c.width = Math.round(width * ratio);
    c.height = Math.round(height * ratio);
    g.scale(ratio, ratio);
    const { px, py } = onScreen(layout);
    drawWays(g, ways, px, py, (name) => `rgb(${themeColour(name).join(' ')})`);
  }, [ways, layout, width, height, dark]);
  return <canvas ref={canvas} className="pointer-events-none absolute inset-0" style={{ width, height }} aria-hidden />;
}

/** Pixels from the pointer within which a way is the one that is pointed at. */
const NEAR = 12;

/** How the kinds of ways are drawn, and what the bit does on the one at the pointer. */
export function WayLegend({ ways, pointer, scale }: { ways: PlanWays | null; pointer: PointerPlace; scale: number }) {
  const at = usePointer(pointer);
  const here = ways && at ? wayAt(ways, at, NEAR / scale) : null;
  return (
    <div
      className="flex w-full flex-wrap items-center gap-x-3 gap-y-0.5 text-[12.5px] leading-tight"
      data-testid="ways"
    >
      {Object.values(WAY_LINES).map((l) => (
        <span key={l.name} className="flex items-center gap-1.5 whitespace-nowrap">
          <svg viewBox="0 0 30 8" className="h-2 w-7.5" aria-hidden>
            <path
              d="M2 4H28"
              stroke={`var(${l.colour})`}
              strokeWidth={l.width + 0.5}
              strokeDasharray={l.dash.join(' ') || undefined}
              strokeLinecap="round"
            />
          </svg>
          {l.name}
        </span>
      ))}
      <span className="min-h-4 w-full truncate text-right" data-testid="way-here">
        {here
          ? [
              `line ${here.line}`,
              WAY_LINES[here.kind].name,
              `tip at ${sayLength(here.z)}`,
              ...(here.kind === 'rapid' ? [] : [sayFeed(here.feed)]),
              ...(here.kind === 'cut' || here.kind === 'entry'
                ? [`takes ${sayLength(here.bite)} deep, ${area(here.chip)} across its way`]
                : []),
            ].join(', ')
          : ways
            ? ways.kind.length === 0
              ? 'no bit runs here in this pass'
              : 'point at a path to read what the bit does there'
            : 'reading the programs back'}
      </span>
    </div>
  );
}

/** A small area in the reader's unit. */
function area(mm2: number): string {
  const side = Number(sayNumber(Math.sqrt(mm2), 4));
  return `${Number((side * side).toPrecision(2))} ${saidUnit()}²`;
}
