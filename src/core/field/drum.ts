/**
 * What a field lies on when it lies around a drum: its y runs along the circle of this radius, so that the angle is y / radius, and its heights
 * count from that circle outwards. `rows` cells go once round; row j and row j + rows are the same ray.
 */
export interface Drum {
  /** mm. */
  radius: number;
  rows: number;
}

/** Width of the sheet that is wound around a drum, mm: pi times its diameter. */
export const unrolled = (radius: number): number => 2 * Math.PI * radius;

/** A coordinate along the circle brought into the first turn, mm. */
export function inTurn({ radius }: Pick<Drum, 'radius'>, y: number): number {
  const turn = unrolled(radius);
  const own = y - turn * Math.floor(y / turn);
  return own < turn ? own : 0;
}

/** The row of the first turn that a row is. */
export const rowInTurn = ({ rows }: Pick<Drum, 'rows'>, j: number): number => j - rows * Math.floor(j / rows);

/** How much narrower the sheet of a drum is at a height than at its circle; at least a twentieth of it. */
export const narrowed = ({ radius }: Pick<Drum, 'radius'>, z: number): number =>
  Math.max(0.05, Math.min(1, (radius + z) / radius));

/** How far round a drum, mm along its circle, a bit of radius R may meet rays when its tip is at height z; a quarter of a turn where that reaches the axis. */
export function reachRound({ radius }: Pick<Drum, 'radius'>, R: number, z: number): number {
  return radius * Math.atan2(R, Math.max(0, radius + z));
}
