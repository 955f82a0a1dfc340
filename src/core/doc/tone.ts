import { z } from '../units/zod';

const unit = z.number().finite().min(0).max(1);

/** How an image's tones become heights, in the order in which it is done. */
export const toneSchema = z
  .object({
    /** Rounds of a 3 x 3 median. */
    noise: z.number().int().min(0).max(5),
    /** Takes the steps of an image of few levels out. */
    terraces: z.boolean(),
    /** Radius in pixels over which small differences are smoothed while edges stay; 0 is off. */
    smooth: z.number().finite().min(0).max(50),
    /** Differences below this are smoothed, as a share of white. */
    smoothBelow: z.number().finite().min(0.001).max(1),
    /** Tones that become the lowest and the highest. */
    black: unit,
    white: unit,
    gamma: z.number().finite().min(0.1).max(10),
    invert: z.boolean(),
    /** What counts as background and is left out. */
    cutout: z.object({
      /** Tones up to this (or from this, when `light`) are background; null is off. */
      threshold: unit.nullable(),
      light: z.boolean(),
      /** Strokes of a brush over the picture, in shares of its width and height from its upper left. */
      strokes: z
        .array(
          z.object({
            keep: z.boolean(),
            /** Radius as a share of the picture's width. */
            radius: z.number().finite().min(0.001).max(0.5),
            points: z
              .array(z.tuple([z.number().finite(), z.number().finite()]))
              .min(1)
              .max(2000),
          }),
        )
        .max(200),
    }),
  })
  .refine((t) => t.white > t.black, { message: 'white must be lighter than black', path: ['white'] });
export type Tone = z.infer<typeof toneSchema>;

export const PLAIN_TONE: Tone = {
  noise: 0,
  terraces: false,
  smooth: 0,
  smoothBelow: 0.1,
  black: 0,
  white: 1,
  gamma: 1,
  invert: false,
  cutout: { threshold: null, light: false, strokes: [] },
};
