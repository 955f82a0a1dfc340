'use client';
import { useEffect, useMemo, useRef } from 'react';
import { deviationRange, type Picture, shade, spanOf, tint } from '@/core/arrange/picture';
import type { Grid } from '@/core/field/height-field';
import type { Layout, ViewMode } from '@/ui/board-view/layout';
import type { Surface, Web } from '../job/surface';
import { useDark } from '../theme-switch';
import { themeColour } from './theme-colour';
import type { Part } from './use-part';

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

interface Board {
  long: number;
  wide: number;
  thickness: number;
  web: number;
}

/** Draws a picture of a grid's cells where they lie. */
function drawCells(g: CanvasRenderingContext2D, picture: HTMLCanvasElement, grid: Grid, scale: number): void {
  const { originX, originY, width, height, cell } = grid;
  const [x, y] = [originX - cell / 2, originY - cell / 2];
  g.drawImage(picture, x * scale, -(y + height * cell) * scale, width * cell * scale, height * cell * scale);
}

/** Pictures of a surface and of the part of it that is known more finely, in the same colours. */
function usePictures(
  { web: least, thickness }: Board,
  surface: Surface | null,
  part: Part | null,
  mode: ViewMode,
  turned: boolean,
) {
  const [dark] = useDark();
  const how = useMemo(() => {
    // The theme's colours are read anew when it changes.
    void dark;
    if (!surface || typeof document === 'undefined') return null;
    const { deviation } = surface;
    return {
      span: spanOf((surface.cut ?? surface.target).data, thickness),
      range: mode === 'left over' && deviation ? deviationRange(deviation) : undefined,
      paper: themeColour('--paper'),
      hatch: themeColour('--hatch'),
      thickness,
      turned,
    };
  }, [surface, mode, dark, thickness, turned]);
  const whole = useMemo(() => {
    if (!surface || !how) return null;
    const { web } = surface;
    if (mode === 'web' && web) return canvasOf(shade({ ...how, ...webInput(web, least, thickness), span: undefined }));
    const { range, ...rest } = how;
    const { grid, mask } = surface;
    const heights = (surface.cut ?? surface.target).data;
    const deviation = range === undefined ? undefined : (surface.deviation ?? undefined);
    return canvasOf(shade({ ...rest, range, grid, heights, mask, deviation }));
  }, [surface, how, mode, least, thickness]);
  const near = useMemo(() => {
    if (!part || !how) return null;
    if (part.web) return canvasOf(shade({ ...how, ...webInput(part.web, least, thickness), span: undefined }));
    return canvasOf(
      shade({
        ...how,
        grid: part.grid,
        heights: part.heights,
        mask: part.mask,
        deviation: part.deviation ?? undefined,
      }),
    );
  }, [part, how, least, thickness]);
  return { whole, near };
}

const webInput = ({ grid, heights, wood }: Web, least: number, thickness: number) => ({
  grid,
  heights,
  mask: NO_MASK,
  web: { wood, least, thickness },
});

/** The board's surface, shaded, with what is marked on it; the part of it that is in view as finely as it is known. */
export function BoardCanvas({
  surface,
  part,
  mode,
  layout: { scale, x0, y0, turned },
  width,
  height,
  marked,
  ...board
}: Board & {
  surface: Surface | null;
  part: Part | null;
  mode: ViewMode;
  layout: Layout;
  width: number;
  height: number;
  /** Places that are marked on the board. */
  marked: { grid: Grid; mask: Uint8Array } | null;
}) {
  const { long, wide } = board;
  const canvas = useRef<HTMLCanvasElement>(null);
  const { whole, near } = usePictures(board, surface, part, mode, turned);
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
    if (!whole) return;
    g.imageSmoothingEnabled = true;
    g.imageSmoothingQuality = 'high';
    g.translate(x0, y0);
    if (turned) g.rotate(Math.PI);
    g.drawImage(whole, 0, -wide * scale, long * scale, wide * scale);
    if (near && part) drawCells(g, near, part.grid, scale);
    if (marks) g.drawImage(marks, 0, -wide * scale, long * scale, wide * scale);
  }, [whole, near, part, marks, width, height, x0, y0, turned, scale, long, wide]);
  return <canvas ref={canvas} className="absolute inset-0" style={{ width, height }} aria-hidden />;
}
