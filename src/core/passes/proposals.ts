import type { Cutter } from '../cutter/cutter';
import { type Job, setupsOf } from '../doc/job';
import type { Machine } from '../doc/machine';
import type { Material } from '../doc/material';
import type { Milling } from '../doc/pass-parts';
import { clean } from '../units/round';

/** Stepdown for a bit in a material, mm: the material's share of the diameter, within the bit's own limit. */
export function stepdownFor(c: Cutter, material: Material): number {
  return clean(Math.min(c.maxStepdown, material.stepdown * c.diameter));
}

/** Small bits leave little, whatever they cut: up to this diameter, and so much, mm (common practice, no source). */
const SMALL = 3;
const LITTLE = 0.2;

/** Stock that roughing leaves with a bit in a material, mm. */
export function stockFor(c: Cutter, material: Material): number {
  return c.diameter >= SMALL ? material.stockToLeave : Math.min(LITTLE, material.stockToLeave);
}

/**
 * Which way a pass that clears is to mill: climb leaves the cleaner wall, but draws the bit into the wood where a machine's axes give way. Common
 * practice, no source.
 */
export const millingFor = ({ stiffness }: Machine): Milling => (stiffness === 'weak' ? 'conventional' : 'climb');

/** Stepover of a bit with a flat bottom as a share of its diameter (trade handbook, section 3; common practice, no source). */
export const FLAT_STEPOVER = 0.4;
/** Stepover of a finishing bit as a share of its diameter, or of its tip's. */
export const FINE_STEPOVER = 0.08;

/** An id that no pass of a job has: the kind, counted on where it is taken. */
export function freeId(kind: string, { document }: { document: Job }): string {
  const passes = setupsOf(document).flatMap((p) => p.setup.passes);
  for (let n = 1; ; n++) {
    const id = n === 1 ? kind : `${kind}-${n}`;
    if (!passes.some((p) => p.id === id)) return id;
  }
}
