import svgpath from 'svgpath';
import type { Copies, Mask } from '../doc/layer';
import type { ReliefOf } from '../doc/relief-of';
import type { Edge, Outline } from '../outline/shapes';
import { clean } from '../units/round';

/** An object with some of its numbers k times as large, as far as it has them. */
function times<T extends object>(of: T, k: number, lengths: readonly string[]): T {
  const out = { ...of } as Record<string, unknown>;
  for (const key of lengths) if (typeof out[key] === 'number') out[key] = clean((out[key] as number) * k);
  return out as T;
}

/** An outline's own lengths k times as large: its corners' radius, its pen. */
export const scaleOutline = (o: Outline, k: number): Outline => times(o, k, ['radius', 'width']);

/** A worked edge k times as large: as many waves and notches on a longer edge. */
export const scaleEdge = (e: Edge, k: number): Edge => times(e, k, ['depth', 'length', 'width']);

/** What stands on an outline k times as large. */
export const scaleRelief = (r: ReliefOf, k: number): ReliefOf => times(r, k, ['width', 'pitch', 'length']);

/** A layer's copies with their spaces k times as wide. */
export function scaleCopies(c: Copies, k: number): Copies {
  if (c.kind === 'path') return { ...c, d: svgpath(c.d).scale(k).round(4).toString() };
  return times(c, k, ['dx', 'dy', 'radius']);
}

/** What a layer is cut off by k times as large. */
export function scaleMask(m: Mask, k: number): Mask {
  const out = times(m, k, ['x', 'y', 'dx', 'dy', 'grow']);
  return out.kind === 'outline' ? { ...out, outline: scaleOutline(out.outline, k) } : out;
}
