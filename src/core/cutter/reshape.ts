import { clean } from '../units/round';
import type { Cutter, CutterShape } from './cutter';

/** Figures that a bit of another shape begins with, where it has none of its own. */
const FRESH = { cornerShare: 1 / 6, tipShare: 1 / 4, taper: 4, drill: 118, v: 60, neckShare: 1 / 2 };

/** Gives a bit another shape: what that shape needs and the bit does not have yet begins with a usual figure. */
export function reshape(c: Cutter, shape: CutterShape): void {
  c.shape = shape;
  if (shape === 'bullnose') c.cornerRadius = Math.min(c.cornerRadius || c.diameter * FRESH.cornerShare, c.diameter / 2);
  if (shape === 'tapered-ball') {
    c.tipDiameter = Math.min(c.tipDiameter || c.diameter * FRESH.tipShare, c.diameter);
    c.taperAngle ||= FRESH.taper;
  }
  if (shape === 'drill') {
    c.includedAngle = FRESH.drill;
    c.maxPlungeDepth ||= c.diameter;
  }
  if (shape === 'slot') {
    // Its flutes are its head: a third of its width, as a rule (common practice, no source).
    c.fluteLength = Math.min(c.fluteLength, clean(c.diameter / 3));
    c.neckDiameter ||= clean(c.diameter * FRESH.neckShare);
    c.neckLength ||= c.diameter;
    c.maxStepdown = Math.max(c.maxStepdown, c.diameter);
    c.maxPlungeDepth ||= c.diameter;
  }
  if (shape === 'v') {
    c.includedAngle ||= FRESH.v;
    c.tipDiameter = Math.min(c.tipDiameter, c.diameter / 2);
  }
}
