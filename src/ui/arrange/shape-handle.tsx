'use client';
import { type KeyboardEvent, type PointerEvent as ReactPointerEvent, useRef } from 'react';
import { trimNumber } from '@/core/units/length';
import { sayLength } from '@/core/units/say';
import { HandleSign } from './handle-sign';
import { HANDLES, type Handle, onStep } from './shape-handles';

interface Props {
  handle: Handle;
  /** Of what, for who does not see the drawing. */
  name: string;
  x: number;
  y: number;
  value: number;
  /** What a movement on the drawing, in pixels to the right and up, makes of the value. */
  moved(right: number, up: number): number;
  /** A hand takes hold, so that the drawing keeps its scale, and lets go. */
  onHold(held: boolean): void;
  onTry(value: number | null): void;
  onPut(value: number): void;
}

const WAYS: Record<string, number> = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1 };

/** A handle on a section's drawing: dragged, or moved by the arrow keys, ten times as far with Shift. */
export function ShapeHandle({ handle, name, x, y, value, moved, onHold, onTry, onPut }: Props) {
  const from = useRef<{ x: number; y: number; k: number; moved: Props['moved'] } | null>(null);
  const facts = HANDLES[handle];
  const { label, unit, min, max, step, stride } = facts;
  const limited = (v: number) => Math.min(max, Math.max(min, v));
  const at = (e: ReactPointerEvent): number | null => {
    const f = from.current;
    if (!f) return null;
    const [right, up] = [(e.clientX - f.x) * f.k, (f.y - e.clientY) * f.k];
    return Math.hypot(right, up) < 2 ? null : limited(onStep(f.moved(right, up), handle));
  };
  const hold = (e: ReactPointerEvent<SVGGElement>) => {
    if (e.button !== 0) return;
    const svg = e.currentTarget.ownerSVGElement!;
    // The drawing may be shown larger or smaller than it is counted in.
    const k = svg.viewBox.baseVal.width / svg.getBoundingClientRect().width;
    e.currentTarget.setPointerCapture(e.pointerId);
    from.current = { x: e.clientX, y: e.clientY, k, moved };
    onHold(true);
  };
  const drop = (e: ReactPointerEvent, keep: boolean) => {
    if (!from.current) return;
    const v = at(e);
    from.current = null;
    onHold(false);
    if (keep && v !== null) onPut(v);
    else onTry(null);
  };
  const key = (e: KeyboardEvent) => {
    const way = WAYS[e.key];
    if (way === undefined || e.ctrlKey || e.metaKey) return;
    e.preventDefault();
    onPut(limited(onStep(value + way * (e.shiftKey ? stride : step), handle)));
  };
  const shown = unit === 'mm' ? sayLength(value) : `${trimNumber(value, 1)}°`;
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`${label} of ${name}`}
      aria-valuenow={value}
      aria-valuemin={min}
      aria-valuemax={max}
      aria-valuetext={shown}
      aria-orientation={handle === 'thin' ? 'horizontal' : 'vertical'}
      className={`group/handle touch-none outline-none ${handle === 'thin' ? 'cursor-ew-resize' : 'cursor-ns-resize'}`}
      onPointerDown={hold}
      onPointerMove={(e) => {
        const v = at(e);
        if (v !== null) onTry(v);
      }}
      onPointerUp={(e) => drop(e, true)}
      onPointerCancel={(e) => drop(e, false)}
      onKeyDown={key}
    >
      <title>{`${label}, ${shown}`}</title>
      <circle
        cx={x}
        cy={y}
        r={12}
        fill="transparent"
        className="group-focus-visible/handle:stroke-2"
        stroke="var(--color-primary)"
        strokeWidth={0}
      />
      <HandleSign handle={handle} x={x} y={y} />
    </g>
  );
}
