import type { Board } from '../doc/board';
import { shiftSetup } from '../doc/places';
import { clean } from '../units/round';
import { turningOf, zeroOf } from './frame';

/**
 * Gives a board another length or width, mm. What is on it keeps its place to the zero of its first setup, and each zero its place on the table: a
 * board that grows to its far right leaves a piece that is counted from its lower left corner where it was, and has a piece that is counted from its
 * middle in its middle. Round a drum only places along it are kept so; its sheet goes by its diameter.
 */
export function resizeBoard(board: Board, to: { x?: number; y?: number }): void {
  const was = { x: board.x, y: board.y, thickness: board.thickness };
  const wide = { ...was, ...to };
  const first = board.setups[0];
  if (first) {
    const moved = (s: Board['setups'][number]) => {
      const [a, b] = [zeroOf(was, s), zeroOf(wide, s)];
      return { x: b.x - a.x, y: b.y - a.y };
    };
    const by = moved(first);
    const about = turningOf(board).about;
    const behind = about === 'about-y' ? { x: wide.x - was.x - by.x, y: by.y } : { x: by.x, y: wide.y - was.y - by.y };
    for (const s of board.setups) {
      const zero = moved(s);
      s.place = { x: clean(s.place.x - zero.x), y: clean(s.place.y - zero.y) };
      const shift = s.up === first.up ? by : behind;
      shiftSetup(s, shift.x, shift.y);
    }
    const face = first.up === 'face' ? by : behind;
    board.openings = board.openings.map((p) => ({ x: clean(p.x + face.x), y: clean(p.y + face.y) }));
  }
  Object.assign(board, to);
}
