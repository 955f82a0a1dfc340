import { expose } from 'comlink';
import { type Cells, type Lying, type Marked, type Paint, Painter } from './painter';

let painter: Painter | null = null;
let due = false;

/** Draws once for all that has come since. */
function soon(): Promise<void> {
  return new Promise((drawn) => {
    waiting.push(drawn);
    if (due) return;
    due = true;
    setTimeout(() => {
      due = false;
      painter?.draw();
      for (const tell of waiting.splice(0)) tell();
    });
  });
}
const waiting: (() => void)[] = [];

/** A board from above, drawn beside the page on a canvas of the page. Each call ends when what it brought has been drawn. */
const api = {
  take(canvas: OffscreenCanvas): void {
    painter = new Painter(canvas);
  },
  whole(cells: Cells | null, paint: Paint): Promise<void> {
    painter?.whole(cells, paint);
    return soon();
  },
  near(cells: Cells | null): Promise<void> {
    painter?.near(cells);
    return soon();
  },
  mark(marked: Marked | null): Promise<void> {
    painter?.mark(marked);
    return soon();
  },
  lie(lying: Lying): Promise<void> {
    painter?.lie(lying);
    return soon();
  },
};

export type PaintApi = typeof api;

expose(api);
