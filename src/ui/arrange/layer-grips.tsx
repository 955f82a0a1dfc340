'use client';
import type { KeyboardEvent as ReactKeyboardEvent, PointerEvent as ReactPointerEvent } from 'react';
import type { Snap } from '@/core/arrange/place';
import type { Layer } from '@/core/doc/layer';
import { Label } from './margins';

type Point = { x: number; y: number };
type ToPixel = (v: number) => number;

/** Corners of a layer as shares of its half size, round about, by their names where it is not turned. */
const CORNERS = [
  [-1, -1, 'near left'],
  [1, -1, 'near right'],
  [1, 1, 'far right'],
  [-1, 1, 'far left'],
] as const;

/** What a press of an arrow does to a handle that has the focus: how much larger, as a share, and how far round, degrees; with Shift the larger step. */
const BY_KEY = { size: [0.01, 0.1], turn: [1, 15] } as const;

/** Whether an arrow leads up (right and up) or down (left and down); 0 for other keys. The board's own arrows do not hear of it. */
function wayOf(e: ReactKeyboardEvent): number {
  const way = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 }[e.key] ?? 0;
  if (way !== 0) {
    e.preventDefault();
    e.stopPropagation();
  }
  return way;
}

const HANDLE = 'focus-visible:outline-2 focus-visible:outline-primary focus-visible:outline-offset-2';

function corner(l: Layer, sx: number, sy: number): Point {
  const a = (l.turn * Math.PI) / 180;
  const [u, v] = [(sx * l.size.x) / 2, (sy * l.size.y) / 2];
  return { x: l.centre.x + u * Math.cos(a) - v * Math.sin(a), y: l.centre.y + u * Math.sin(a) + v * Math.cos(a) };
}

export function outlineOf(l: Layer, px: ToPixel, py: ToPixel): string {
  const c = CORNERS.map(([sx, sy]) => corner(l, sx, sy));
  return `M${c.map((q) => `${px(q.x)} ${py(q.y)}`).join('L')}Z`;
}

/** What a dragged layer has snapped to. */
export function SnapLines({ snaps, board, px, py }: { snaps: Snap[]; board: Point; px: ToPixel; py: ToPixel }) {
  return (
    <>
      {snaps.map((s) => (
        <g key={`${s.axis}${s.at}`} pointerEvents="none">
          <line
            x1={s.axis === 'x' ? px(s.at) : px(0)}
            x2={s.axis === 'x' ? px(s.at) : px(board.x)}
            y1={s.axis === 'y' ? py(s.at) : py(0)}
            y2={s.axis === 'y' ? py(s.at) : py(board.y)}
            stroke="var(--color-accent)"
            strokeWidth={1}
          />
          <Label
            x={s.axis === 'x' ? px(s.at) : px(0) - 4}
            anchor={s.axis === 'x' ? 'middle' : 'end'}
            y={s.axis === 'y' ? py(s.at) + 4 : py(board.y) - 6}
            text={s.with}
          />
        </g>
      ))}
    </>
  );
}

/** A layer's corners and its knob. */
export function Grips({
  layer,
  px,
  py,
  turned,
  onSize,
  onTurn,
  onMove,
  onDrop,
  sizeBy,
  turnBy,
}: {
  layer: Layer;
  px: ToPixel;
  py: ToPixel;
  /** Whether the board is shown half a turn round. */
  turned: boolean;
  onSize(e: ReactPointerEvent): void;
  /** Null for a layer that cannot be turned. */
  onTurn: ((e: ReactPointerEvent) => void) | null;
  onMove(e: ReactPointerEvent): void;
  onDrop(): void;
  /** The same by keys: so many times as large, and so many degrees further. */
  sizeBy(times: number): void;
  turnBy(degrees: number): void;
}) {
  const step = (e: ReactKeyboardEvent, of: keyof typeof BY_KEY) => wayOf(e) * BY_KEY[of][e.shiftKey ? 1 : 0];
  const knob = corner(layer, 0, 1);
  const over = turned ? -24 : 24;
  const lifted = {
    x: px(knob.x) - Math.sin((layer.turn * Math.PI) / 180) * over,
    y: py(knob.y) - Math.cos((layer.turn * Math.PI) / 180) * over,
  };
  return (
    <>
      {onTurn && (
        <>
          <line
            x1={px(knob.x)}
            y1={py(knob.y)}
            x2={lifted.x}
            y2={lifted.y}
            stroke="var(--color-primary)"
            strokeWidth={1.5}
            pointerEvents="none"
          />
          {/* biome-ignore lint/a11y/useSemanticElements: a handle on a drawing; the card has the same as a field */}
          <g
            className={`cursor-grab ${HANDLE}`}
            onPointerDown={onTurn}
            onPointerMove={onMove}
            onPointerUp={onDrop}
            onKeyDown={(e) => {
              const by = step(e, 'turn');
              if (by !== 0) turnBy(-by);
            }}
            role="button"
            tabIndex={0}
            aria-label={`Turn ${layer.name}; arrow keys turn it`}
          >
            <circle cx={lifted.x} cy={lifted.y} r={15} fill="transparent" />
            <circle
              cx={lifted.x}
              cy={lifted.y}
              r={6}
              fill="var(--color-base-100)"
              stroke="var(--color-primary)"
              strokeWidth={2}
            />
          </g>
        </>
      )}
      {CORNERS.map(([sx, sy, name]) => {
        const c = corner(layer, sx, sy);
        return (
          // biome-ignore lint/a11y/useSemanticElements: a handle on a drawing; the card has the same as a field
          <g
            key={`${sx}${sy}`}
            className={`cursor-nwse-resize ${HANDLE}`}
            onPointerDown={onSize}
            onPointerMove={onMove}
            onPointerUp={onDrop}
            onKeyDown={(e) => {
              const by = step(e, 'size');
              if (by !== 0) sizeBy(1 + by);
            }}
            role="button"
            tabIndex={0}
            aria-label={`Size ${layer.name}, ${name} corner; arrow keys size it`}
          >
            <circle cx={px(c.x)} cy={py(c.y)} r={14} fill="transparent" />
            <rect
              x={px(c.x) - 4.5}
              y={py(c.y) - 4.5}
              width={9}
              height={9}
              rx={2}
              fill="var(--color-base-100)"
              stroke="var(--color-primary)"
              strokeWidth={2}
            />
          </g>
        );
      })}
    </>
  );
}
