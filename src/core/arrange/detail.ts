import type { Profile } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import type { KernelHost } from '../kernels/host';
import type { Surface } from './compose';

export interface Detail {
  /** Share of the piece's plan where the bit leaves more than the tolerance. */
  missed: number;
  /** What it leaves, mm, on the surface's grid; 0 outside the piece. */
  left: Float32Array;
}

/**
 * What a bit cannot reach of a surface, whatever its path: the closing of the surface by the cutter, its offset surface
 * cut by the cutter again (Serra, "Image analysis and mathematical morphology", 1982: dilation, then erosion).
 */
export async function detailOf(s: Surface, profile: Profile, tolerance: number, host: KernelHost): Promise<Detail> {
  const f: HeightField = { ...s.grid, data: s.z };
  const tips = await host.offset(f, profile, 0);
  const upside = new Float32Array(tips.length);
  for (let k = 0; k < tips.length; k++) upside[k] = -tips[k];
  const cut = await host.offset({ ...s.grid, data: upside }, profile, 0);
  const left = new Float32Array(cut.length);
  let missed = 0;
  let covered = 0;
  for (let k = 0; k < cut.length; k++) {
    if (!s.cover[k]) continue;
    covered++;
    left[k] = Math.max(0, -cut[k] - s.z[k]);
    if (left[k] > tolerance) missed++;
  }
  return { missed: covered > 0 ? missed / covered : 0, left };
}

/** Share that may be missed when a piece is called large enough for a bit. */
export const FINE = 0.01;
const LARGEST = 4;

/**
 * How many times as large the piece would have to be (in plan and rise alike) for the bit to miss no more than FINE of it; null
 * when four times is not enough. A larger piece under the same bit is the same piece under a smaller one.
 */
export async function largerFor(
  s: Surface,
  profile: Profile,
  tolerance: number,
  host: KernelHost,
): Promise<number | null> {
  const missed = async (k: number) => {
    const small = { ...profile, R: profile.R / k, p0: profile.p0 / k, p1: profile.p1 / k };
    return (await detailOf(s, small, tolerance / k, host)).missed;
  };
  if ((await missed(1)) <= FINE) return 1;
  if ((await missed(LARGEST)) > FINE) return null;
  let [low, high] = [1, LARGEST];
  for (let i = 0; i < 5; i++) {
    const m = Math.sqrt(low * high);
    if ((await missed(m)) <= FINE) high = m;
    else low = m;
  }
  return high;
}
