import { z } from '../units/zod';
import { gapSchema, layerSchema, seatSchema } from './layer';
import { finite, id, name, place, positive } from './parts';
import { passSchema } from './pass';

export const ORIGINS = ['lower-left', 'lower-right', 'upper-left', 'upper-right', 'centre'] as const;
export type Origin = (typeof ORIGINS)[number];

/** Side of the board that is up. */
export const SIDES = ['face', 'back'] as const;
export type Side = (typeof SIDES)[number];

/** Tip heights over the wood, mm. */
export const heightsSchema = z.object({
  /** Over what stands, where a rapid turns into a feed. */
  approach: positive.max(500),
  /** Over what stands, on the way from one area to the next. */
  between: positive.max(500),
  /** Over the board's top, where a pass begins and ends: above everything that holds it. */
  everything: positive.max(500),
});
export type Heights = z.infer<typeof heightsSchema>;

export const HOLDINGS = ['clamp', 'screw', 'tape', 'film', 'vacuum'] as const;

/** What holds the board, and is to be kept free. */
export const holdingSchema = z.object({
  id,
  kind: z.enum(HOLDINGS),
  /** Its corners, setup coordinates. */
  outline: z.array(place).min(1).max(200),
  /** Over the board's top; 0 for tape, film and vacuum. */
  height: finite.min(0).max(500),
  /** How far around it nothing is to run. */
  keptFree: finite.min(0).max(500),
});
export type Holding = z.infer<typeof holdingSchema>;

/** What zero is found by again, setup coordinates. */
export const referencesSchema = z.object({
  /** A cross marked on the board; null when there is none. */
  cross: place.nullable(),
  /** Witness ticks in board that stays. */
  ticks: z.array(place).max(20),
  /** Uncut spots to touch Z off on. */
  spots: z.array(place).max(20),
});

/**
 * How a setup finds the place that the board had in those before it: not at all, on dowels through holes of theirs, against a fence, or with its pieces
 * laid into a jig, which is a board of its own.
 */
export const REGISTERS = ['none', 'dowels', 'fence', 'jig'] as const;
export type Register = (typeof REGISTERS)[number];

/** One clamping of a board. Its coordinates count from the lower left corner and the top of the board as it lies. */
export const setupSchema = z.object({
  id,
  name,
  up: z.enum(SIDES),
  zero: z.object({ origin: z.enum(ORIGINS), z: z.enum(['top', 'bed']) }),
  /** Where the board's lower left corner lies on the machine's table. */
  place,
  /** Thickness of the spoilboard under it; null when there is none. */
  spoilboard: positive.max(200).nullable(),
  heights: heightsSchema,
  holding: z.array(holdingSchema).max(100),
  references: referencesSchema,
  register: z.enum(REGISTERS),
  /** From the lowest to the highest: each joins what lies beneath it. */
  layers: z.array(layerSchema).max(300),
  /** Distances between layers that are kept when either moves. */
  gaps: z.array(gapSchema).max(200),
  seat: seatSchema,
  passes: z.array(passSchema).max(40),
});
export type Setup = z.infer<typeof setupSchema>;
