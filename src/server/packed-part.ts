import { closeSync, openSync, readSync } from 'node:fs';
import type { Grid } from '../core/field/height-field';
import { type Thin, thinly } from '../core/field/thin';
import { headEnd, packedIn, packStage } from '../core/plan/pack';
import { cellsAlong } from '../core/plan/view';

/** A part of a board, or a line across it from its first place to its second, mm. */
export interface Box {
  x0: number;
  y0: number;
  x1: number;
  y1: number;
}

/** Some bytes of an open file. */
export function bytesAt(fd: number, at: number, length: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(length);
  let got = 0;
  while (got < length) {
    const n = readSync(fd, bytes, got, length - got, at + got);
    if (n === 0) throw new Error('the file ends too early');
    got += n;
  }
  return bytes;
}

/** Of one array of a file what lies on some of its grid's cells: row by row, so that no more than a row is in memory. */
function rowsOf(fd: number, array: ReturnType<typeof packedIn>['arrays'][number], g: Grid, { i, j, step, grid }: Thin) {
  const { width, height } = grid;
  const { make } = array;
  const size = make.BYTES_PER_ELEMENT;
  const out = new make(width * height);
  const span = (width - 1) * step + 1;
  for (let b = 0; b < height; b++) {
    const from = (j + b * step) * g.width + i;
    const row = new make(bytesAt(fd, array.at + from * size, span * size).buffer);
    for (let a = 0; a < width; a++) out[b * width + a] = row[a * step];
  }
  return out;
}

/** Does something with a packed file of surfaces: its grid, and its arrays that are not empty. */
function opened<T>(file: string, use: (fd: number, g: Grid, arrays: ReturnType<typeof packedIn>['arrays']) => T): T {
  const fd = openSync(file, 'r');
  try {
    const { meta, arrays } = packedIn(bytesAt(fd, 0, headEnd(bytesAt(fd, 0, 8))));
    const filled = arrays.filter((a) => a.length > 0);
    return use(fd, (meta as { grid: Grid }).grid, filled);
  } finally {
    closeSync(fd);
  }
}

/**
 * Arrays of a packed file of surfaces over a part of their grid, packed again; those that it has not are left out.
 * @param most cells along the longer side
 */
export const packedPart = (file: string, names: readonly string[], box: Box, most: number): Uint8Array[] =>
  opened(file, (fd, g, arrays) => {
    const some = thinly(g, most, box);
    const wanted = arrays.filter((a) => names.includes(a.name));
    return packStage({
      meta: { grid: some.grid },
      arrays: Object.fromEntries(wanted.map((a) => [a.name, rowsOf(fd, a, g, some)])),
    });
  });

/** Heights of a packed file's surfaces along a line at `n` even steps, by their names; only what lies along it is read. */
export const packedSection = (file: string, names: readonly string[], line: Box, n: number): Record<string, number[]> =>
  opened(file, (fd, g, arrays) => {
    const cells = cellsAlong(g, line, n);
    const wanted = arrays.filter((a) => names.includes(a.name));
    return Object.fromEntries(wanted.map((a) => [a.name, readCells(fd, a.at, g.width, cells)]));
  });

/** Single cells of an array of heights: those that follow each other in one row in one go. */
function readCells(fd: number, at: number, width: number, cells: Int32Array): number[] {
  const out: number[] = [];
  for (let s = 0; s < cells.length; ) {
    const row = Math.floor(cells[s] / width);
    let e = s;
    let [low, high] = [cells[s], cells[s]];
    while (e < cells.length && Math.floor(cells[e] / width) === row) {
      low = Math.min(low, cells[e]);
      high = Math.max(high, cells[e]);
      e++;
    }
    const values = new Float32Array(bytesAt(fd, at + 4 * low, 4 * (high - low + 1)).buffer);
    for (; s < e; s++) out.push(values[cells[s] - low]);
  }
  return out;
}
