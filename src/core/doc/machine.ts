import { type Cutter, feedRate } from '../cutter/cutter';
import { z } from '../units/zod';
import { finite, id, name, positive, size } from './parts';

const axes = <T extends z.ZodType>(figure: T) => z.object({ x: figure, y: figure, z: figure });
const count = z.number().int().positive();

/** How programs are written for its controller; what each of them is stands in program/dialects. */
export const DIALECTS = ['rs274', 'rs274-lines', 'rs274-numbered'] as const;
export const STIFFNESSES = ['weak', 'usual', 'heavy'] as const;
export const ROTARY_ALONG = ['x', 'y'] as const;
export const ROTARY_LETTERS = ['A', 'B', 'C'] as const;
/** How feeds are written of moves that turn: as one over the minutes that each takes (G93), or as units and degrees a minute (G94). */
export const ROTARY_FEEDS = ['inverse-time', 'per-minute'] as const;

/** An axis that turns what it holds, which lies along one of the table's. */
export const rotarySchema = z.object({
  along: z.enum(ROTARY_ALONG),
  /** Of its axis over the bed, mm. */
  height: positive.max(2000),
  /** The word that turns it, in degrees. */
  letter: z.enum(ROTARY_LETTERS),
  /** Most degrees a minute, and degrees a second squared. */
  maxSpeed: positive.min(1).max(1e6),
  acceleration: positive.min(1).max(1e6),
  feed: z.enum(ROTARY_FEEDS),
  /** Whether a degree counts as a unit of length in the feed a minute of a move that goes along and turns; where not, such a feed is that of the straight axes. */
  degreesCount: z.boolean(),
  /** Whether it turns on and on; where not, programs turn it back to where they began. */
  endless: z.boolean(),
});
export type Rotary = z.infer<typeof rotarySchema>;

export const machineSchema = z.object({
  id,
  name,
  x: size,
  y: size,
  zTravel: positive.max(2000),
  /** From the bed up to the spindle's nose when Z is at the top of its travel. */
  bedToNose: positive.max(3000),
  minRpm: finite.min(0),
  maxRpm: positive,
  maxFeed: axes(feedRate),
  /** Below a hundredth of what a weak machine has nothing would ever get under way. */
  acceleration: axes(finite.min(1).max(100_000)),
  junctionDeviation: positive.max(1),
  toolChanger: z.boolean(),
  dialect: z.enum(DIALECTS),
  /** Shanks that fit, mm. */
  collets: z.array(positive.max(60)).max(20),
  stiffness: z.enum(STIFFNESSES),
  /** Where the spindle waits while a bit is changed, on the table; null where it stops. */
  parking: z.object({ x: finite, y: finite, z: finite }).nullable(),
  /** Its rotary axis; null where it has none. */
  rotary: rotarySchema.nullable(),
  /** Most that its controller takes in one program; null is no limit. */
  programLimit: z.object({ lines: count.nullable(), bytes: count.nullable() }),
});
export type Machine = z.infer<typeof machineSchema>;

/** A collet closes by so much, mm (common practice, no source). */
const CLOSES = 0.05;

/** Whether a bit's shank fits one of a machine's collets; of a machine whose collets are not known every one is taken to fit. */
export const fitsCollet = (
  { collets }: Pick<Machine, 'collets'>,
  { shankDiameter }: Pick<Cutter, 'shankDiameter'>,
): boolean => collets.length === 0 || collets.some((c) => Math.abs(c - shankDiameter) <= CLOSES);
