/** A line across the board, mm; what the depth strip shows. */
export interface SectionLine {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** How the board lies in the view: pixels a mm, and the board's lower left corner in pixels. */
export interface Layout {
  scale: number;
  left: number;
  bottom: number;
}

export type ViewMode = 'plan' | 'turn' | 'left over' | 'web';
