'use client';
import { useQuery } from '@tanstack/react-query';
import { type PointerEvent as ReactPointerEvent, useState } from 'react';
import { bendWords, boardToCurve, curveToBoard } from '@/core/arrange/kinds/words/curve';
import { curvePoints, movePoint } from '@/core/outline/curve-points';
import { editKind } from '../actions';
import { CurveDrawing } from '../curve-drawing';
import { arranged } from '../use-arrangement';
import type { HandlesProps } from './kind-fields';

/** The free curve that words run on, drawn over them, with its points to be dragged; the rest of the curve stays where it is. */
export function CurveHandles({ layer, px, py, place, change }: HandlesProps<'words'>) {
  const { words } = layer.source;
  const saved = words.line.kind === 'curve' ? words.line.d : null;
  const measured = useQuery({
    queryKey: ['measured', words],
    queryFn: () => arranged('quick', (a) => a.measure(words)),
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [drag, setDrag] = useState<{ n: number; d: string } | null>(null);
  const origin = measured.data?.origin;
  if (saved === null || !origin) return null;
  const points = curvePoints(drag?.d ?? saved).map((p) => {
    const { x, y } = curveToBoard(layer, origin, p);
    return { ...p, x: px(x), y: py(y) };
  });

  const move = (e: ReactPointerEvent) => {
    if (!drag) return;
    const { x, y } = boardToCurve(layer, origin, place(e));
    setDrag({ n: drag.n, d: movePoint(saved, drag.n, x, y) });
  };
  const drop = async () => {
    if (!drag) return;
    const next = { ...words, line: { kind: 'curve' as const, d: drag.d } };
    try {
      if (drag.d === saved) return;
      const now = await arranged('quick', (a) => a.measure(next));
      change((j) => editKind(j, layer.id, 'words', (l) => bendWords(l, next, origin, now)));
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
