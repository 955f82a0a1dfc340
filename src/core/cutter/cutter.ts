import { z } from '../units/zod';

const positive = z.number().finite().positive();

/** A text of one line that can be shown: control characters would break a program's comments and a file's name. */
export const printable = z.string().regex(/^\P{Cc}*$/u, 'holds control characters; leave them out');

/** A speed along the path, mm/min. */
export const feedRate = z.number().finite().min(1).max(200_000);

/** A bit whose width is this near to a hole's drills it, mm. */
export const DRILLS = 0.05;

export const CUTTER_SHAPES = ['endmill', 'ball', 'bullnose', 'tapered-ball', 'v', 'drill', 'slot'] as const;
export type CutterShape = (typeof CUTTER_SHAPES)[number];

/** Bits that make one thing and nothing else, in the words of whoever is told so. */
const ONE_USE: Partial<Record<CutterShape, string>> = { drill: 'makes holes only', slot: 'makes hanging slots only' };

/** Why a bit shapes no surface; null where it does. */
export const shapesNothing = (c: { shape: CutterShape }): string | null => ONE_USE[c.shape] ?? null;

/** Which way the flutes turn: lifting chips, pressing them down, both from the middle, or neither. */
export const HELICES = ['up', 'down', 'compression', 'straight'] as const;

/** A bit as the cutter drawer holds it. Lengths in mm, angles in degrees, feeds in mm/min. */
export const cutterSchema = z
  .object({
    id: z.string().min(1).max(64),
    number: z.number().int().min(1).max(999),
    name: printable.min(1).max(80),
    shape: z.enum(CUTTER_SHAPES),
    /** The cutting diameter; for a tapered ball the diameter at the top of the flutes. */
    diameter: positive.min(0.05).max(200),
    cornerRadius: z.number().finite().min(0).default(0),
    /** Tip diameter: of the ball of a tapered ball, of the flat of a V bit. */
    tipDiameter: z.number().finite().min(0).default(0),
    /** Degrees a side, tapered ball. */
    taperAngle: z.number().finite().min(0).max(60).default(0),
    /** Full angle, V bit; the point's angle of a drill. */
    includedAngle: z.number().finite().min(0).max(170).default(0),
    /** Slot bit: the neck over its head, which is as high as its flutes are long. The neck cuts the slit that it runs in. */
    neckDiameter: z.number().finite().min(0).max(200).default(0),
    neckLength: z.number().finite().min(0).max(500).default(0),
    fluteLength: positive.max(500),
    shankDiameter: positive.max(60),
    stickOut: positive.max(500),
    holderDiameter: positive.max(500).default(40),
    flutes: z.number().int().min(1).max(12),
    feed: feedRate,
    plunge: feedRate,
    rpm: positive.max(200_000),
    maxStepdown: positive.max(200),
    /** Deepest straight plunge into solid material; 0 for a bit that does not cut at its centre. */
    maxPlungeDepth: z.number().finite().min(0),
    helix: z.enum(HELICES),
    /** How far the upcut part of a compression bit reaches from its tip, mm; 0 where that is not known. */
    upcut: z.number().finite().min(0).max(500).default(0),
    cutsAtCentre: z.boolean(),
    /** What a new one costs, in the shop's own money; null when it is not known. */
    price: z.number().finite().min(0).nullable(),
    /** Programs that it has cut. */
    runs: z.number().int().min(0),
  })
  .superRefine((c, ctx) => {
    const bad = (path: string, message: string) => ctx.addIssue({ code: 'custom', path: [path], message });
    if (c.shape === 'bullnose' && !(c.cornerRadius > 0 && c.cornerRadius <= c.diameter / 2)) {
      bad(
        'cornerRadius',
        `a bull-nose of ${c.diameter} mm needs a corner radius above 0 and up to ${c.diameter / 2} mm`,
      );
    }
    if (c.shape === 'tapered-ball' && !(c.tipDiameter > 0 && c.tipDiameter <= c.diameter && c.taperAngle > 0)) {
      bad('tipDiameter', `a tapered ball needs a tip diameter up to ${c.diameter} mm and a taper above 0 degrees`);
    }
    if (c.shape === 'v' && !(c.includedAngle > 0 && c.tipDiameter < c.diameter)) {
      bad('includedAngle', 'a V bit needs an included angle above 0 degrees and a tip smaller than its diameter');
    }
    if (c.shape === 'drill' && !(c.includedAngle > 0))
      bad('includedAngle', 'a drill needs a point angle above 0 degrees, 118 as a rule');
    if (c.shape === 'slot' && !(c.neckDiameter > 0 && c.neckDiameter < c.diameter && c.neckLength > 0))
      bad('neckDiameter', `a slot bit needs a neck thinner than its head of ${c.diameter} mm, and its length`);
  });
export type Cutter = z.infer<typeof cutterSchema>;

/** How far a bit pulls its chips up, from its tip: of a compression bit, about a diameter where it is not known (common practice, no source), mm. */
export const upcutOf = (c: Pick<Cutter, 'helix' | 'upcut' | 'diameter'>): number =>
  c.helix === 'compression' ? c.upcut || c.diameter : 0;

/** Codes and parameters of a profile as the kernels take them. */
export interface Profile {
  shape: 0 | 1 | 2 | 3 | 4;
  /** Cutting radius, mm. */
  R: number;
  /** Corner radius (bull-nose), sphere radius (tapered ball), flat radius (V). */
  p0: number;
  /** Radius at which the cone starts (tapered ball). */
  p1: number;
  /** Rise of the cone a mm outwards. */
  p2: number;
}

const rad = Math.PI / 180;

/** A cutter of the same shape whose radii are smaller by so much, mm: what it takes the larger one certainly takes. */
export function smallerBy(profile: Profile, by: number): Profile {
  const R = profile.R - by;
  return { ...profile, R, p0: Math.min(profile.p0, R), p1: Math.min(profile.p1, R) };
}

/** The exact profile of a cutter. A tapered ball's cone is tangent to its sphere at p1 = r cos(taper). */
export function profileOf(c: Cutter): Profile {
  const R = c.diameter / 2;
  switch (c.shape) {
    case 'endmill':
    // Its head, straight down; what its neck leaves over the head is asked of `neckOf`.
    case 'slot':
      return { shape: 0, R, p0: 0, p1: 0, p2: 0 };
    case 'ball':
      return { shape: 1, R, p0: 0, p1: 0, p2: 0 };
    case 'bullnose':
      return { shape: 2, R, p0: c.cornerRadius, p1: 0, p2: 0 };
    case 'tapered-ball': {
      const tip = c.tipDiameter / 2;
      return {
        shape: 3,
        R,
        p0: tip,
        p1: Math.min(R, tip * Math.cos(c.taperAngle * rad)),
        p2: 1 / Math.tan(c.taperAngle * rad),
      };
    }
    case 'drill':
      return { shape: 4, R, p0: 0, p1: 0, p2: 1 / Math.tan((c.includedAngle / 2) * rad) };
    case 'v':
      return { shape: 4, R, p0: c.tipDiameter / 2, p1: 0, p2: 1 / Math.tan((c.includedAngle / 2) * rad) };
  }
}

/** The neck of a slot bit, as what it cuts of the wood over its head. */
export const neckOf = (c: Cutter): Profile => ({ shape: 0, R: c.neckDiameter / 2, p0: 0, p1: 0, p2: 0 });

/** How far over its tip a bit's shank begins, mm. */
export const shankFrom = (c: Pick<Cutter, 'shape' | 'fluteLength' | 'neckLength'>): number =>
  c.shape === 'slot' ? c.fluteLength + c.neckLength : c.fluteLength;

/** Height of the cutter's surface above its tip at distance r <= R from its axis, mm. */
export function profileHeight(p: Profile, r: number): number {
  switch (p.shape) {
    case 0:
      return 0;
    case 1:
      return p.R - Math.sqrt(Math.max(0, p.R * p.R - r * r));
    case 2: {
      const e = r - (p.R - p.p0);
      return e <= 0 ? 0 : p.p0 - Math.sqrt(Math.max(0, p.p0 * p.p0 - e * e));
    }
    case 3:
      if (r <= p.p1) return p.p0 - Math.sqrt(Math.max(0, p.p0 * p.p0 - r * r));
      return p.p0 - Math.sqrt(Math.max(0, p.p0 * p.p0 - p.p1 * p.p1)) + (r - p.p1) * p.p2;
    case 4:
      return r <= p.p0 ? 0 : (r - p.p0) * p.p2;
  }
}

/** Radius of the round tip that leaves the ridges of a finishing pass; 0 for a flat or pointed tip. */
export function tipRadius(c: Cutter): number {
  if (c.shape === 'ball') return c.diameter / 2;
  if (c.shape === 'tapered-ball') return c.tipDiameter / 2;
  if (c.shape === 'bullnose') return c.cornerRadius;
  return 0;
}

/** Radius that decides how finely a cutter is planned, mm: of the tip; a point has none to speak of and counts as a 1.6 mm ball. */
export function planningRadius(c: Cutter): number {
  return c.shape === 'tapered-ball' ? c.tipDiameter / 2 : c.shape === 'v' ? 0.8 : c.diameter / 2;
}

/** Width that stepover shares are taken of: the diameter, or the tip's for a tapered ball (trade handbook, section 3). */
export function stepoverBase(c: Cutter): number {
  return c.shape === 'tapered-ball' ? c.tipDiameter : c.diameter;
}

/**
 * Ridge between parallel passes on a flat, mm: two cutters meet half a stepover from the axis of each. Of a ball
 * h = R - sqrt(R^2 - (s / 2)^2), any machining handbook; of a V bit (s / 2 - half its flat) / tan(half the angle); none within the flat of
 * an end mill or a bull-nose.
 */
export function ridgeOf(c: Cutter, stepover: number): number {
  const p = profileOf(c);
  return profileHeight(p, Math.min(p.R, stepover / 2));
}

/** The widest stepover at which parallel passes on a flat leave no higher ridge, mm: the height of the profile solved for its place. */
export function stepoverFor(c: Cutter, ridge: number): number {
  const p = profileOf(c);
  return 2 * Math.min(p.R, radiusAt(p, ridge));
}

/** How far from its axis a cutter's surface is a height over its tip, mm; profileHeight solved for the distance. */
export function radiusAt(p: Profile, h: number): number {
  const round = (r: number) => Math.sqrt(Math.max(0, 2 * r * Math.min(h, r) - Math.min(h, r) ** 2));
  switch (p.shape) {
    case 0:
      return p.R;
    case 1:
      return round(p.R);
    case 2:
      return p.R - p.p0 + round(p.p0);
    case 3: {
      const rim = profileHeight(p, p.p1);
      return h <= rim ? round(p.p0) : p.p1 + (h - rim) / p.p2;
    }
    case 4:
      return p.p0 + h / p.p2;
  }
}

/** Steps that a flat end leaves between parallel passes across a slope, mm: the stepover's rise. @param slope degrees */
export function stepOn(slope: number, stepover: number): number {
  return stepover * Math.tan(slope * rad);
}

/** Chip load in mm a tooth: feed / (rpm x flutes). */
export function chipLoad(feed: number, rpm: number, flutes: number): number {
  return feed / (rpm * flutes);
}
