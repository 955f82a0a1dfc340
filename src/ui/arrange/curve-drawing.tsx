'use client';
import type { PointerEvent as ReactPointerEvent } from 'react';

/** A point of a curve on the screen, px: one that it runs through, or one that bends it; `starts` a line of its own. */
export interface ScreenPoint {
  x: number;
  y: number;
  bends: boolean;
  starts: boolean;
}

interface Props {
  points: ScreenPoint[];
  onStart(n: number): void;
  onMove(e: ReactPointerEvent): void;
  onDrop(): void;
  onCancel(): void;
}

/** A curve drawn over the board with its points to be dragged. */
export function CurveDrawing({ points, onStart, onMove, onDrop, onCancel }: Props) {
  let line = '';
  for (let i = 0; i < points.length; ) {
    const run = [points[i]];
    while (run[run.length - 1].bends) run.push(points[i + run.length]);
    const letter = i === 0 || points[i].starts ? 'M' : run.length === 3 ? 'C' : run.length === 2 ? 'Q' : 'L';
    line += `${letter}${run.map((p) => `${p.x} ${p.y}`).join(' ')}`;
    i += run.length;
  }
  return (
    <g>
      <path d={line} fill="none" stroke="var(--color-accent)" strokeWidth={1.5} pointerEvents="none" />
      {points.map((p, n) => (
        // biome-ignore lint/a11y/useSemanticElements: a handle on a drawing; the card has the same as a field
        <g
          // biome-ignore lint/suspicious/noArrayIndexKey: points of a stroke have no other name than their place
          key={n}
          className="cursor-move"
          role="button"
          aria-label={p.bends ? `Bend of the curve, ${n + 1}` : `Point of the curve, ${n + 1}`}
          onPointerDown={(e) => {
            e.preventDefault();
            e.stopPropagation();
            (e.currentTarget as Element).setPointerCapture(e.pointerId);
            onStart(n);
          }}
          onPointerMove={onMove}
          onPointerUp={onDrop}
          onPointerCancel={onCancel}
        >
          <circle cx={p.x} cy={p.y} r={12} fill="transparent" />
          {p.bends ? (
            <rect
              x={p.x - 4}
              y={p.y - 4}
              width={8}
              height={8}
              transform={`rotate(45 ${p.x} ${p.y})`}
              fill="var(--color-base-100)"
              stroke="var(--color-accent)"
              strokeWidth={2}
            />
          ) : (
            <circle cx={p.x} cy={p.y} r={5} fill="var(--color-accent)" />
          )}
        </g>
      ))}
    </g>
  );
}
