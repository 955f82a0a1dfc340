/**
 * Width of the trench that roughing clears around a raised relief, mm: one and a half diameters as a rule, and room for the bit with
 * stock on both sides (trade handbook, section 3; common practice, no source).
 */
export function trenchFor(diameter: number, stockToLeave: number): number {
  return Math.max(1.5 * diameter, diameter + 2 * stockToLeave + 1);
}
