import type { SectionLine } from './layout';

/** A line kept on the board by its ends. */
export function kept(board: { x: number; y: number }, s: SectionLine): SectionLine {
  const cx = (v: number) => Math.min(board.x, Math.max(0, v));
  const cy = (v: number) => Math.min(board.y, Math.max(0, v));
  return { x0: cx(s.x0), y0: cy(s.y0), x1: cx(s.x1), y1: cy(s.y1) };
}

/** A line moved whole, as far as the board goes. */
export function shifted(board: { x: number; y: number }, s: SectionLine, dx: number, dy: number): SectionLine {
  const mx = Math.min(Math.max(dx, -Math.min(s.x0, s.x1)), board.x - Math.max(s.x0, s.x1));
  const my = Math.min(Math.max(dy, -Math.min(s.y0, s.y1)), board.y - Math.max(s.y0, s.y1));
  return { x0: s.x0 + mx, y0: s.y0 + my, x1: s.x1 + mx, y1: s.y1 + my };
}
