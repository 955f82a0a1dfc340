'use client';
import type { PointerEvent as ReactPointerEvent } from 'react';
import { sayLength, sayNumber } from '@/core/units/say';
import type { SectionLine } from './layout';
import { shifted } from './section-line';

/** What of the section line is taken hold of. */
export type Grip = 'start' | 'end' | 'line';

/** From mm on the board to pixels on the screen. */
export interface OnScreen {
  px(x: number): number;
  py(y: number): number;
}

/** Both ends of the section line on the screen. */
const endsOf = (s: SectionLine, { px, py }: OnScreen) => ({ x1: px(s.x0), y1: py(s.y0), x2: px(s.x1), y2: py(s.y1) });

/** The line that the depth strip cuts along. */
export function SectionRule({ section, px, py }: OnScreen & { section: SectionLine }) {
  return (
    <>
      <line {...endsOf(section, { px, py })} stroke="var(--color-base-100)" strokeOpacity={0.75} strokeWidth={3.5} />
      <line {...endsOf(section, { px, py })} stroke="var(--color-primary)" strokeWidth={1.5} strokeDasharray="6 3" />
    </>
  );
}

/** What the section line is taken by: the whole of it, and its ends. */
export function SectionGrips({
  board,
  section,
  px,
  py,
  onSection,
  onTake,
  endsOnly,
}: OnScreen & {
  board: { x: number; y: number };
  section: SectionLine;
  onSection(s: SectionLine): void;
  onTake(kind: Grip): (e: ReactPointerEvent) => void;
  endsOnly: boolean;
}) {
  return (
    <>
      <line
        {...endsOf(section, { px, py })}
        stroke="transparent"
        strokeWidth={16}
        pointerEvents={endsOnly ? 'none' : undefined}
        className="cursor-move"
        onPointerDown={onTake('line')}
        tabIndex={0}
        role="slider"
        aria-label="Section line; move it with the arrow keys"
        aria-valuemin={0}
        aria-valuemax={board.y}
        aria-valuenow={Number(((section.y0 + section.y1) / 2).toFixed(1))}
        aria-valuetext={`from ${sayNumber(section.x0, 1)}, ${sayNumber(section.y0, 1)} to ${sayNumber(section.x1, 1)}, ${sayLength(section.y1, 1)}`}
        onKeyDown={(e) => {
          const d = e.shiftKey ? 10 : 1;
          const by: Record<string, [number, number]> = {
            ArrowUp: [0, d],
            ArrowDown: [0, -d],
            ArrowLeft: [-d, 0],
            ArrowRight: [d, 0],
          };
          const v = by[e.key];
          if (!v) return;
          e.preventDefault();
          // The line goes the way of the arrow, however the board lies in the view.
          const along = Math.sign(px(1) - px(0));
          onSection(shifted(board, section, along * v[0], along * v[1]));
        }}
      />
      {(['start', 'end'] as const).map((kind) => {
        const [x, y] = kind === 'start' ? [section.x0, section.y0] : [section.x1, section.y1];
        return (
          <g key={kind} className="cursor-grab" onPointerDown={onTake(kind)}>
            <circle cx={px(x)} cy={py(y)} r={16} fill="transparent" />
            <circle cx={px(x)} cy={py(y)} r={5} fill="var(--color-primary)" stroke="#fffefa" strokeWidth={1.5} />
          </g>
        );
      })}
    </>
  );
}
