import type { Grid } from './height-field';

/** Parts of a grid whose cells are joined side by side; cells that touch by a corner are not. */
export interface Pieces {
  /** The part of every cell, from 0; -1 where there is none. */
  of: Int32Array;
  /** Cells of each part, and its first cell from the near left. */
  parts: { cells: number; first: number }[];
}

/** The parts of the cells where `stands` is not 0: runs of a row joined with those of the row before (union-find). */
export function piecesOf(stands: Uint8Array, { width, height }: Pick<Grid, 'width' | 'height'>): Pieces {
  const of = new Int32Array(stands.length).fill(-1);
  const parent: number[] = [];
  const root = (a: number) => {
    let r = a;
    while (parent[r] !== r) {
      parent[r] = parent[parent[r]];
      r = parent[r];
    }
    return r;
  };
  for (let j = 0; j < height; j++) {
    const row = j * width;
    for (let i = 0; i < width; i++) {
      if (!stands[row + i]) continue;
      const run = parent.length;
      parent.push(run);
      let joined = -1;
      for (; i < width && stands[row + i]; i++) {
        of[row + i] = run;
        const below = j > 0 ? of[row + i - width] : -1;
        // The cells of a run below it are one already.
        if (below < 0 || below === joined) continue;
        joined = below;
        const a = root(below);
        const b = root(run);
        parent[Math.max(a, b)] = Math.min(a, b);
      }
    }
  }
  const parts: Pieces['parts'] = [];
  const named = new Int32Array(parent.length).fill(-1);
  for (let k = 0; k < of.length; k++) {
    const run = of[k];
    if (run < 0) continue;
    if (named[run] < 0) {
      const r = root(run);
      if (named[r] < 0) {
        named[r] = parts.length;
        parts.push({ cells: 0, first: k });
      }
      named[run] = named[r];
    }
    of[k] = named[run];
    parts[named[run]].cells++;
  }
  return { of, parts };
}
