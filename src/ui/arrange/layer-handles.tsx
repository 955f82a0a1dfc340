'use client';
import { type PointerEvent as ReactPointerEvent, useRef, useState } from 'react';
import { resizeLayer } from '@/core/arrange/new-layer';
import { boundsOf, layerAt, type Snap, snapBox } from '@/core/arrange/place';
import type { Layer } from '@/core/doc/layer';
import type { Bounds } from '@/core/outline/polygon';
import type { SetupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';
import type { Layout } from '../board-view/board-view';
import { boundsAround, editLayers, moveLayers } from './actions';
import type { CloseLook } from './arrange.worker';
import { CurveHandles } from './curve-handles';
import { Label, Margins } from './margins';
import { hasStrokePoints, StrokeHandles } from './stroke-handles';

interface Props {
  job: SetupView;
  selected: string[];
  close: CloseLook | null;
  layout: Layout;
  onSelect(ids: string[]): void;
  tryOut(edit: ((j: SetupView) => void) | null): void;
  change(edit: (j: SetupView) => void): void;
}

/** Pixels within which things snap, and before which a press is no drag. */
const REACH = 7;
const STILL = 3;

type Drag =
  | { kind: 'move'; ids: string[]; x: number; y: number; box: Bounds; others: { name: string; bounds: Bounds }[] }
  | { kind: 'size'; layer: Layer; x: number; y: number }
  | { kind: 'turn'; layer: Layer };

/** Layers handled on the board: press to select, drag to move with snapping, corners to size, the knob to turn. */
export function LayerHandles({ job, selected, close, layout, onSelect, tryOut, change }: Props) {
  const rect = useRef<SVGRectElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const [snaps, setSnaps] = useState<Snap[]>([]);
  const pending = useRef<((j: SetupView) => void) | null>(null);
  const { scale, left, bottom } = layout;
  const { board } = job;
  const px = (x: number) => left + x * scale;
  const py = (y: number) => bottom - y * scale;
  const place = (e: ReactPointerEvent) => {
    const svg = rect.current!.ownerSVGElement!.getBoundingClientRect();
    return { x: (e.clientX - svg.left - left) / scale, y: (bottom - (e.clientY - svg.top)) / scale };
  };
  const chosen = job.layers.filter((l) => selected.includes(l.id));
  const one = chosen.length === 1 ? chosen[0] : null;

  const start = (e: ReactPointerEvent, d: Drag) => {
    e.preventDefault();
    e.stopPropagation();
    (e.currentTarget as Element).setPointerCapture(e.pointerId);
    pending.current = null;
    setDrag(d);
  };
  const press = (e: ReactPointerEvent) => {
    if (e.button !== 0) return;
    (document.activeElement as HTMLElement | null)?.blur?.();
    const p = place(e);
    const hit = layerAt(job.layers, p.x, p.y);
    if (!hit) {
      onSelect([]);
      return;
    }
    let ids = selected;
    if (e.shiftKey || e.ctrlKey || e.metaKey)
      ids = selected.includes(hit.id) ? selected.filter((s) => s !== hit.id) : [...selected, hit.id];
    else if (!selected.includes(hit.id)) {
      // One of a group stands for all of it; with Alt it is taken alone.
      ids =
        hit.group !== null && !e.altKey ? job.layers.filter((l) => l.group === hit.group).map((l) => l.id) : [hit.id];
    }
    if (ids !== selected) onSelect(ids);
    const moving = ids.filter((id) => !job.layers.find((l) => l.id === id)?.locked);
    const box = boundsAround(job, moving);
    if (moving.length === 0 || !box) return;
    const others = job.layers
      .filter((l) => !ids.includes(l.id) && !l.hidden)
      .map((l) => ({ name: l.name, bounds: boundsOf(l) }));
    others.push({ name: 'the board', bounds: { x0: 0, y0: 0, x1: board.x, y1: board.y } });
    if (close?.field && ids.includes(close.id)) others.push({ name: 'the field', bounds: close.field.bounds });
    start(e, { kind: 'move', ids: moving, ...p, box, others });
  };

  const move = (e: ReactPointerEvent) => {
    if (!drag) return;
    const p = place(e);
    let edit: ((j: SetupView) => void) | null = null;
    if (drag.kind === 'move') {
      let [dx, dy] = [p.x - drag.x, p.y - drag.y];
      if (Math.hypot(dx, dy) * scale < STILL && !pending.current) return;
      if (e.shiftKey) {
        if (Math.abs(dx) > Math.abs(dy)) dy = 0;
        else dx = 0;
      }
      const { x0, y0, x1, y1 } = drag.box;
      const moved = { x0: x0 + dx, x1: x1 + dx, y0: y0 + dy, y1: y1 + dy };
      // Ctrl lets go of all that would hold it.
      const s = e.ctrlKey || e.metaKey ? { dx: 0, dy: 0, snaps: [] } : snapBox(moved, drag.others, REACH / scale);
      setSnaps(s.snaps);
      const [tx, ty] = [clean(dx + s.dx), clean(dy + s.dy)];
      edit = (j) => moveLayers(j, drag.ids, tx, ty);
    } else if (drag.kind === 'size') {
      const { layer } = drag;
      const a = (-layer.turn * Math.PI) / 180;
      const local = (q: { x: number; y: number }) => {
        const [dx, dy] = [q.x - layer.centre.x, q.y - layer.centre.y];
        return { u: Math.abs(dx * Math.cos(a) - dy * Math.sin(a)), v: Math.abs(dx * Math.sin(a) + dy * Math.cos(a)) };
      };
      const [was, now] = [local(drag), local(p)];
      const least = 1 / Math.max(layer.size.x, layer.size.y);
      const k = Math.max(least, Math.hypot(now.u, now.v) / Math.max(1e-6, Math.hypot(was.u, was.v)));
      // Shift frees the proportions.
      const [kx, ky] =
        e.shiftKey && layer.source.kind !== 'words'
          ? [Math.max(least, now.u / Math.max(was.u, 1e-6)), Math.max(least, now.v / Math.max(was.v, 1e-6))]
          : [k, k];
      edit = (j) => editLayers(j, [layer.id], (l) => resizeLayer(l, kx, ky));
    } else {
      const { layer } = drag;
      const angle = (Math.atan2(p.y - layer.centre.y, p.x - layer.centre.x) * 180) / Math.PI - 90;
      const whole = e.ctrlKey || e.metaKey ? Math.round(angle * 10) / 10 : Math.round(angle / 5) * 5;
      const turn = ((whole + 540) % 360) - 180;
      edit = (j) => editLayers(j, [layer.id], (l) => (l.turn = clean(turn)));
    }
    pending.current = edit;
    tryOut(edit);
  };
  const drop = () => {
    if (!drag) return;
    const edit = pending.current;
    pending.current = null;
    setDrag(null);
    setSnaps([]);
    if (edit) change(edit);
    else tryOut(null);
  };

  const corner = (l: Layer, sx: number, sy: number) => {
    const a = (l.turn * Math.PI) / 180;
    const [u, v] = [(sx * l.size.x) / 2, (sy * l.size.y) / 2];
    return { x: l.centre.x + u * Math.cos(a) - v * Math.sin(a), y: l.centre.y + u * Math.sin(a) + v * Math.cos(a) };
  };
  const outline = (l: Layer) => {
    const c = [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map(([sx, sy]) => corner(l, sx, sy));
    return `M${c.map((q) => `${px(q.x)} ${py(q.y)}`).join('L')}Z`;
  };
  const knob = one && corner(one, 0, 1);
  const lifted = knob && {
    x: px(knob.x) - Math.sin((one.turn * Math.PI) / 180) * 24,
    y: py(knob.y) - Math.cos((one.turn * Math.PI) / 180) * 24,
  };
  return (
    <g>
      <rect
        ref={rect}
        x={0}
        y={0}
        width="100%"
        height="100%"
        fill="transparent"
        className={drag?.kind === 'move' ? 'cursor-grabbing' : 'cursor-default'}
        onPointerDown={press}
        onPointerMove={move}
        onPointerUp={drop}
        onPointerCancel={() => {
          pending.current = null;
          drop();
        }}
        data-testid="board-hands"
      />
      {chosen.map((l) => (
        <path
          key={l.id}
          d={outline(l)}
          fill="none"
          stroke="var(--color-primary)"
          strokeWidth={1.5}
          strokeDasharray={l.locked ? '3 3' : undefined}
          pointerEvents="none"
        />
      ))}
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
      {one && close?.id === one.id && close.standing && (
        <Margins standing={close.standing} field={close.field?.bounds ?? null} board={board} px={px} py={py} />
      )}
      {one && !one.locked && lifted && (
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
            className="cursor-grab"
            onPointerDown={(e) => start(e, { kind: 'turn', layer: one })}
            onPointerMove={move}
            onPointerUp={drop}
            role="button"
            aria-label={`Turn ${one.name}`}
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
          {[
            [-1, -1],
            [1, -1],
            [1, 1],
            [-1, 1],
          ].map(([sx, sy]) => {
            const c = corner(one, sx, sy);
            return (
              // biome-ignore lint/a11y/useSemanticElements: a handle on a drawing; the card has the same as a field
              <g
                key={`${sx}${sy}`}
                className="cursor-nwse-resize"
                onPointerDown={(e) => start(e, { kind: 'size', layer: one, ...place(e) })}
                onPointerMove={move}
                onPointerUp={drop}
                role="button"
                aria-label={`Size ${one.name}`}
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
      )}
      {one && !one.locked && one.source.kind === 'words' && one.source.words.line.kind === 'curve' && (
        <CurveHandles layer={one} px={px} py={py} place={place} change={change} />
      )}
      {one && !one.locked && hasStrokePoints(one) && (
        <StrokeHandles layer={one} px={px} py={py} place={place} change={change} />
      )}
    </g>
  );
}
