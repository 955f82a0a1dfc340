/** What an edge between two cells may hide without being looked at closer, mm along the normal: the proof's own error. */
export const OVERLOOKED = 0.005;

/** How closely the proof of a setup looked. */
export interface EyeFigures {
  /** The proof's own cell, mm. */
  cell: number;
  /** Windows that it looked at with finer cells, and those that would have needed it and were too many. */
  closer: number;
  left: number;
}

/** How closely all parts of a setup were looked at: with the coarsest of their cells. */
export function joinEyes(parts: EyeFigures[]): EyeFigures {
  return {
    cell: Math.max(...parts.map((p) => p.cell)),
    closer: parts.reduce((s, p) => s + p.closer, 0),
    left: parts.reduce((s, p) => s + p.left, 0),
  };
}
