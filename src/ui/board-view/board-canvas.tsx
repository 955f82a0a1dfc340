'use client';
import { useEffect, useMemo, useRef } from 'react';
import { type Picture, shade, tint } from '@/core/arrange/picture';
import type { Grid } from '@/core/field/height-field';
import type { Layout, ViewMode } from '@/ui/board-view/layout';
import type { Surface } from '../job/surface';
import { useDark } from '../theme-switch';
import { themeColour } from './theme-colour';

/** A web map has no ground that may remain. */
const NO_MASK = new Uint8Array(0);

/** A picture as a canvas, to be drawn at any size. */
function canvasOf(image: Picture): HTMLCanvasElement {
  const off = document.createElement('canvas');
  off.width = image.width;
  off.height = image.height;
  off.getContext('2d')?.putImageData(new ImageData(image.data, image.width, image.height), 0, 0);
  return off;
}

/** The board's surface, shaded, with what is marked on it. */
export function BoardCanvas({
  board,
  surface,
  mode,
  layout: { scale, x0, y0, turned },
  width,
  height,
  marked,
}: {
  board: { x: number; y: number; thickness: number; web: number };
  surface: Surface | null;
  mode: ViewMode;
  layout: Layout;
  width: number;
  height: number;
  /** Places that are marked on the board. */
  marked: { grid: Grid; mask: Uint8Array } | null;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [dark] = useDark();
  const { web: least, thickness } = board;
  const picture = useMemo(() => {
    // The theme's colours are read anew when it changes.
    void dark;
    if (!surface || typeof document === 'undefined') return null;
    const colours = { paper: themeColour('--paper'), hatch: themeColour('--hatch') };
    const { web } = surface;
    if (mode === 'web' && web) {
      const { grid, heights, wood } = web;
      return canvasOf(shade({ grid, heights, mask: NO_MASK, web: { wood, least, thickness }, turned, ...colours }));
    }
    const image = shade({
      grid: surface.grid,
      heights: (surface.cut ?? surface.target).data,
      mask: surface.mask,
      thickness,
      turned,
      deviation: mode === 'left over' && surface.deviation ? surface.deviation : undefined,
      ...colours,
    });
    return canvasOf(image);
  }, [surface, mode, dark, least, thickness, turned]);
  const shownMarks = marked ?? surface?.clipped ?? null;
  const marks = useMemo(
    () => (shownMarks && typeof document !== 'undefined' ? canvasOf(tint(shownMarks.grid, shownMarks.mask)) : null),
    [shownMarks],
  );

  useEffect(() => {
    const c = canvas.current;
    if (!c) return;
    const ratio = window.devicePixelRatio || 1;
    c.width = Math.round(width * ratio);
    c.height = Math.round(height * ratio);
    const g = c.getContext('2d');
    if (!g) return;
    g.scale(ratio, ratio);
    g.clearRect(0, 0, width, height);
    if (!picture) return;
    g.imageSmoothingEnabled = true;
    g.imageSmoothingQuality = 'high';
    g.translate(x0, y0);
    if (turned) g.rotate(Math.PI);
    g.drawImage(picture, 0, -board.y * scale, board.x * scale, board.y * scale);
    if (marks) g.drawImage(marks, 0, -board.y * scale, board.x * scale, board.y * scale);
  }, [picture, marks, width, height, x0, y0, turned, scale, board.x, board.y]);
  return <canvas ref={canvas} className="absolute inset-0" style={{ width, height }} aria-hidden />;
}
