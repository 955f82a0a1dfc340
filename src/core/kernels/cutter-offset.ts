import { AIR, type HeightField } from '../field/height-field';
import { kernels, layOut } from './wasm';

/** Rows worked on at a time: bounds the kernels' memory to about (band + 2 R) rows whatever the field's size. */
const BAND = 256;
const BIG = 1e30;

const up = (n: number, to: number) => Math.ceil(n / to) * to;

/** How rows lie in the kernels' memory for a cutter of this radius: R in cells, the rest in floats a row. */
function rowLayout(f: HeightField, radius: number) {
  const R = Math.floor(radius / f.cell + 1e-6);
  const width16 = up(f.width, 16);
  const pad = up(R + 40, 8);
  const stride = width16 + 2 * pad;
  return { R, width16, pad, stride, nb: stride >> 3, tStride: up(R + 1, 32) + 32 };
}

/** Source rows y0 - R .. y1 + R of `f`, air outside, each padded by `pad` floats either side, copied to memory at `at`. */
function copyBand(f: HeightField, y0: number, y1: number, R: number, pad: number, stride: number, at: number) {
  const view = new Float32Array(kernels().memory.buffer, at, (y1 - y0 + 2 * R) * stride);
  view.fill(AIR);
  for (let y = Math.max(0, y0 - R); y < Math.min(f.height, y1 + R); y++) {
    view.set(f.data.subarray(y * f.width, (y + 1) * f.width), (y - y0 + R) * stride + pad);
  }
}

/**
 * Highest safe tip position, CL(x, y) = max over |d| <= radius of h(x + d) - t(|d|), on the cells' centres; what lies
 * outside the field is air. Grey dilation by the cutter's profile; equal to the definition within float rounding.
 * @param profile height of the cutter above its tip at distance r from its axis (mm), not decreasing in r
 * @param rows rows of the field to work out, all when absent
 * @returns CL for those rows, `width` floats a row
 */
export function cutterOffset(
  f: HeightField,
  radius: number,
  profile: (r: number) => number,
  rows: [number, number] = [0, f.height],
): Float32Array {
  const k = kernels();
  const { R, width16, pad, stride, nb, tStride } = rowLayout(f, radius);
  const band = Math.min(BAND, rows[1] - rows[0]);
  const [src, blocks, table, scratch, dst] = layOut([
    (band + 2 * R) * stride * 4,
    (band + 2 * R) * nb * 4,
    (R + 1) * tStride * 4,
    stride * 4 + nb * 16,
    band * width16 * 4,
  ]);
  const t = new Float32Array(k.memory.buffer, table, (R + 1) * tStride).fill(BIG);
  for (let dy = 0; dy <= R; dy++) {
    for (let dx = 0; dx <= R; dx++) {
      const r = Math.hypot(dx, dy) * f.cell;
      if (r <= radius + 1e-6 * f.cell) t[dy * tStride + dx] = profile(Math.min(r, radius));
    }
  }
  const out = new Float32Array((rows[1] - rows[0]) * f.width);
  for (let y0 = rows[0]; y0 < rows[1]; y0 += band) {
    const y1 = Math.min(rows[1], y0 + band);
    copyBand(f, y0, y1, R, pad, stride, src);
    k.blockMax8(src, (y1 - y0 + 2 * R) * nb, blocks);
    k.offsetBand(src, blocks, table, scratch, dst, stride, pad, width16, y1 - y0, R, tStride);
    const view = new Float32Array(k.memory.buffer, dst, band * width16);
    for (let y = y0; y < y1; y++) {
      out.set(view.subarray((y - y0) * width16, (y - y0) * width16 + f.width), (y - rows[0]) * f.width);
    }
  }
  return out;
}

/**
 * The same for a flat end: the highest cell within `radius`, by window maxima of doubling length.
 * @returns the maxima for the rows asked for, `width` floats a row
 */
export function flatOffset(f: HeightField, radius: number, rows: [number, number] = [0, f.height]): Float32Array {
  const k = kernels();
  const R = Math.floor(radius / f.cell + 1e-6);
  const width16 = up(f.width, 16);
  const pad = up(R + 8, 8);
  const stride = width16 + 2 * pad;
  const half = new Int32Array(2 * R + 1);
  for (let dy = -R; dy <= R; dy++) {
    half[dy + R] = Math.floor(Math.sqrt(Math.max(0, (radius / f.cell + 1e-6) ** 2 - dy * dy)));
  }
  const levels = 32 - Math.clz32(2 * R + 1);
  const band = Math.min(BAND, rows[1] - rows[0]);
  const [src, maxima, halfAt, dst] = layOut([
    (band + 2 * R) * stride * 4,
    (band + 2 * R) * levels * stride * 4,
    half.byteLength,
    band * width16 * 4,
  ]);
  new Int32Array(k.memory.buffer, halfAt, half.length).set(half);
  const out = new Float32Array((rows[1] - rows[0]) * f.width);
  for (let y0 = rows[0]; y0 < rows[1]; y0 += band) {
    const y1 = Math.min(rows[1], y0 + band);
    copyBand(f, y0, y1, R, pad, stride, src);
    for (let j = 0; j < y1 - y0 + 2 * R; j++) {
      k.rowMaxima(src + j * stride * 4, stride, levels, maxima + j * levels * stride * 4);
    }
    k.flatBand(maxima, halfAt, dst, stride, pad, width16, y1 - y0, R, levels);
    const view = new Float32Array(k.memory.buffer, dst, band * width16);
    for (let y = y0; y < y1; y++) {
      out.set(view.subarray((y - y0) * width16, (y - y0) * width16 + f.width), (y - rows[0]) * f.width);
    }
  }
  return out;
}

/** Lines worked on at a time by lineOffset. */
const LINES = 64;

/**
 * The cutter offset along lines parallel to x that need not lie on the rows of cells: exact there, with nothing
 * interpolated between rows. Columns are the field's own.
 * @param ys the lines' y, mm, ascending
 * @returns `width` floats a line
 */
export function lineOffset(
  f: HeightField,
  radius: number,
  profile: (r: number) => number,
  ys: Float64Array,
): Float32Array {
  const k = kernels();
  const { R, width16, pad, stride, nb, tStride } = rowLayout(f, radius);
  const near = 2 * R + 2;
  const out = new Float32Array(ys.length * f.width);
  for (let l0 = 0; l0 < ys.length; l0 += LINES) {
    const lines = Math.min(LINES, ys.length - l0);
    const v = Array.from(ys.subarray(l0, l0 + lines), (y) => (y - f.originY) / f.cell);
    const y0 = Math.floor(v[0]);
    const y1 = Math.floor(v[lines - 1]) + 2;
    const rows = y1 - y0 + 2 * R;
    const [src, blocks, s3, s6, rowAt, tables, dst] = layOut([
      rows * stride * 4,
      rows * nb * 4,
      rows * nb * 4,
      rows * nb * 4,
      lines * near * 4,
      lines * near * tStride * 4,
      lines * width16 * 4,
    ]);
    copyBand(f, y0, y1, R, pad, stride, src);
    k.blockMax8(src, rows * nb, blocks);
    k.slideRows(blocks, nb, rows, s3, s6);
    const index = new Int32Array(k.memory.buffer, rowAt, lines * near);
    const t = new Float32Array(k.memory.buffer, tables, lines * near * tStride).fill(BIG);
    for (let l = 0; l < lines; l++) {
      const nearest = Math.round(v[l]);
      for (let i = 0; i < near; i++) {
        // Outwards from the nearest row: 0, 1, -1, 2, -2 ...
        const side = (v[l] >= nearest ? 1 : -1) * (i % 2 === 1 ? 1 : -1);
        const row = nearest + side * Math.ceil(i / 2);
        const at = l * near + i;
        index[at] = Math.min(Math.max(row - y0 + R, 0), rows - 1);
        const dy = row - v[l];
        for (let dx = 0; dx <= R; dx++) {
          const r = Math.hypot(dx, dy) * f.cell;
          if (r <= radius + 1e-6 * f.cell) t[at * tStride + dx] = profile(Math.min(r, radius));
        }
      }
    }
    k.offsetLines(src, s3, s6, rowAt, tables, dst, stride, pad, width16, lines, near, R, tStride);
    const view = new Float32Array(k.memory.buffer, dst, lines * width16);
    for (let l = 0; l < lines; l++) out.set(view.subarray(l * width16, l * width16 + f.width), (l0 + l) * f.width);
  }
  return out;
}
