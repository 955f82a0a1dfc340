'use client';
import { useEffect, useRef } from 'react';
import { Arrangement } from '@/core/arrange/engine';
import { newShape } from '@/core/arrange/new-layer';
import { type Picture, shade } from '@/core/arrange/picture';
import { MASK } from '@/core/arrange/target';
import { boardGrid } from '@/core/field/height-field';
import { themeColour } from '../board-view/theme-colour';
import { useDark } from '../theme-switch';
import type { Entry } from './shape-entries';

/** The board that shapes are shown on, mm, and the cell of their pictures. */
const BOARD = { x: 90, y: 66 };
const CELL = 1;
/** How large widths and pitches are on it, which are made for boards three times as wide. */
const SMALLER = 0.5;

/** The numbers of a form for a small board. */
const smaller = <T extends object>(of: T): T =>
  Object.fromEntries(
    Object.entries(of).map(([k, v]) => [
      k,
      typeof v === 'number' && !['ribs', 'seed', 'lobes', 'count', 'sides'].includes(k) ? v * SMALLER : v,
    ]),
  ) as T;

/** A shape as it would lie on an empty board, seen from above. */
function pictureOf([name, outline, relief, share, edge]: Entry): Picture {
  const layer = newShape({ id: name, name }, smaller(outline), smaller(relief), BOARD, {
    share,
    edge: edge && smaller(edge),
  });
  const grid = boardGrid(BOARD.x, BOARD.y, CELL);
  const a = new Arrangement(grid, () => ({}));
  a.update([layer], { mode: 'raised', skin: 0, drop: 0, press: null });
  return shade({
    grid,
    // The highest lies at the board's top.
    heights: a.surface.z.map((z) => z - layer.rise),
    mask: Uint8Array.from(a.surface.cover, (c) => (c ? MASK.cut : MASK.waste)),
    paper: themeColour('--paper'),
    hatch: themeColour('--paper'),
  });
}

/** A small picture of a shape that can be added. */
export function EntryPicture({ entry }: { entry: Entry }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [dark] = useDark();
  useEffect(() => {
    // The theme's colours are read anew when it changes.
    void dark;
    const p = pictureOf(entry);
    canvas.current?.getContext('2d')?.putImageData(new ImageData(p.data, p.width, p.height), 0, 0);
  }, [entry, dark]);
  return (
    <canvas
      ref={canvas}
      width={BOARD.x / CELL}
      height={BOARD.y / CELL}
      className="h-9 w-12 shrink-0 rounded border border-base-300"
      aria-hidden
    />
  );
}
