'use client';
import { type PointerEvent as ReactPointerEvent, useState } from 'react';
import type { Pass } from '@/core/doc/pass';
import { placeTab } from '@/core/passes/cutout/place-tab';
import type { CutoutFacts } from '@/core/passes/cutout/plan';
import type { SetupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';
import { sayLength } from '@/core/units/say';
import { type Layout, onScreen, pointerOn, wayOnBoard } from '@/ui/board-view/layout';
import { SlotLines } from './slot-lines';

/** How far an arrow key moves a place, mm; ten times as far with Shift. */
const NUDGE = 1;
const KEYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

interface Place {
  x: number;
  y: number;
}

/** Places on the board that are dragged, or moved by arrow keys. */
function Places({
  places,
  name,
  layout,
  put,
  size,
}: {
  places: Place[];
  name: string;
  layout: Layout;
  put(n: number, x: number, y: number): void;
  /** Diameter that a mark is drawn with, mm; null draws a small square. */
  size: number | null;
}) {
  const [drag, setDrag] = useState<({ n: number } & Place) | null>(null);
  const { px, py, ...on } = onScreen(layout);
  const place = (e: ReactPointerEvent) => on.place(...pointerOn((e.currentTarget as SVGElement).ownerSVGElement!, e));
  return places.map((t, n) => {
    const at = drag?.n === n ? drag : t;
    const [cx, cy] = [px(at.x), py(at.y)];
    const look = { fill: 'var(--color-base-100)', stroke: 'var(--color-accent)', strokeWidth: 2.5 };
    return (
      // biome-ignore lint/a11y/useSemanticElements: a handle on a drawing
      <g
        // biome-ignore lint/suspicious/noArrayIndexKey: places have no other name than their place in the list
        key={n}
        role="button"
        tabIndex={0}
        className="cursor-move"
        aria-label={`${name} ${n + 1} at ${sayLength(t.x)}, ${sayLength(t.y)}; arrow keys move it`}
        onKeyDown={(e) => {
          const way = KEYS[e.key];
          if (!way) return;
          const step = wayOnBoard(layout, way);
          e.preventDefault();
          e.stopPropagation();
          const by = e.shiftKey ? 10 * NUDGE : NUDGE;
          put(n, clean(t.x + step[0] * by), clean(t.y + step[1] * by));
        }}
        onPointerDown={(e) => {
          e.preventDefault();
          e.stopPropagation();
          (e.currentTarget as Element).setPointerCapture(e.pointerId);
          setDrag({ n, ...place(e) });
        }}
        onPointerMove={(e) => drag?.n === n && setDrag({ n, ...place(e) })}
        onPointerUp={() => {
          if (drag) put(n, clean(drag.x), clean(drag.y));
          setDrag(null);
        }}
        onPointerCancel={() => setDrag(null)}
      >
        <circle cx={cx} cy={cy} r={14} fill="transparent" />
        {size === null ? (
          <rect x={cx - 6} y={cy - 6} width={12} height={12} rx={2} {...look} />
        ) : (
          <>
            <circle cx={cx} cy={cy} r={Math.max(5, (size / 2) * layout.scale)} {...look} fillOpacity={0.6} />
            <path d={`M${cx - 4} ${cy}h8M${cx} ${cy - 4}v8`} stroke="var(--color-accent)" strokeWidth={1.5} />
          </>
        )}
      </g>
    );
  });
}

interface Props {
  pass: Pass;
  /** A cut-out's lines and tabs, when they are planned. */
  facts: CutoutFacts | null;
  layout: Layout;
  change(edit: (j: SetupView) => void): void;
}

/** Whether a pass has anything on the board to be moved by hand. */
export const hasPlaces = (pass: Pass, facts: CutoutFacts | null) =>
  facts !== null || pass.kind === 'hole' || pass.kind === 'hang' || pass.kind === 'skim';

/** What of a pass is moved on the board: a cut-out's tabs, holes, places where the board was measured. */
export function PlaceHandles({ pass, facts, layout, change }: Props) {
  const { px, py } = onScreen(layout);
  const edit = (f: (p: Pass) => void) => change((j) => f(j.passes.find((p) => p.id === pass.id)!));
  if (pass.kind === 'cutout' && facts) {
    return (
      <g>
        {facts.rings.map((r) => {
          const points = Array.from({ length: r.length / 2 }, (_, i) => `${px(r[2 * i])},${py(r[2 * i + 1])}`).join(
            ' ',
          );
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
        <Places
          places={facts.tabs}
          name="Tab"
          layout={layout}
          size={null}
          put={(n, x, y) => edit((p) => p.kind === 'cutout' && placeTab(p, facts.tabs, n, { x, y }))}
        />
      </g>
    );
  }
  if (pass.kind === 'hole') {
    return (
      <g>
        <Places
          places={pass.places}
          name="Hole"
          layout={layout}
          size={pass.diameter}
          put={(n, x, y) => edit((p) => p.kind === 'hole' && Object.assign(p.places[n], { x, y }))}
        />
      </g>
    );
  }
  if (pass.kind === 'hang') {
    return (
      <g>
        <SlotLines pass={pass} layout={layout} />
        <Places
          places={pass.places}
          name="Slot"
          layout={layout}
          size={null}
          put={(n, x, y) => edit((p) => p.kind === 'hang' && Object.assign(p.places[n], { x, y }))}
        />
      </g>
    );
  }
  if (pass.kind === 'skim') {
    return (
      <g>
        <Places
          places={pass.points}
          name="Measured place"
          layout={layout}
          size={null}
          put={(n, x, y) => edit((p) => p.kind === 'skim' && Object.assign(p.points[n], { x, y }))}
        />
      </g>
    );
  }
  return null;
}
