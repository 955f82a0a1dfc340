import { printable } from '../cutter/cutter';
import { z } from '../units/zod';

// Lengths in mm, feeds in mm/min, accelerations in mm/s2, angles in degrees, unless a name says otherwise.
export const finite = z.number().finite();
export const positive = finite.positive();
export const size = positive.max(10_000);
export const id = z.string().min(1).max(64);
export const name = printable.trim().min(1).max(80);
/** A place or a distance from one: farther than any machine reaches counts as a slip of the keys. */
export const coordinate = finite.min(-10_000).max(10_000);
export const place = z.object({ x: coordinate, y: coordinate });
/** How a board is turned over to lie on its face: about the axis along its width (left to right), or about that along its length (near to far). */
export const FLIPS = ['about-y', 'about-x'] as const;
export type Flip = (typeof FLIPS)[number];

/** A board turned over: about which of its axes, and how far it reaches across that axis, mm. */
export interface Turning {
  about: Flip;
  over: number;
}

/** What a bit takes at once, downwards and sideways: less makes a program without an end of it. */
export const depthStep = finite.min(0.02).max(200);
export const LEAST_SIDE_STEP = 0.005;
export const sideStep = finite.min(LEAST_SIDE_STEP).max(200);

/** A file that the document names. */
export const fileParts = {
  /** Its name as the person knows it, and its content's SHA-256. */
  file: z.string().min(1).max(255),
  hash: z.string().regex(/^[0-9a-f]{64}$/, 'must be the SHA-256 of the file, 64 hex digits'),
};
