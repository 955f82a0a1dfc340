'use client';
import { type PointerEvent as ReactPointerEvent, useState } from 'react';
import { drawStrokes, strokesFrame, strokesOf } from '@/core/arrange/kinds/shape/strokes';
import { curvePoints, movePoint } from '@/core/outline/curve-points';
import { applyPoint, invertAffine } from '@/core/outline/polygon';
import { editLayers } from '../actions';
import { CurveDrawing } from '../curve-drawing';
import type { HandlesProps } from './kind-fields';

/** Drawn lines with their points to be dragged on the board; what is not dragged stays where it is. */
export function StrokeHandles({ layer, px, py, place, change }: HandlesProps<'shape'>) {
  const saved = strokesOf(layer);
  const [drag, setDrag] = useState<{ n: number; d: string } | null>(null);
  if (!saved) return null;
  const frame = strokesFrame(layer, saved);
  const points = curvePoints(drag?.d ?? saved.d).map((p) => {
    const [x, y] = applyPoint(frame, p.x, -p.y);
    return { ...p, x: px(x), y: py(y) };
  });
  const move = (e: ReactPointerEvent) => {
    if (!drag) return;
    const at = place(e);
    const [x, y] = applyPoint(invertAffine(frame), at.x, at.y);
    setDrag({ n: drag.n, d: movePoint(saved.d, drag.n, x, -y) });
  };
  const drop = () => {
    const next = drag?.d;
    setDrag(null);
    if (!next || next === saved.d) return;
    change((j) => editLayers(j, [layer.id], (l) => drawStrokes(l, next)));
  };
  return (
    <CurveDrawing
      points={points}
      onStart={(n) => setDrag({ n, d: saved.d })}
      onMove={move}
      onDrop={drop}
      onCancel={() => setDrag(null)}
    />
  );
}
