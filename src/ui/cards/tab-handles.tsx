'use client';
import { type PointerEvent as ReactPointerEvent, useState } from 'react';
import type { CutoutFacts } from '@/core/passes/cutout';
import type { Job } from '@/core/plan/job';
import { formatLength } from '@/core/units/length';
import type { Layout } from '../board-view/board-view';

interface Props {
  passId: string;
  facts: CutoutFacts;
  layout: Layout;
  change(edit: (j: Job) => void): void;
}

const clean = (v: number) => Number(v.toFixed(3));
/** How far an arrow key moves a tab, mm; ten times as far with Shift. */
const NUDGE = 1;

/** The tip's lines of a cut-out with its tabs, to be dragged to other places. */
export function TabHandles({ passId, facts, layout, change }: Props) {
  const [drag, setDrag] = useState<{ n: number; x: number; y: number } | null>(null);
  const px = (x: number) => layout.left + x * layout.scale;
  const py = (y: number) => layout.bottom - y * layout.scale;
  const place = (e: ReactPointerEvent) => {
    const box = (e.currentTarget as SVGElement).ownerSVGElement!.getBoundingClientRect();
    return {
      x: (e.clientX - box.left - layout.left) / layout.scale,
      y: (layout.bottom - (e.clientY - box.top)) / layout.scale,
    };
  };
  const put = (n: number, x: number, y: number) =>
    change((j) => {
      const p = j.passes.find((q) => q.id === passId);
      if (p?.kind !== 'cutout') return;
      p.tabs.at = facts.tabs.map((t, i) => (i === n ? { x: clean(x), y: clean(y) } : { x: clean(t.x), y: clean(t.y) }));
      p.tabs.count = facts.tabs.length;
    });
  const keys: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, 1],
    ArrowDown: [0, -1],
  };
  return (
    <g>
      {facts.rings.map((r) => {
        const points = Array.from({ length: r.length / 2 }, (_, i) => `${px(r[2 * i])},${py(r[2 * i + 1])}`).join(' ');
        return (
          <polygon
            key={points.slice(0, 60)}
            points={points}
            fill="none"
            stroke="var(--color-accent)"
            strokeWidth={1.5}
            strokeDasharray="7 4"
            pointerEvents="none"
          />
        );
      })}
      {facts.tabs.map((t, n) => {
        const at = drag?.n === n ? drag : t;
        return (
          // biome-ignore lint/a11y/useSemanticElements: a handle on a drawing
          <g
            // biome-ignore lint/suspicious/noArrayIndexKey: tabs have no other name than their place in the list
            key={n}
            role="button"
            tabIndex={0}
            className="cursor-move"
            aria-label={`Tab ${n + 1} at ${formatLength(t.x)}, ${formatLength(t.y)}; arrow keys move it`}
            onKeyDown={(e) => {
              const step = keys[e.key];
              if (!step) return;
              e.preventDefault();
              e.stopPropagation();
              const by = e.shiftKey ? 10 * NUDGE : NUDGE;
              put(n, t.x + step[0] * by, t.y + step[1] * by);
            }}
            onPointerDown={(e) => {
              e.preventDefault();
              e.stopPropagation();
              (e.currentTarget as Element).setPointerCapture(e.pointerId);
              setDrag({ n, ...place(e) });
            }}
            onPointerMove={(e) => drag?.n === n && setDrag({ n, ...place(e) })}
            onPointerUp={() => {
              if (drag) put(n, drag.x, drag.y);
              setDrag(null);
            }}
            onPointerCancel={() => setDrag(null)}
          >
            <circle cx={px(at.x)} cy={py(at.y)} r={14} fill="transparent" />
            <rect
              x={px(at.x) - 6}
              y={py(at.y) - 6}
              width={12}
              height={12}
              rx={2}
              fill="var(--color-base-100)"
              stroke="var(--color-accent)"
              strokeWidth={2.5}
            />
          </g>
        );
      })}
    </g>
  );
}
