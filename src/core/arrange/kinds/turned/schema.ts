import { z } from '../../../units/zod';

const finite = z.number().finite();
const count = z.number().int().min(1).max(200);
/** Angle of a V, between its walls, degrees. */
const vee = finite.min(10).max(170);

/**
 * What a drum is given, worked out from its own radius: all heights are depths below the blank's circle, exact on the rays of the drum. The layer's
 * rise is its deepest, its length how far it reaches along the axis; all but flats go all round the drum, and none is turned on the sheet.
 */
export const turnedFormSchema = z.discriminatedUnion('kind', [
  /** Turned down evenly, as a tenon is. */
  z.object({ kind: z.literal('cylinder') }),
  /** A contour along the axis: how deep, as a share of the rise, at shares of the length; straight between, or curved through them. */
  z.object({
    kind: z.literal('contour'),
    points: z
      .array(z.object({ along: finite.min(0).max(1), down: finite.min(0).max(1) }))
      .min(2)
      .max(60),
    curved: z.boolean(),
  }),
  /** Round rings one after the other along the axis. */
  z.object({ kind: z.literal('beads'), count }),
  /** A flat that lies square to the ray through the layer's middle; its rise is how far that ray is shortened. */
  z.object({ kind: z.literal('flat') }),
  /** Grooves along the axis, evenly round the drum, each turned round it by `twist` degrees over its length. */
  z.object({
    kind: z.literal('flutes'),
    count,
    twist: finite.min(-3600).max(3600),
    section: z.discriminatedUnion('kind', [
      z.object({ kind: z.literal('ball'), radius: finite.positive().max(200) }),
      z.object({ kind: z.literal('vee'), angle: vee }),
    ]),
  }),
  /** V grooves that cross each other, as many each way, at `slant` degrees from the axis. */
  z.object({ kind: z.literal('knurl'), count, slant: finite.min(5).max(80), angle: vee }),
]);
export type TurnedForm = z.infer<typeof turnedFormSchema>;

export const turnedSourceSchema = z.object({ kind: z.literal('turned'), form: turnedFormSchema });
export type TurnedSource = z.infer<typeof turnedSourceSchema>;
