import type { Layer } from '../doc/layer';
import { AIR, makeField } from '../field/height-field';
import { type Affine, invertAffine } from '../outline/polygon';
import { BELOW, boxIn, type DrawingGrid, type Piece, windowGrid, windowOf } from './window';

interface Picture {
  width: number;
  height: number;
  values: Float32Array;
}

/** Smaller copies of pictures, kept as long as the picture itself. */
const SMALLER = new WeakMap<Float32Array, Picture>();

/** A picture of half the size: each pixel the mean of four, what is left out left out where it is most. */
function halved(p: Picture): Picture {
  const had = SMALLER.get(p.values);
  if (had) return had;
  const width = Math.max(1, p.width >> 1);
  const height = Math.max(1, p.height >> 1);
  const values = new Float32Array(width * height);
  for (let j = 0; j < height; j++) {
    const r0 = Math.min(p.height - 1, 2 * j) * p.width;
    const r1 = Math.min(p.height - 1, 2 * j + 1) * p.width;
    for (let i = 0; i < width; i++) {
      const c0 = Math.min(p.width - 1, 2 * i);
      const c1 = Math.min(p.width - 1, 2 * i + 1);
      let sum = 0;
      let n = 0;
      let out = 0;
      for (let q = 0; q < 4; q++) {
        const v = p.values[(q < 2 ? r0 : r1) + (q % 2 === 0 ? c0 : c1)];
        if (v < 0) out = v;
        else {
          sum += v;
          n++;
        }
      }
      values[j * width + i] = n >= 2 ? sum / n : out;
    }
  }
  const small = { width, height, values };
  SMALLER.set(p.values, small);
  return small;
}

/**
 * A picture stretched over the layer's box, bilinear between pixels. Where pixels are finer than cells their mean is taken, so
 * that nothing aliases: from a smaller copy first, then over the cell.
 * @param sampled a mesh seen from above is read at the cells' middles, as its exact rasterisation is
 * @param up whether its first row is the southernmost
 */
export function picturePiece(
  pic: Picture,
  l: Layer,
  frame: Affine,
  grid: DrawingGrid,
  ground: boolean,
  sampled: boolean,
  up: boolean,
): Piece {
  const box = boxIn(frame, l.size.x, l.size.y);
  const window = windowOf(grid, box.x0, box.y0, box.x1, box.y1);
  const g = windowGrid(grid, window);
  const heights = makeField(g, AIR).data;
  let below: Uint8Array | null = null;
  const [a, b, c, d, e, f] = invertAffine(frame);
  const over = grid.over ?? grid.cell;
  const finer = () => Math.max(pic.width / l.size.x, pic.height / l.size.y) * over;
  if (!sampled) while (finer() >= 4) pic = halved(pic);
  const { width, height, values } = pic;
  const px = width / l.size.x;
  const py = height / l.size.y;
  const n = sampled ? 1 : Math.max(1, Math.round(finer()));
  const slack = ground ? 1e-6 : -1;
  const [lastX, lastY] = [Math.max(0, width - 2), Math.max(0, height - 2)];
  for (let j = 0; j < g.height; j++) {
    const y = g.originY + j * g.cell;
    for (let i = 0; i < g.width; i++) {
      const x = g.originX + i * g.cell;
      const u0 = (a * x + c * y + e) * px + width / 2;
      const w0 = (b * x + d * y + f) * py;
      const v0 = up ? w0 + height / 2 : height / 2 - w0;
      if (u0 < 0 || v0 < 0 || u0 > width || v0 > height) continue;
      let sum = 0;
      let seen = 0;
      for (let q = 0; q < n * n; q++) {
        // Even samples over the cell, in the picture's own axes.
        const u = n === 1 ? u0 : u0 + (((q % n) + 0.5) / n - 0.5) * over * px;
        const v = n === 1 ? v0 : v0 + ((Math.floor(q / n) + 0.5) / n - 0.5) * over * py;
        const cu = u < 0.5 ? 0 : u > width - 0.5 ? width - 1 : u - 0.5;
        const cv = v < 0.5 ? 0 : v > height - 0.5 ? height - 1 : v - 0.5;
        const i0 = cu >= lastX ? lastX : Math.floor(cu);
        const j0 = cv >= lastY ? lastY : Math.floor(cv);
        const fu = cu - i0;
        const fv = cv - j0;
        const k = j0 * width + i0;
        const right = width > 1 ? 1 : 0;
        const down = height > 1 ? width : 0;
        const p00 = values[k];
        const p10 = values[k + right];
        const p01 = values[k + down];
        const p11 = values[k + down + right];
        if (p00 < 0 || p10 < 0 || p01 < 0 || p11 < 0) {
          // Beside what is left out the nearest pixel decides: nothing is mixed with the mark.
          const near = fu < 0.5 ? (fv < 0.5 ? p00 : p01) : fv < 0.5 ? p10 : p11;
          if (near === BELOW) {
            below ??= new Uint8Array(heights.length);
            below[j * g.width + i] = 1;
          }
          if (near < 0) continue;
          sum += near;
        } else sum += (p00 * (1 - fu) + p10 * fu) * (1 - fv) + (p01 * (1 - fu) + p11 * fu) * fv;
        seen++;
      }
      if (seen === 0 || seen < (n * n) / 2) continue;
      const h = sum / seen;
      if (h > slack) heights[j * g.width + i] = h * l.rise;
    }
  }
  return { window, heights, below, thinCells: 0, edge: null };
}
