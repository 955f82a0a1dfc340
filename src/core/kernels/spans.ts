import { type Cutter, neckOf, type Profile, profileOf, smallerBy } from '../cutter/cutter';
import type { HeightField } from '../field/height-field';
import { ENGAGED } from './engagement';
import type { KernelHost } from './host';
import { SEGMENT } from './segment';

/** Moves that follow each other and leave what one profile leaves, as seen from above. */
export interface Span {
  profile: Profile;
  segments: Float64Array;
  /** Number of the first of them. */
  from: number;
}

/** Heights that differ by less lie level, mm: programs are written to a thousandth. */
const LEVEL = 5e-4;

/** Whether a slot bit's move goes along beneath the wood: level and at feed. Its head is not seen from above then, only its neck's slit. */
export const isBeneath = (segments: Float64Array, s: number): boolean =>
  segments[s + 6] === 0 &&
  Math.abs(segments[s + 5] - segments[s + 2]) < LEVEL &&
  (segments[s] !== segments[s + 3] || segments[s + 1] !== segments[s + 4]);

/** A bit's moves by what they leave as seen from above: of all bits but a slot bit one span with its profile. */
export function spansOf(cutter: Cutter, segments: Float64Array): Span[] {
  const head = profileOf(cutter);
  if (cutter.shape !== 'slot') return [{ profile: head, segments, from: 0 }];
  const neck = neckOf(cutter);
  const out: Span[] = [];
  const n = segments.length / SEGMENT;
  for (let from = 0, i = 0; i < n; from = i) {
    const beneath = isBeneath(segments, from * SEGMENT);
    while (i < n && isBeneath(segments, i * SEGMENT) === beneath) i++;
    out.push({ profile: beneath ? neck : head, segments: segments.subarray(from * SEGMENT, i * SEGMENT), from });
  }
  return out;
}

/** Stock removal on `f` itself by a bit's moves. @param smaller by how much less its radii are taken, mm */
export async function removeBy(
  host: KernelHost,
  f: HeightField,
  cutter: Cutter,
  segments: Float64Array,
  smaller = 0,
): Promise<void> {
  for (const s of spansOf(cutter, segments))
    await host.remove(f, smaller > 0 ? smallerBy(s.profile, smaller) : s.profile, s.segments);
}

/** The same, and what every move meets; see engagement.ts. */
export async function engageBy(
  host: KernelHost,
  f: HeightField,
  cutter: Cutter,
  segments: Float64Array,
): Promise<Float32Array> {
  const spans = spansOf(cutter, segments);
  if (spans.length === 1) return host.engage(f, spans[0].profile, segments, cutter.maxStepdown);
  const out = new Float32Array((segments.length / SEGMENT) * ENGAGED);
  for (const s of spans) out.set(await host.engage(f, s.profile, s.segments, cutter.maxStepdown), s.from * ENGAGED);
  return out;
}
