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

/** How high a bit travels over a drum at least where it may come over what holds it: jaws stand higher than the blank (common practice, no source), mm. */
const OVER_CHUCK = 20;

/** Makes a drum of a board, its diameter twice the board's thickness where none is said; bits travel over what holds it. */
export function makeDrum(board: Board, diameter = 2 * board.thickness): void {
  Object.assign(board, asDrum(diameter));
  for (const { heights } of board.setups) heights.everything = Math.max(heights.everything, OVER_CHUCK);
}
