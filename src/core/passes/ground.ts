import { MASK, type Target } from '../arrange/target';
import { type Bounds, joinBounds } from '../outline/polygon';

/** What is known of the ground that passes have been planned on. */
export interface CutGround {
  /** How deep the board is to be cut anywhere, mm. */
  deepest: number;
  /** The box around the relief, board coordinates, mm; null where there is none. */
  relief: Bounds | null;
  /** Side of its cells, mm. */
  cell: number;
}

export function groundOf({ field, mask, outside }: Target): CutGround {
  const { width, height, cell, originX, originY } = field;
  let low = 0;
  let [west, east, south, north] = [width, -1, height, -1];
  for (let j = 0; j < height; j++) {
    for (let i = 0; i < width; i++) {
      const k = j * width + i;
      if (mask[k] !== MASK.keep && field.data[k] < low) low = field.data[k];
      if (outside[k] > 0) continue;
      if (i < west) west = i;
      if (i > east) east = i;
      if (j < south) south = j;
      if (j > north) north = j;
    }
  }
  const relief: Bounds = {
    x0: originX + (west - 0.5) * cell,
    x1: originX + (east + 0.5) * cell,
    y0: originY + (south - 0.5) * cell,
    y1: originY + (north + 0.5) * cell,
  };
  return { deepest: -low, relief: east < 0 ? null : relief, cell };
}

/** The ground of several plots together. */
export function joinGrounds(all: CutGround[]): CutGround {
  const reliefs = all.flatMap((g) => g.relief ?? []);
  return {
    deepest: Math.max(...all.map((g) => g.deepest)),
    relief: reliefs.length > 0 ? joinBounds(reliefs) : null,
    cell: Math.max(...all.map((g) => g.cell)),
  };
}
