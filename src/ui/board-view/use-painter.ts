'use client';
import { type Remote, transfer, wrap } from 'comlink';
import { type RefObject, useEffect, useState } from 'react';
import type { PaintApi } from './paint.worker';

/** Wait before a painter that broke down, or could not be loaded, is started again, ms. */
const AGAIN = 2000;

/** A canvas in an element that is drawn on beside the page; null until it is there. */
export function usePainter(
  host: RefObject<HTMLElement | null>,
): { canvas: HTMLCanvasElement; paint: Remote<PaintApi> } | null {
  const [painter, setPainter] = useState<{ canvas: HTMLCanvasElement; paint: Remote<PaintApi> } | null>(null);
  const [started, setStarted] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: each start has its own canvas, for one that was handed over cannot be handed over again
  useEffect(() => {
    if (!host.current) return;
    const canvas = document.createElement('canvas');
    canvas.className = 'absolute inset-0 size-full';
    canvas.ariaHidden = 'true';
    host.current.append(canvas);
    const worker = new Worker(new URL('./paint.worker.ts', import.meta.url), { type: 'module' });
    let again: ReturnType<typeof setTimeout> | undefined;
    worker.addEventListener('error', () => {
      again = setTimeout(() => setStarted((n) => n + 1), AGAIN);
    });
    const paint = wrap<PaintApi>(worker);
    const off = canvas.transferControlToOffscreen();
    void paint.take(transfer(off, [off]));
    setPainter({ canvas, paint });
    return () => {
      clearTimeout(again);
      worker.terminate();
      canvas.remove();
    };
  }, [host, started]);
  return painter;
}
