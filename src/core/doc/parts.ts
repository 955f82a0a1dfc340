import { z } from 'zod';

// Lengths in mm, feeds in mm/min, accelerations in mm/s2, angles in degrees, unless a name says otherwise.
export const finite = z.number().finite();
export const positive = finite.positive();
export const size = positive.max(10_000);
export const id = z.string().min(1).max(64);
export const name = z.string().trim().min(1).max(80);
export const place = z.object({ x: finite, y: finite });
