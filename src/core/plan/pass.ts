import { z } from 'zod';
import { type OutlineRef, outlineRefSchema } from '../arrange/silhouette';
import { type Cutter, DRILLS } from '../cutter/cutter';
import { formatLength, trimNumber } from '../units/length';

// Lengths in mm, angles in degrees, unless a name says otherwise.
const finite = z.number().finite();
const positive = finite.positive();

export const areaSchema = z.discriminatedUnion('kind', [
  /** The relief and its trench; null lets the width be worked out from the bit. */
  z.object({ kind: z.literal('relief'), trench: finite.min(0).max(200).nullable() }),
  z.object({ kind: z.literal('face') }),
  z
    .object({ kind: z.literal('frame'), x0: finite, y0: finite, x1: finite, y1: finite })
    .refine((a) => a.x1 > a.x0 && a.y1 > a.y0, 'a frame needs x1 above x0 and y1 above y0'),
  /** Inside an outline: a patch around a layer, or one outline less others. */
  z.object({ kind: z.literal('outline'), outline: outlineRefSchema }),
]);
export type Area = z.infer<typeof areaSchema>;

export const tabsSchema = z.object({
  count: z.number().int().min(0).max(60),
  /** Of the wood that stays, where it is narrowest, along the line. */
  length: positive.max(200),
  thickness: positive.max(100),
  /** The bit runs up and down over them on a slope instead of upright. */
  sloped: z.boolean(),
  /** Places set by hand, board coordinates: each tab is on the line nearest to its own. Null: they place themselves. */
  at: z
    .array(z.object({ x: finite, y: finite }))
    .max(60)
    .nullable(),
});
export type Tabs = z.infer<typeof tabsSchema>;

const common = { id: z.string().min(1).max(64), cutter: z.string().min(1), area: areaSchema };

export const passSchema = z.discriminatedUnion('kind', [
  z.object({
    ...common,
    kind: z.literal('rough'),
    strategy: z.enum(['rings', 'raster']),
    /** Direction of the rows, raster only. */
    angle: finite.min(-360).max(360),
    stepover: positive,
    stepdown: positive,
    /** Left along the surface's normal, to the side as well as below. */
    stockToLeave: finite.min(0).max(20),
    rampAngle: positive.max(45),
  }),
  /** Level fields at exactly their height, by a bit with a flat bottom; finishing stays off them. */
  z.object({
    ...common,
    kind: z.literal('flat'),
    stepover: positive,
    stepdown: positive,
    rampAngle: positive.max(45),
    /** How far finishing still goes over a cleared field's edge, beyond its bit's own radius. */
    overlap: finite.min(0).max(50),
  }),
  /** Grooves of the layers that are cut with a V bit, along their middles. */
  z.object({
    ...common,
    kind: z.literal('letter'),
    /** Deepest that is taken at once. */
    stepdown: positive,
  }),
  z.object({
    ...common,
    kind: z.literal('finish'),
    angle: finite.min(-360).max(360),
    stepover: positive,
    /** Points are thinned so that the path lies between the surface and this much above it. */
    tolerance: finite.min(0.001).max(0.2),
  }),
  /** The whole board, brought to the thickness that the board document names. */
  z.object({
    id: common.id,
    cutter: common.cutter,
    kind: z.literal('skim'),
    side: z.enum(['face', 'back']),
    stepover: positive,
    stepdown: positive,
    /** Where the uneven board was measured. */
    points: z
      .array(z.object({ x: finite, y: finite, thickness: positive.max(500) }))
      .min(1)
      .max(100),
  }),
  /** Round holes, drilled by a bit as wide as they are, milled in a helix by a narrower one. */
  z.object({
    id: common.id,
    cutter: common.cutter,
    kind: z.literal('hole'),
    places: z
      .array(z.object({ x: finite, y: finite }))
      .min(1)
      .max(500),
    diameter: positive.max(200),
    /** From the board's top; null goes through, and `into` the spoilboard. */
    depth: positive.max(500).nullable(),
    into: finite.min(0).max(10),
    /** Deepest that is taken at once, and a turn of the helix. */
    peck: positive.max(100),
    rampAngle: positive.max(45),
  }),
  /** Through the board along an outline. */
  z.object({
    id: common.id,
    cutter: common.cutter,
    kind: z.literal('cutout'),
    outline: outlineRefSchema,
    side: z.enum(['outside', 'inside', 'on']),
    /** From the depth that is open already, or from the board's own top. */
    start: z.enum(['machined', 'top']),
    stepdown: positive,
    rampAngle: positive.max(45),
    /** How far below the board's underside it goes. */
    into: finite.min(0).max(10),
    /** Length of the way in, which leaves the line at 45 degrees into the waste. */
    lead: finite.min(0).max(50),
    /** Left at the side for one last lap at full depth. */
    last: finite.min(0).max(5),
    /** Left under the first laps for the last one to free. */
    floor: finite.min(0).max(20),
    tabs: tabsSchema,
  }),
]);
export type Pass = z.infer<typeof passSchema>;
export type RoughPass = Extract<Pass, { kind: 'rough' }>;
export type FlatPass = Extract<Pass, { kind: 'flat' }>;
export type LetterPass = Extract<Pass, { kind: 'letter' }>;
export type FinishPass = Extract<Pass, { kind: 'finish' }>;
export type SkimPass = Extract<Pass, { kind: 'skim' }>;
export type HolePass = Extract<Pass, { kind: 'hole' }>;
export type CutoutPass = Extract<Pass, { kind: 'cutout' }>;
/** Passes that work over an area. */
export type AreaPass = Extract<Pass, { area: Area }>;

/** The outline that a pass names, of its area or its own; null when it names none. */
export function outlineOfPass(p: Pass): OutlineRef | null {
  if ('outline' in p) return p.outline;
  return 'area' in p && p.area.kind === 'outline' ? p.area.outline : null;
}

/** The layers that a pass names by their ids. */
export function layersNamed(p: Pass): string[] {
  const ref = outlineOfPass(p);
  return ref ? [...(ref.of ?? []), ...ref.less] : [];
}

/** What of a pass does not go with its bit, each with the field that it is about. */
export function passProblems(p: Pass, c: Cutter): { path: string; message: string }[] {
  const out: { path: string; message: string }[] = [];
  const bad = (path: string, message: string) => out.push({ path, message });
  if ('stepover' in p) {
    const most = p.kind === 'finish' ? c.diameter : c.diameter / 2;
    const share = p.kind === 'finish' ? 'the diameter' : 'half the diameter, so that no ribs are left standing';
    if (p.stepover > most)
      bad('stepover', `${p.stepover} mm is more than ${share} of ${c.name}; use up to ${trimNumber(most, 4)} mm`);
    if (p.stepover < c.diameter / 400)
      bad('stepover', `${p.stepover} mm is under 1/400 of ${c.name}; use at least ${c.diameter / 400} mm`);
  }
  if ('stepdown' in p && p.stepdown < 0.02) bad('stepdown', `${p.stepdown} mm is too thin; use at least 0.02 mm`);
  if (p.kind === 'flat' && c.shape !== 'endmill' && c.shape !== 'bullnose')
    bad('cutter', `${c.name} has no flat bottom; flats need an end mill`);
  if (p.kind === 'letter' && c.shape !== 'v')
    bad('cutter', `${c.name} is no V bit; letters need one of the angle that they are shaped for`);
  if (c.shape === 'drill' && p.kind !== 'hole') bad('cutter', `${c.name} is a drill; it makes holes only`);
  if (p.kind === 'skim' && c.shape !== 'endmill' && c.shape !== 'bullnose')
    bad('cutter', `${c.name} leaves no level face; a skim needs a bit with a flat bottom`);
  if (p.kind === 'hole') {
    const fits = Math.abs(p.diameter - c.diameter) <= DRILLS;
    if (c.shape !== 'endmill' && c.shape !== 'drill')
      bad('cutter', `${c.name} leaves no upright wall; holes need a drill or an end mill`);
    else if (c.diameter > p.diameter + DRILLS)
      bad('diameter', `${c.name} is wider than a hole of ${formatLength(p.diameter)}; choose a narrower bit`);
    else if (c.shape === 'drill' && !fits)
      bad('diameter', `${c.name} drills holes of ${formatLength(c.diameter)} only; mill others with an end mill`);
    else if (fits && c.maxPlungeDepth === 0)
      bad(
        'cutter',
        `${c.name} does not cut at its centre: it can mill a wider hole, but not drill one of ${formatLength(p.diameter)}`,
      );
  }
  if (p.kind === 'cutout') {
    if (c.shape !== 'endmill') bad('cutter', `${c.name} leaves no upright wall; a cut-out needs an end mill`);
    if (p.tabs.at && p.tabs.at.length !== p.tabs.count)
      bad('tabs', `${p.tabs.count} tabs, but places for ${p.tabs.at.length}; place them anew`);
    if (p.floor > 0 && p.tabs.count > 0 && p.floor > p.tabs.thickness)
      bad(
        'floor',
        `a floor of ${formatLength(p.floor)} is thicker than the tabs of ${formatLength(p.tabs.thickness)}; leave less`,
      );
  }
  return out;
}
