'use client';
import { type PointerEvent as ReactPointerEvent, useEffect, useRef, useState } from 'react';
import { sourceKind } from '@/core/arrange/kinds/registry';
import { resizeLayer } from '@/core/arrange/new-layer';
import { boundsOf, layerAt, type Snap } from '@/core/arrange/place';
import type { Layer } from '@/core/doc/layer';
import type { SetupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';
import { type Layout, onScreen, pointerOn } from '@/ui/board-view/layout';
import { boundsAround, editLayers } from './actions';
import { type Drag, type Edit, moveEdit, type Snapped, sizeEdit, turnEdit } from './drag-edits';
import { fieldsOf } from './kinds/registry';
import { Grips, outlineOf, SnapLines } from './layer-grips';
import type { CloseLook } from './looks';
import { Margins } from './margins';

interface Props {
  job: SetupView;
  selected: string[];
  close: CloseLook | null;
  layout: Layout;
  /** Two fingers are on the board: what one of them had begun to move stays where it was. */
  pinching: boolean;
  onSelect(ids: string[]): void;
  tryOut(edit: ((j: SetupView) => void) | null): void;
  change(edit: (j: SetupView) => void): void;
}

/** Pixels within which things snap, and before which a press is no drag. */
const REACH = 7;
const STILL = 3;

/** The layers that a press on one takes: with Shift or Ctrl one more or less, else its group, and with Alt it alone. */
function takenWith(job: SetupView, selected: string[], hit: Layer, e: ReactPointerEvent): string[] {
  if (e.shiftKey || e.ctrlKey || e.metaKey)
    return selected.includes(hit.id) ? selected.filter((s) => s !== hit.id) : [...selected, hit.id];
  if (selected.includes(hit.id)) return selected;
  return hit.group !== null && !e.altKey ? job.layers.filter((l) => l.group === hit.group).map((l) => l.id) : [hit.id];
}

/** What layers that are moved may snap to. */
function othersThan(ids: string[], { layers, board }: SetupView, close: CloseLook | null): Snapped[] {
  const others = layers
    .filter((l) => !ids.includes(l.id) && !l.hidden)
    .map((l) => ({ name: l.name, bounds: boundsOf(l) }));
  others.push({ name: 'the board', bounds: { x0: 0, y0: 0, x1: board.x, y1: board.y } });
  if (close?.field && ids.includes(close.id)) others.push({ name: 'the field', bounds: close.field.bounds });
  return others;
}

/** Layers handled on the board: press to select, drag to move with snapping, corners to size, the knob to turn. */
export function LayerHandles({ job, selected, close, layout, pinching, onSelect, tryOut, change }: Props) {
  const rect = useRef<SVGRectElement>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  // Drawn when what moves is drawn, and no sooner.
  const snaps = useRef<Snap[]>([]);
  const pending = useRef<Edit | null>(null);
  const [{ scale }, { board }] = [layout, job];
  const { px, py, ...on } = onScreen(layout);
  const place = (e: ReactPointerEvent) => on.place(...pointerOn(rect.current!.ownerSVGElement!, e));
  const chosen = job.layers.filter((l) => selected.includes(l.id));
  const one = chosen.length === 1 ? chosen[0] : null;
  const Own = one && fieldsOf(one).Handles;

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
    const hit = layerAt(job.layers, p.x, p.y, job.board.drum ? job.board.y : 0);
    if (!hit) {
      onSelect([]);
      return;
    }
    const ids = takenWith(job, selected, hit, e);
    if (ids !== selected) onSelect(ids);
    const moving = ids.filter((id) => !job.layers.find((l) => l.id === id)?.locked);
    const box = boundsAround(job, moving);
    if (moving.length === 0 || !box) return;
    start(e, { kind: 'move', ids: moving, ...p, box, others: othersThan(ids, job, close) });
  };

  const move = (e: ReactPointerEvent) => {
    if (!drag) return;
    const p = place(e);
    let edit: Edit;
    if (drag.kind === 'move') {
      if (Math.hypot(p.x - drag.x, p.y - drag.y) * scale < STILL && !pending.current) return;
      const moved = moveEdit(drag, p, e, REACH / scale);
      snaps.current = moved.snaps;
      edit = moved.edit;
    } else
      edit = drag.kind === 'size' ? sizeEdit(drag, p, e.shiftKey) : turnEdit(drag.layer, p, e.ctrlKey || e.metaKey);
    pending.current = edit;
    tryOut(edit);
  };
  const drop = () => {
    if (!drag) return;
    const edit = pending.current;
    pending.current = null;
    setDrag(null);
    snaps.current = [];
    if (edit) change(edit);
    else tryOut(null);
  };

  const letGo = useRef(() => {});
  letGo.current = () => {
    pending.current = null;
    drop();
  };
  useEffect(() => {
    if (pinching) letGo.current();
  }, [pinching]);

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
        onPointerCancel={() => letGo.current()}
        data-testid="board-hands"
      />
      {chosen.map((l) => (
        <path
          key={l.id}
          d={outlineOf(l, px, py)}
          fill="none"
          stroke="var(--color-primary)"
          strokeWidth={1.5}
          strokeDasharray={l.locked ? '3 3' : undefined}
          pointerEvents="none"
        />
      ))}
      <SnapLines snaps={snaps.current} {...{ board, px, py }} />
      {one && close?.id === one.id && close.standing && (
        <Margins standing={close.standing} field={close.field?.bounds ?? null} board={board} px={px} py={py} />
      )}
      {one && !one.locked && (
        <Grips
          {...{ layer: one, px, py, turned: layout.turned }}
          onSize={(e) => start(e, { kind: 'size', layer: one, ...place(e) })}
          onTurn={sourceKind(one).alongAxis ? null : (e) => start(e, { kind: 'turn', layer: one })}
          onMove={move}
          onDrop={drop}
          sizeBy={(k) => change((j) => editLayers(j, [one.id], (l) => resizeLayer(l, k, k)))}
          turnBy={(d) => change((j) => editLayers(j, [one.id], (l) => (l.turn = clean((l.turn + d) % 360))))}
        />
      )}
      {one && Own && !one.locked && <Own layer={one} px={px} py={py} place={place} change={change} />}
    </g>
  );
}
