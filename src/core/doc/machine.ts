import { type Cutter, feedRate } from '../cutter/cutter';
import { z } from '../units/zod';
import { finite, id, name, positive, size } from './parts';

const axes = <T extends z.ZodType>(figure: T) => z.object({ x: figure, y: figure, z: figure });
const count = z.number().int().positive();

/** How programs are written for its controller; what each of them is stands in program/dialects. */
export const DIALECTS = ['rs274', 'rs274-lines', 'rs274-numbered'] as const;
export const STIFFNESSES = ['weak', 'usual', 'heavy'] as const;
export const ROTARY = ['none', 'along-x', 'along-y'] as const;

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
  /** The way that a rotary axis lies on the table. */
  rotary: z.enum(ROTARY),
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
