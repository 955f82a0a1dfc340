import type { Cutter } from '../../cutter/cutter';
import type { Heights } from '../../doc/setup';
import { type Grid, makeField } from '../../field/height-field';
import { Path } from '../../motion/path';
import type { SkimPass } from './schema';

/** How far beyond the board's edge the bit's own edge goes, so that no rim is left, mm. */
const OVERCUT = 1;
/** Rows from one that is named in the program to the next. */
const SAID = 10;
/** Highest that a board may stand over the face that is skimmed: the bit must pass over it, mm. */
export const mostSkim = (heights: Heights) => heights.everything - heights.between;

interface BoardSize {
  x: number;
  y: number;
  thickness: number;
}

/** What a skim takes: the highest place over the face that it leaves, in how many goes, and where the board is too thin for it. */
export function skimDepths(pass: Pick<SkimPass, 'points' | 'stepdown'>, thickness: number) {
  const high = Math.max(...pass.points.map((p) => p.thickness)) - thickness;
  const thin = pass.points.filter((p) => p.thickness < thickness - 1e-6).sort((a, b) => a.thickness - b.thickness)[0];
  return { high, skims: Math.max(0, Math.ceil(high / pass.stepdown - 1e-6)), thin: thin ?? null };
}

/**
 * Skims the whole board to its thickness (the board document's) in even goes from the thickest place down: rows along x that run off the
 * board at both ends and over both sides.
 * @param board its size and the thickness that is left, mm
 */
export function planSkim(pass: SkimPass, cutter: Cutter, board: BoardSize, heights: Heights): Path {
  const path = new Path();
  const R = cutter.diameter / 2;
  const { high, skims } = skimDepths(pass, board.thickness);
  const rows = Math.max(1, Math.ceil(board.y / pass.stepover)) + 1;
  const [x0, x1] = [-R - OVERCUT, board.x + R + OVERCUT];
  let [x, other] = [x0, x1];
  let up = true;
  for (let n = 1; n <= skims; n++) {
    const z = high - (high * n) / skims;
    for (let k = 0; k < rows; k++) {
      if (k % SAID === 0) path.at(['skim', n, skims], ['row', k + 1, rows]);
      const y = (board.y * (up ? k : rows - 1 - k)) / (rows - 1);
      if (path.moves === 0) {
        path.rapid(x, y, heights.everything);
        path.feed(x, y, z, cutter.plunge, 'plunge');
      } else {
        // Beside the board there is nothing to meet.
        path.feed(x, y, path.z, cutter.feed, 'link');
        if (path.z > z) path.feed(x, y, z, cutter.plunge, 'plunge');
      }
      path.feed(other, y, z, cutter.feed);
      [x, other] = [other, x];
    }
    up = !up;
  }
  if (path.moves > 0) path.rapid(path.x, path.y, heights.everything);
  return path;
}

/**
 * How high an uneven board stands over the face that is skimmed, between the places where it was measured: weighted by the inverse
 * square of their distances (Shepard's method). Never below the face.
 */
export function boardTops(pass: Pick<SkimPass, 'points'>, thickness: number, grid: Grid): Float32Array {
  const out = makeField(grid, 0).data;
  for (let j = 0; j < grid.height; j++) {
    const y = grid.originY + j * grid.cell;
    for (let i = 0; i < grid.width; i++) {
      const x = grid.originX + i * grid.cell;
      let [sum, weights] = [0, 0];
      for (const p of pass.points) {
        const w = 1 / ((x - p.x) ** 2 + (y - p.y) ** 2 + 1e-6);
        sum += w * p.thickness;
        weights += w;
      }
      out[j * grid.width + i] = Math.max(0, sum / weights - thickness);
    }
  }
  return out;
}
