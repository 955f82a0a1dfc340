'use client';
import { useEffect, useMemo, useRef } from 'react';
import type { Layout, ViewMode } from '@/ui/board-view/layout';
import type { Surface, Web } from '../job/surface';
import { useDark } from '../theme-switch';
import type { Cells, Marked, Paint } from './painter';
import { themeColour } from './theme-colour';
import { usePainter } from './use-painter';
import type { Part } from './use-part';

/** A web map has no ground that may remain. */
const NO_MASK = new Uint8Array(0);

interface Board {
  long: number;
  wide: number;
  thickness: number;
  web: number;
}

const webCells = ({ grid, heights, wood }: Web, { web: least, thickness }: Board): Cells => ({
  grid,
  heights,
  mask: NO_MASK,
  web: { wood, least, thickness },
});

/** What is drawn of a surface. */
function wholeCells({ grid, cut, target, mask, deviation, web }: Surface, mode: ViewMode, board: Board): Cells {
  if (mode === 'web' && web) return webCells(web, board);
  const heights = (cut ?? target).data;
  return { grid, heights, mask, deviation: mode === 'left over' ? (deviation ?? undefined) : undefined };
}

function partCells({ grid, heights, mask, deviation, web }: Part, board: Board): Cells {
  return web ? webCells(web, board) : { grid, heights, mask, deviation: deviation ?? undefined };
}

/** The board's surface, shaded, with what is marked on it; the part of it that is in view as finely as it is known. Drawn beside the page. */
export function BoardCanvas({
  surface,
  part,
  mode,
  layout,
  width,
  height,
  marked,
  long,
  wide,
  thickness,
  web,
}: Board & {
  surface: Surface | null;
  part: Part | null;
  mode: ViewMode;
  layout: Layout;
  width: number;
  height: number;
  /** Places that are marked on the board. */
  marked: Marked | null;
}) {
  const host = useRef<HTMLDivElement>(null);
  const painter = usePainter(host);
  const [dark] = useDark();
  const { turned } = layout;
  const paint = useMemo((): Paint | null => {
    // The theme's colours are read anew when it changes.
    void dark;
    if (typeof document === 'undefined') return null;
    return { paper: themeColour('--paper'), hatch: themeColour('--hatch'), thickness, turned };
  }, [dark, thickness, turned]);

  useEffect(() => {
    void painter?.paint.lie({ layout, width, height, ratio: window.devicePixelRatio || 1, long, wide });
  }, [painter, layout, width, height, long, wide]);
  useEffect(() => {
    if (!painter || !paint) return;
    const cells = surface && wholeCells(surface, mode, { long, wide, thickness, web });
    const drawn = surface ? (surface.proven ? 'proven' : 'layers') : 'nothing';
    void painter.paint.whole(cells, paint).then(() => {
      painter.canvas.dataset.drawn = drawn;
    });
  }, [painter, paint, surface, mode, long, wide, thickness, web]);
  // A part is drawn in the colours of its whole, which has been sent by now; where there was none and is none, nothing is said.
  const whole = part && surface;
  useEffect(() => {
    void whole;
    if (!painter || !paint) return;
    void painter.paint.near(part && partCells(part, { long, wide, thickness, web }));
  }, [painter, paint, whole, part, long, wide, thickness, web]);
  const marks = marked ?? surface?.clipped ?? null;
  useEffect(() => {
    void painter?.paint.mark(marks);
  }, [painter, marks]);
  return <div ref={host} className="absolute inset-0" aria-hidden />;
}
