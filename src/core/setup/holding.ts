import type { Holding } from '../doc/setup';

/** An upright box by its near left corner, mm on the board. */
export interface HoldingBox {
  x: number;
  y: number;
  width: number;
  depth: number;
}

/** A holding as the box around it. */
export function holdingBox(h: Pick<Holding, 'outline'>): HoldingBox {
  const xs = h.outline.map((p) => p.x);
  const ys = h.outline.map((p) => p.y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, depth: Math.max(...ys) - y };
}

/** The outline of a holding that fills a box. */
export const boxOutline = ({ x, y, width, depth }: HoldingBox): Holding['outline'] => [
  { x, y },
  { x: x + width, y },
  { x: x + width, y: y + depth },
  { x, y: y + depth },
];

/** Holdings that lie under a board and hold every piece of it. */
const UNDER: Holding['kind'][] = ['tape', 'film', 'vacuum'];

/** Whether every piece of a board is held, however it is parted. */
export const heldUnder = (holding: Holding[]): boolean => holding.some((h) => UNDER.includes(h.kind));

/** Tape under the whole of a board, mm. */
export const tapeUnder = (id: string, board: { x: number; y: number }): Holding => ({
  id,
  kind: 'tape',
  outline: boxOutline({ x: 0, y: 0, width: board.x, depth: board.y }),
  height: 0,
  keptFree: 0,
});

/** What a newly entered clamp is like, mm: wide, tall over the board, and kept free around it. */
const CLAMP = { width: 30, height: 15, keptFree: 5 };

/** A clamp on the board's near left corner. */
export const newClamp = (id: string): Holding => ({
  id,
  kind: 'clamp',
  outline: boxOutline({ x: 0, y: 0, width: CLAMP.width, depth: CLAMP.width }),
  height: CLAMP.height,
  keptFree: CLAMP.keptFree,
});
