import type { TurnedForm } from './schema';

type Section = Extract<TurnedForm, { kind: 'flutes' }>['section'];

/** A groove along a drum, as the bit of its section leaves it that runs `depth` mm deep. */
export interface Groove {
  depth: number;
  section: Section;
}

/** Half of a groove's width where the drum is level along it, mm: so far its round or pointed ends reach. */
export function halfWidth({ depth, section }: Groove): number {
  if (section.kind === 'vee') return depth * Math.tan((section.angle * Math.PI) / 360);
  const r = section.radius;
  return depth >= r ? r : Math.sqrt(depth * (2 * r - depth));
}

/**
 * How deep a groove is on a ray, mm; 0 or less where it is not cut. In the plane across the axis the ray at an angle `a` from the groove's middle
 * meets, with d = R - depth: a ball of radius r in the distance c = d + r from the axis at rho = c cos a - sqrt(r^2 - e^2 - c^2 sin^2 a); and a cone
 * of half angle b with its point at d, (rho cos a - d)^2 = (rho^2 sin^2 a + e^2) / tan^2 b, at its outer root (elementary trigonometry; e is how far
 * beyond the groove's last middle the ray stands, along the axis).
 * @param radius of the drum there, mm
 * @param a from the groove's middle, radians
 * @param beyond mm beyond its end, 0 between its ends
 */
export function depthOn({ depth, section }: Groove, radius: number, a: number, beyond: number): number {
  const d = radius - depth;
  const [cos, sin] = [Math.cos(a), Math.abs(Math.sin(a))];
  if (cos <= 0) return 0;
  if (section.kind === 'ball') {
    const r = section.radius;
    const c = d + r;
    const left = r * r - beyond * beyond - c * c * sin * sin;
    return left < 0 ? 0 : radius - (c * cos - Math.sqrt(left));
  }
  const steep = 1 / Math.tan((section.angle * Math.PI) / 360);
  const A = cos * cos - steep * steep * sin * sin;
  // Beyond its own half angle a ray never comes out of the V.
  if (A <= 0) return 0;
  return radius - (d * cos + steep * Math.sqrt(d * d * sin * sin + A * beyond * beyond)) / A;
}
