import type { Path } from '../../motion/path';
import type { Live } from '../live';
import type { Raster, Stretch } from './raster';
import type { FinishPass } from './schema';

/** What is cut next: a stretch of a row, from its end when turned, and whether the tip gets there on the surface. */
export interface Pick {
  stretch: Stretch;
  row: number;
  turned: boolean;
  link: boolean;
}

/** The stretch to cut next: one that the tool can be led into on the surface, else the nearest that is left. */
export function pickStretch(
  rows: Stretch[][],
  row: number,
  { path, live }: { path: Path; live: Live },
  stepover: number,
  raster: Raster,
): Pick | undefined {
  let best: Pick | undefined;
  let least = Infinity;
  const consider = (r: number, limit: number) => {
    for (const stretch of rows[r] ?? []) {
      if (stretch.done) continue;
      const [ex, ey] = raster.end(stretch);
      for (const turned of [false, true]) {
        const d =
          path.moves === 0 ? r : Math.hypot((turned ? ex : stretch.x0) - path.x, (turned ? ey : stretch.y0) - path.y);
        if (d < least && d <= limit) {
          least = d;
          best = { stretch, row: r, turned, link: false };
        }
      }
    }
  };
  for (const r of [row + 1, row - 1, row]) consider(r, 4 * stepover);
  if (!best || path.moves === 0) for (let r = 0; r < rows.length; r++) consider(r, Infinity);
  if (best && path.moves > 0) {
    const { stretch, turned } = best;
    const [x, y] = turned ? raster.end(stretch) : [stretch.x0, stretch.y0];
    best.link = raster.linkable(path.x, path.y, x, y, live);
  }
  return best;
}

/**
 * The stretch to cut next where all rows go one way: beside the last one, on the side where the wood is, else of the first row that is left, so that
 * none is left behind with its wood on the other side. Rows are numbered to the left of their own direction. Its way back is a hop.
 */
export function nextOneWay(
  rows: Stretch[][],
  row: number,
  last: Stretch | null,
  { milling, stepover }: FinishPass,
  raster: Raster,
): Pick | undefined {
  const turned = milling === 'climb';
  const startOf = (s: Stretch) => (turned ? raster.end(s) : [s.x0, s.y0]);
  const pick = (stretch: Stretch, r: number): Pick => ({ stretch, row: r, turned, link: false });
  if (last) {
    const [x, y] = startOf(last);
    const long = raster.lengthOf(last);
    let best: Stretch | undefined;
    let least = long + 4 * stepover;
    for (const s of rows[row + 1] ?? []) {
      const [sx, sy] = startOf(s);
      const d = Math.hypot(sx - x, sy - y);
      if (!s.done && d < least) [best, least] = [s, d];
    }
    if (best) return pick(best, row + 1);
  }
  const first = rows.findIndex((r) => r.some((s) => !s.done));
  const left = rows[first]?.find((s) => !s.done);
  return left && pick(left, first);
}
