'use client';
import { type PointerEvent as ReactPointerEvent, useState } from 'react';
import type { Layer } from '@/core/doc/layer';
import { curvePoints, movePoint } from '@/core/outline/curve-points';
import { flattenLines, readSvgPath } from '@/core/outline/flatten';
import { type Affine, applyPoint, type Bounds, invertAffine, placing, polygonBounds } from '@/core/outline/polygon';
import type { SetupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';
import { editLayers } from './actions';
import { CurveDrawing } from './curve-drawing';

interface Props {
  layer: Layer;
  px(x: number): number;
  py(y: number): number;
  /** Where a pointer is on the board, mm. */
  place(e: ReactPointerEvent): { x: number; y: number };
  change(edit: (j: SetupView) => void): void;
}

/** More points than these are no longer dragged one by one. */
const MOST = 40;
const FLAT = 0.01;

type Strokes = { kind: 'strokes'; d: string; width: number };

function strokesOf(l: Layer): Strokes | null {
  const o = l.source.kind === 'shape' ? l.source.outline : null;
  return o?.kind === 'strokes' && !/z/i.test(o.d) ? o : null;
}

/** Box of drawn lines, y upwards. */
const boxOf = (d: string): Bounds => polygonBounds(flattenLines(readSvgPath(d), FLAT).map((l) => l.points));

/** From the lines' own frame (y upwards) to the board: they fill the layer's size less the pen's width. */
function frameOf(l: Layer, o: Strokes, b: Bounds): Affine {
  const scale = (long: number, to: number) => (long > 1e-9 ? Math.max(1e-6, to - o.width) / long : 0);
  const [sx, sy] = [scale(b.x1 - b.x0, l.size.x), scale(b.y1 - b.y0, l.size.y)];
  const [kx, ky] = [sx || sy || 1, sy || sx || 1];
  const [a, bb, c, d] = placing(l.mirror ? -kx : kx, ky, l.turn, 0, 0);
  const [mx, my] = [(b.x0 + b.x1) / 2, (b.y0 + b.y1) / 2];
  return [a, bb, c, d, l.centre.x - a * mx - c * my, l.centre.y - bb * mx - d * my];
}

/** Whether a layer's lines can be dragged point by point. */
export const hasStrokePoints = (l: Layer) => {
  const o = strokesOf(l);
  return o !== null && curvePoints(o.d).length <= MOST;
};

/** Drawn lines with their points to be dragged on the board; what is not dragged stays where it is. */
export function StrokeHandles({ layer, px, py, place, change }: Props) {
  const saved = strokesOf(layer);
  const [drag, setDrag] = useState<{ n: number; d: string } | null>(null);
  if (!saved) return null;
  const frame = frameOf(layer, saved, boxOf(saved.d));
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
    change((j) =>
      editLayers(j, [layer.id], (l) => {
        const o = strokesOf(l);
        if (!o) return;
        const [a, b, c, d] = frame;
        const box = boxOf(next);
        const [kx, ky] = [Math.hypot(a, b), Math.hypot(c, d)];
        const [x, y] = applyPoint(frame, (box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2);
        o.d = next;
        l.size = {
          x: clean(Math.max(o.width, (box.x1 - box.x0) * kx + o.width)),
          y: clean(Math.max(o.width, (box.y1 - box.y0) * ky + o.width)),
        };
        l.centre = { x: clean(x), y: clean(y) };
      }),
    );
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
