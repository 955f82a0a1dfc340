'use client';
import { type PointerEvent as ReactPointerEvent, useEffect, useState } from 'react';
import type { Layer, WordsSource } from '@/core/doc/layer';
import { curvePoints, movePoint } from '@/core/outline/curve-points';
import { applyPoint, placing } from '@/core/outline/polygon';
import type { SetupView } from '@/core/setup/view';
import { clean } from '@/core/units/round';
import { editLayers } from './actions';
import { CurveDrawing } from './curve-drawing';
import { arranger } from './use-arrangement';

interface Props {
  layer: Layer;
  px(x: number): number;
  py(y: number): number;
  /** Where a pointer is on the board, mm. */
  place(e: ReactPointerEvent): { x: number; y: number };
  change(edit: (j: SetupView) => void): void;
}

/** From words' own frame (their layout, y up) to the board. */
const frameOf = (l: Layer) => placing(l.mirror ? -1 : 1, 1, l.turn, l.centre.x, l.centre.y);

/** The free curve that words run on, drawn over them, with its points to be dragged; the rest of the curve stays where it is. */
export function CurveHandles({ layer, px, py, place, change }: Props) {
  const { words } = layer.source as WordsSource;
  const saved = words.line.kind === 'curve' ? words.line.d : null;
  const [origin, setOrigin] = useState<{ x: number; y: number } | null>(null);
  const [drag, setDrag] = useState<{ n: number; d: string } | null>(null);
  useEffect(() => {
    let here = true;
    setOrigin(null);
    void arranger()
      .measure(words)
      .then(
        (m) => here && setOrigin(m.origin),
        () => {},
      );
    return () => {
      here = false;
    };
  }, [words]);
  if (saved === null || !origin) return null;
  const d = drag?.d ?? saved;
  const frame = frameOf(layer);
  const onBoard = (p: { x: number; y: number }) => {
    const [x, y] = applyPoint(frame, p.x + origin.x, origin.y - p.y);
    return { x: px(x), y: py(y) };
  };
  const points = curvePoints(d).map((p) => ({ ...p, ...onBoard(p) }));

  const move = (e: ReactPointerEvent) => {
    if (!drag) return;
    const p = place(e);
    const a = (layer.turn * Math.PI) / 180;
    const [bx, by] = [p.x - layer.centre.x, p.y - layer.centre.y];
    const u = (bx * Math.cos(a) + by * Math.sin(a)) * (layer.mirror ? -1 : 1);
    const v = -bx * Math.sin(a) + by * Math.cos(a);
    setDrag({ n: drag.n, d: movePoint(saved, drag.n, u - origin.x, origin.y - v) });
  };
  const drop = async () => {
    if (!drag) return;
    const next = { ...words, line: { kind: 'curve' as const, d: drag.d } };
    try {
      if (drag.d === saved) return;
      const m = await arranger().measure(next);
      change((j) =>
        editLayers(j, [layer.id], (l) => {
          // The curve stays where it is on the board: what moves is the middle of the letters' box.
          const [x0, y0] = applyPoint(frameOf(l), origin.x, origin.y);
          const [x1, y1] = applyPoint(frameOf(l), m.origin.x, m.origin.y);
          l.centre = { x: clean(l.centre.x + x0 - x1), y: clean(l.centre.y + y0 - y1) };
          l.size = { x: clean(m.size.x), y: clean(m.size.y) };
          (l.source as WordsSource).words = next;
        }),
      );
    } catch {
      // A curve that cannot carry the words is let go: the last one stays.
    } finally {
      setDrag(null);
    }
  };
  return (
    <CurveDrawing
      points={points}
      onStart={(n) => setDrag({ n, d: saved })}
      onMove={move}
      onDrop={() => void drop()}
      onCancel={() => setDrag(null)}
    />
  );
}
