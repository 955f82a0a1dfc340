type Point = { x: number; y: number };

/** Distance between a hole and the next one that is added, in diameters. */
const APART = 3;

/** Where one more hole is put: beside the last, or in the board's middle where the board ends before that. */
export function nextPlace(places: readonly Point[], diameter: number, board: Point): Point {
  const last = places.at(-1);
  const x = last && last.x + APART * diameter;
  return last && x !== undefined && x < board.x ? { x, y: last.y } : { x: board.x / 2, y: board.y / 2 };
}
