import { unrolled } from '../field/drum';
import { clean } from '../units/round';
import type { Board, DrumStock } from './board';

/** A drum that is held over two lengths, mm, with nothing glued on and no collar. */
export const heldOver = (chuck: number, tailStock: number): DrumStock => ({
  chuck,
  tailStock,
  extended: { chuck: 0, tailStock: 0 },
  collar: null,
});

/** Lengths that chuck and tail stock hold as a rule, mm (common practice, no source). */
const HELD = heldOver(30, 20);

/** Width of the sheet of a drum of a radius, as a document holds it, mm. */
export const sheetOf = (radius: number): number => clean(unrolled(radius));

/** The figures of a board that is a drum of a diameter: its sheet as wide as it is round. */
export const asDrum = (diameter: number, held: DrumStock = HELD): Pick<Board, 'y' | 'thickness' | 'drum'> => ({
  y: sheetOf(diameter / 2),
  thickness: clean(diameter / 2),
  drum: structuredClone(held),
});

/** How high a bit travels over a drum at least where it may come over what holds it: jaws stand higher than the blank (common practice, no source), mm. */
const OVER_CHUCK = 20;

/** Makes a drum of a board, its diameter twice the board's thickness where none is said; bits travel over what holds it. */
export function makeDrum(board: Board, diameter = 2 * board.thickness): void {
  Object.assign(board, asDrum(diameter));
  for (const { heights } of board.setups) heights.everything = Math.max(heights.everything, OVER_CHUCK);
}

/** A stretch of a drum that is not carved, and what keeps it, mm from its left end. */
export interface KeptStretch {
  what: 'chuck' | 'tail stock' | 'extension' | 'collar';
  from: number;
  to: number;
}

/** The stretches of a drum that are not carved: what holds it, what is glued on to hold it by, and its collar. None on a board. */
export function keptOf({ drum, x }: Pick<Board, 'drum' | 'x'>): KeptStretch[] {
  if (!drum) return [];
  const { chuck, tailStock, extended, collar } = drum;
  const all: KeptStretch[] = [
    { what: 'chuck', from: 0, to: chuck },
    { what: 'tail stock', from: x - tailStock, to: x },
    { what: 'extension', from: chuck, to: extended.chuck },
    { what: 'extension', from: x - extended.tailStock, to: x - tailStock },
  ];
  if (collar) all.push({ what: 'collar', from: collar.x - collar.width / 2, to: collar.x + collar.width / 2 });
  return all.filter((k) => k.to > k.from);
}

/** The stretch of a drum between what holds it and what is glued on, mm from its left end. */
export function freeOf({ drum, x }: Pick<Board, 'drum' | 'x'>): [from: number, to: number] {
  if (!drum) return [0, x];
  return [Math.max(drum.chuck, drum.extended.chuck), x - Math.max(drum.tailStock, drum.extended.tailStock)];
}
