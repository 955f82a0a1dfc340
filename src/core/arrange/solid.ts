import type { Grid } from '../field/height-field';

/** Squares of a grid between four cells that belong to a solid, without two that touch in a corner only. */
function squaresOf(cover: Uint8Array, width: number, height: number): Uint8Array {
  const w = width - 1;
  const out = new Uint8Array(w * (height - 1));
  for (let j = 0; j + 1 < height; j++) {
    for (let i = 0; i < w; i++) {
      const k = j * width + i;
      if (cover[k] && cover[k + 1] && cover[k + width] && cover[k + width + 1]) out[j * w + i] = 1;
    }
  }
  // A corner shared by two squares and no more would make an edge of four faces: one of the squares goes.
  for (let again = true; again; ) {
    again = false;
    for (let j = 0; j + 2 < height; j++) {
      for (let i = 0; i + 1 < w; i++) {
        const a = out[j * w + i];
        const b = out[j * w + i + 1];
        const c = out[(j + 1) * w + i];
        const d = out[(j + 1) * w + i + 1];
        if ((a && d && !b && !c) || (b && c && !a && !d)) {
          out[a ? j * w + i : j * w + i + 1] = 0;
          again = true;
        }
      }
    }
  }
  return out;
}

/**
 * A closed solid of a surface: its heights at the cells' middles joined by two triangles a square, walls down from its border,
 * and a flat back. Every edge has two triangles.
 * @param cover cells that belong to it
 * @param back height of the flat back, mm; below all of the surface
 * @returns nine floats a triangle, mm, faces looking outwards; empty when no square belongs to it
 */
export function solidOf(grid: Grid, z: Float32Array, cover: Uint8Array, back: number): Float32Array {
  const { width, height, cell, originX, originY } = grid;
  const squares = squaresOf(cover, width, height);
  const w = width - 1;
  const has = (i: number, j: number) => i >= 0 && j >= 0 && i < w && j < height - 1 && squares[j * w + i] === 1;
  let count = 0;
  let walls = 0;
  for (let j = 0; j + 1 < height; j++) {
    for (let i = 0; i < w; i++) {
      if (!squares[j * w + i]) continue;
      count++;
      for (const [a, b] of [
        [i, j - 1],
        [i + 1, j],
        [i, j + 1],
        [i - 1, j],
      ])
        if (!has(a, b)) walls++;
    }
  }
  const out = new Float32Array((count * 4 + walls * 2) * 9);
  let n = 0;
  const put = (i: number, j: number, top: boolean) => {
    out[n++] = originX + i * cell;
    out[n++] = originY + j * cell;
    out[n++] = top ? z[j * width + i] : back;
  };
  const wall = (ai: number, aj: number, bi: number, bj: number) => {
    put(ai, aj, false);
    put(bi, bj, false);
    put(bi, bj, true);
    put(ai, aj, false);
    put(bi, bj, true);
    put(ai, aj, true);
  };
  for (let j = 0; j + 1 < height; j++) {
    for (let i = 0; i < w; i++) {
      if (!squares[j * w + i]) continue;
      put(i, j, true);
      put(i + 1, j, true);
      put(i + 1, j + 1, true);
      put(i, j, true);
      put(i + 1, j + 1, true);
      put(i, j + 1, true);
      put(i, j, false);
      put(i + 1, j + 1, false);
      put(i + 1, j, false);
      put(i, j, false);
      put(i, j + 1, false);
      put(i + 1, j + 1, false);
      if (!has(i, j - 1)) wall(i, j, i + 1, j);
      if (!has(i + 1, j)) wall(i + 1, j, i + 1, j + 1);
      if (!has(i, j + 1)) wall(i + 1, j + 1, i, j + 1);
      if (!has(i - 1, j)) wall(i, j + 1, i, j);
    }
  }
  return out;
}

/** Every `step`-th cell of a surface, so that a model of it stays small; the outermost rows are kept. */
export function thinSurface(
  grid: Grid,
  z: Float32Array,
  cover: Uint8Array,
  step: number,
): { grid: Grid; z: Float32Array; cover: Uint8Array } {
  const width = Math.max(2, Math.floor((grid.width - 1) / step) + 1);
  const height = Math.max(2, Math.floor((grid.height - 1) / step) + 1);
  const out = {
    grid: { ...grid, width, height, cell: grid.cell * step },
    z: new Float32Array(width * height),
    cover: new Uint8Array(width * height),
  };
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const k = Math.min(grid.height - 1, j * step) * grid.width + Math.min(grid.width - 1, i * step);
      out.z[j * width + i] = z[k];
      out.cover[j * width + i] = cover[k];
    }
  }
  return out;
}
