import { type Profile, profileHeight } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import { cutterOffset, flatOffset, lineOffset } from './cutter-offset';
import { drumOffset } from './drum-offset';
import { engageStock, removeStock } from './stock-removal';

/** Where the heavy kernels run: in this thread, or spread over workers in bands of rows. */
export interface KernelHost {
  /** Offset by a cutter whose profile is moved outwards by `inflate` mm; see offsetRows. */
  offset(f: HeightField, profile: Profile, inflate: number): Promise<Float32Array>;
  /** The offset along lines parallel to x at `ys`; see lineOffset. Of boards: round a drum rows lie on cells. */
  lines(f: HeightField, profile: Profile, ys: Float64Array): Promise<Float32Array>;
  /** Stock removal on `f` itself; see removeStock. */
  remove(f: HeightField, profile: Profile, segments: Float64Array): Promise<void>;
  /** The same, and what every segment meets; see engagement.ts. */
  engage(f: HeightField, profile: Profile, segments: Float64Array, limit: number): Promise<Float32Array>;
}

/** The rows asked for of the offset by `profile`, its radius grown by `inflate` and its heights shifted with it; round a drum on its rays. */
export function offsetRows(f: HeightField, profile: Profile, inflate: number, rows?: [number, number]): Float32Array {
  if (f.drum) return drumOffset(f, f.drum, profile, inflate, rows);
  if (profile.shape === 0) return flatOffset(f, profile.R + inflate, rows);
  return cutterOffset(f, profile.R + inflate, (r) => profileHeight(profile, Math.max(0, r - inflate)), rows);
}

export function offsetLines(f: HeightField, profile: Profile, ys: Float64Array): Float32Array {
  return lineOffset(f, profile.R, (r) => profileHeight(profile, r), ys);
}

export const localHost: KernelHost = {
  offset: async (f, profile, inflate) => offsetRows(f, profile, inflate),
  lines: async (f, profile, ys) => offsetLines(f, profile, ys),
  remove: async (f, profile, segments) => removeStock(f, profile, segments),
  engage: async (f, profile, segments, limit) => engageStock(f, profile, segments, limit),
};
