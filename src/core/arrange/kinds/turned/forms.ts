import { depthOn, type Groove, halfWidth } from './groove';
import type { TurnedForm } from './schema';

/** What a form is on: the drum's radius, and its layer's length along the axis and rise, mm. */
export interface Turned {
  radius: number;
  x: number;
  rise: number;
}

/**
 * How deep a form lies at a place, mm below the blank's circle, null where it has nothing: `x` along the axis from its middle, `y` along the blank's circle.
 * Grooves lie as deep below the ground that they are carved into, whose `radius` there is the blank's where it is left out.
 */
export type DepthAt = (x: number, y: number, radius?: number) => number | null;

type Of<K extends TurnedForm['kind']> = Extract<TurnedForm, { kind: K }>;
type Point = Of<'contour'>['points'][number];

/** Slopes of a curve through points that keeps rising where they rise (Fritsch and Carlson 1980, harmonic means of neighbouring slopes). */
function slopesOf(points: Point[]): number[] {
  const chord = points.slice(1).map((p, i) => (p.down - points[i].down) / Math.max(1e-9, p.along - points[i].along));
  return points.map((_, i) => {
    if (i === 0) return chord[0];
    if (i === points.length - 1) return chord[i - 1];
    const [a, b] = [chord[i - 1], chord[i]];
    return a * b <= 0 ? 0 : (2 * a * b) / (a + b);
  });
}

/** The share of its rise that a contour is deep at a share of its length, mm a mm. Points count in the order of their places. */
export function contourAt(form: Of<'contour'>): (u: number) => number {
  const points = form.points.slice().sort((p, q) => p.along - q.along);
  const slopes = form.curved ? slopesOf(points) : null;
  return (u) => {
    let i = 0;
    while (i + 2 < points.length && points[i + 1].along <= u) i++;
    const [p, q] = [points[i], points[i + 1]];
    const long = q.along - p.along;
    const t = long > 0 ? Math.min(1, Math.max(0, (u - p.along) / long)) : u >= q.along ? 1 : 0;
    if (!slopes) return p.down + t * (q.down - p.down);
    // Cubic through both ends with their slopes.
    const [s, e] = [slopes[i] * long, slopes[i + 1] * long];
    const d = q.down - p.down;
    return p.down + t * (s + t * (3 * d - 2 * s - e + t * (s + e - 2 * d)));
  };
}

/** Rings of a round section: arcs of a circle as wide as a ring and as high as the rise, half ellipses where that is more than half of it. */
function beads({ count }: Of<'beads'>, { x, rise }: Turned): DepthAt {
  const half = x / count / 2;
  const r = (half * half + rise * rise) / (2 * rise);
  return (dx) => {
    const from = dx + x / 2;
    const u = from - half * (2 * Math.min(count - 1, Math.max(0, Math.floor(from / (2 * half)))) + 1);
    return rise <= half
      ? r - Math.sqrt(Math.max(0, r * r - u * u))
      : rise * (1 - Math.sqrt(Math.max(0, 1 - (u / half) ** 2)));
  };
}

/** A plane square to the ray through the middle: rho = (R - rise) / cos a. */
function flat({ radius, rise }: Turned): DepthAt {
  const d = radius - rise;
  return (_, dy) => {
    const cos = Math.cos(dy / radius);
    if (cos <= 0) return null;
    const deep = radius - d / cos;
    return deep > 0 ? deep : null;
  };
}

/**
 * Grooves evenly round a drum of radius R that climb `slope` mm round it for every mm along it. Across its run a groove has its section; along it, where it
 * ends, the bit's own round or pointed end. Where it runs askew both are taken on the sheet, at the ground's own circle.
 */
function grooves(groove: Groove, R: number, count: number, slope: number, x: number): DepthAt {
  const pitch = (2 * Math.PI * R) / count;
  const half = halfWidth(groove);
  return (dx, dy, radius = R) => {
    const narrower = radius / R;
    const steep = slope * narrower;
    const long = Math.hypot(1, steep);
    const aside = dy - slope * dx;
    const near = narrower * (aside - pitch * Math.round(aside / pitch));
    const along = dx * long + (near * steep) / long;
    const beyond = Math.max(0, Math.abs(along) - Math.max(0, (x / 2) * long - half));
    const deep = depthOn(groove, radius, near / long / radius, beyond);
    return deep > 0 ? deep : null;
  };
}

/** How far grooves run askew climb round the drum for every mm along it. */
const slantOf = (degrees: number) => Math.tan((degrees * Math.PI) / 180);

/** What a form is like at every place of its layer: which one it is is asked once. */
export function turnedForm(form: TurnedForm, at: Turned): DepthAt {
  const { radius, x, rise } = at;
  switch (form.kind) {
    case 'cylinder':
      return () => rise;
    case 'contour': {
      const down = contourAt(form);
      return (dx) => rise * Math.min(1, Math.max(0, down(dx / x + 0.5)));
    }
    case 'beads':
      return beads(form, at);
    case 'flat':
      return flat(at);
    case 'flutes': {
      const slope = (radius * form.twist * Math.PI) / 180 / x;
      return grooves({ depth: rise, section: form.section }, radius, form.count, slope, x);
    }
    case 'knurl': {
      const groove: Groove = { depth: rise, section: { kind: 'vee', angle: form.angle } };
      const ways = [1, -1].map((s) => grooves(groove, radius, form.count, s * slantOf(form.slant), x));
      return (dx, dy, ground) => {
        const [a, b] = ways.map((w) => w(dx, dy, ground));
        return a === null ? b : b === null ? a : Math.max(a, b);
      };
    }
  }
}

/** Width of a flat where it meets the blank's circle, mm along that: 2 R acos((R - depth) / R). */
export const flatAcross = (radius: number, depth: number): number => 2 * radius * Math.acos((radius - depth) / radius);
