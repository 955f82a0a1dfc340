/** A line across the board, mm; what the depth strip shows. */
export interface SectionLine {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** How the board lies in the view: pixels a mm, and where its near left corner lies, in pixels. */
export interface Layout {
  scale: number;
  x0: number;
  y0: number;
  /** Half a turn round: as the piece is seen, where it lies upside down on the machine. */
  turned: boolean;
}

interface Place {
  x: number;
  y: number;
}

/** The board as large as fits into a room of so many pixels, with as much free around it. */
export function fitted(room: { width: number; height: number }, pad: number, board: Place, turned: boolean): Layout {
  const scale = Math.max(0.01, Math.min((room.width - 2 * pad) / board.x, (room.height - 2 * pad) / board.y));
  const half = turned ? -scale / 2 : scale / 2;
  return { scale, x0: room.width / 2 - board.x * half, y0: room.height / 2 + board.y * half, turned };
}

/** Between mm on the board and pixels in the view. */
export function onScreen({ scale, x0, y0, turned }: Layout) {
  const k = turned ? -scale : scale;
  return {
    px: (x: number) => x0 + x * k,
    py: (y: number) => y0 - y * k,
    place: (x: number, y: number): Place => ({ x: (x - x0) / k, y: (y0 - y) / k }),
  };
}

/** Where the pointer is, in pixels from the corner of what lies inside of an element's border. */
export function pointerOn(element: Element, e: { clientX: number; clientY: number }): [number, number] {
  const r = element.getBoundingClientRect();
  return [e.clientX - r.left - element.clientLeft, e.clientY - r.top - element.clientTop];
}

/** A way in the view, right and up, as a way on the board. */
export const wayOnBoard = ({ turned }: Pick<Layout, 'turned'>, [x, y]: [number, number]): [number, number] =>
  turned ? [-x, -y] : [x, y];

export type ViewMode = 'plan' | 'turn' | 'left over' | 'web';
