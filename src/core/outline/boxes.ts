import type { Bounds } from './polygon';

/** A box with so much more on every side, mm. */
export const growBox = (b: Bounds, by: number): Bounds => ({
  x0: b.x0 - by,
  y0: b.y0 - by,
  x1: b.x1 + by,
  y1: b.y1 + by,
});

/** What of a box lies on a board with its corner at 0, 0; null where nothing does. */
export function clipBox(b: Bounds, board: { x: number; y: number }): Bounds | null {
  const out = {
    x0: Math.max(0, b.x0),
    y0: Math.max(0, b.y0),
    x1: Math.min(board.x, b.x1),
    y1: Math.min(board.y, b.y1),
  };
  return out.x0 < out.x1 && out.y0 < out.y1 ? out : null;
}

/** Boxes of which none lies nearer than `apart` mm to another: those that do are replaced by the box around them, again and again. */
export function joinBoxes(boxes: Bounds[], apart: number): Bounds[] {
  const out: Bounds[] = [];
  for (const next of boxes) {
    let box = next;
    for (let i = 0; i < out.length; ) {
      const b = out[i];
      if (b.x0 >= box.x1 + apart || box.x0 >= b.x1 + apart || b.y0 >= box.y1 + apart || box.y0 >= b.y1 + apart) {
        i++;
        continue;
      }
      box = {
        x0: Math.min(b.x0, box.x0),
        y0: Math.min(b.y0, box.y0),
        x1: Math.max(b.x1, box.x1),
        y1: Math.max(b.y1, box.y1),
      };
      out.splice(i, 1);
      // A larger box may reach one that was clear of it.
      i = 0;
    }
    out.push(box);
  }
  return out;
}
