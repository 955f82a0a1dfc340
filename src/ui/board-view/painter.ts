import { deviationRange, type Picture, type ShadeInput, shade, spanOf, tint } from '@/core/arrange/picture';
import type { Grid } from '@/core/field/height-field';
import type { Layout } from './layout';

/** Cells of a board from above: their heights, and what colours them in place of depth. */
export type Cells = Pick<ShadeInput, 'grid' | 'heights' | 'mask' | 'deviation' | 'web'>;

/** How all cells of a board are shaded. */
export type Paint = Required<Pick<ShadeInput, 'thickness' | 'turned' | 'paper' | 'hatch'>>;

/** Cells that are marked. */
export interface Marked {
  grid: Grid;
  mask: Uint8Array;
}

/** Where a board lies on a canvas: in pixels of the page, of which each is so many of the canvas. */
export interface Lying {
  layout: Layout;
  width: number;
  height: number;
  ratio: number;
  /** The board's size, mm. */
  long: number;
  wide: number;
}

/** A picture as a canvas, to be drawn at any size. */
function canvasOf({ width, height, data }: Picture): OffscreenCanvas {
  const off = new OffscreenCanvas(width, height);
  off.getContext('2d')?.putImageData(new ImageData(data, width, height), 0, 0);
  return off;
}

/** Draws a board from above on a canvas: all of it, over that the part which is known more finely, over both what is marked. */
export class Painter {
  private shaded: (Paint & { span: number; range: number }) | null = null;
  private all: OffscreenCanvas | null = null;
  private part: { picture: OffscreenCanvas; grid: Grid } | null = null;
  private marks: OffscreenCanvas | null = null;
  private lying: Lying | null = null;

  constructor(private readonly canvas: OffscreenCanvas) {}

  /** The whole board; null takes it away. */
  whole(cells: Cells | null, paint: Paint): void {
    if (!cells) {
      this.shaded = null;
      this.all = null;
      return;
    }
    const { heights, deviation } = cells;
    const range = deviation ? deviationRange(deviation) : 1;
    this.shaded = { ...paint, span: spanOf(heights, paint.thickness), range };
    this.all = canvasOf(shade({ ...this.shaded, ...cells }));
  }

  /** A part of it, in the colours of the whole; null takes it away. */
  near(cells: Cells | null): void {
    this.part =
      cells && this.shaded ? { picture: canvasOf(shade({ ...this.shaded, ...cells })), grid: cells.grid } : null;
  }

  mark(marked: Marked | null): void {
    this.marks = marked && canvasOf(tint(marked.grid, marked.mask));
  }

  lie(lying: Lying): void {
    this.lying = lying;
  }

  /** Draws all of that anew. */
  draw(): void {
    const g = this.canvas.getContext('2d');
    if (!g || !this.lying) return;
    const { layout, width, height, ratio, long, wide } = this.lying;
    const { scale, x0, y0, turned } = layout;
    // Another size empties a canvas, and costs more than emptying it.
    const [w, h] = [Math.round(width * ratio), Math.round(height * ratio)];
    if (this.canvas.width !== w) this.canvas.width = w;
    if (this.canvas.height !== h) this.canvas.height = h;
    g.setTransform(ratio, 0, 0, ratio, 0, 0);
    g.clearRect(0, 0, width, height);
    if (!this.all) return;
    g.imageSmoothingEnabled = true;
    g.imageSmoothingQuality = 'high';
    g.translate(x0, y0);
    if (turned) g.rotate(Math.PI);
    const board = [0, -wide * scale, long * scale, wide * scale] as const;
    g.drawImage(this.all, ...board);
    if (this.part) {
      const { originX, originY, width: n, height: m, cell } = this.part.grid;
      const [x, y] = [originX - cell / 2, originY - cell / 2];
      g.drawImage(this.part.picture, x * scale, -(y + m * cell) * scale, n * cell * scale, m * cell * scale);
    }
    if (this.marks) g.drawImage(this.marks, ...board);
  }
}
