import { unrolled } from '../field/drum';
import { clean } from '../units/round';
import type { Board, DrumStock } from './board';

/** Lengths that chuck and tail stock hold as a rule, mm (common practice, no source). */
const HELD: DrumStock = { chuck: 30, tailStock: 20 };

/** Width of the sheet of a drum of a radius, as a document holds it, mm. */
export const sheetOf = (radius: number): number => clean(unrolled(radius));

/** The figures of a board that is a drum of a diameter: its sheet as wide as it is round. */
export const asDrum = (diameter: number, held: DrumStock = HELD): Pick<Board, 'y' | 'thickness' | 'drum'> => ({
  y: sheetOf(diameter / 2),
  thickness: clean(diameter / 2),
  drum: { ...held },
});
