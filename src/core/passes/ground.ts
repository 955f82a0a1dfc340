import { MASK, type Target } from '../arrange/target';
import { cellPlace } from '../field/height-field';
import { piecesOf } from '../field/pieces';
import { type Bounds, joinBounds } from '../outline/polygon';

/** What is known of the ground that passes have been planned on. */
export interface CutGround {
  /** How deep the board is to be cut anywhere, mm. */
  deepest: number;
  /** The box around the relief, board coordinates, mm; null where there is none. */
  relief: Bounds | null;
  /** Side of its cells, mm. */
  cell: number;
  /** Board that stays standing at its own top with cleared ground all around it. */
  islands: Island[];
}

/** A piece of board within cleared ground: a place on it, its plan, mm2, and how far from the relief its middle lies, mm. */
export interface Island {
  x: number;
  y: number;
  area: number;
  far: number;
}

/** Cell of the coarse grid on which islands are looked for, and the least of them that counts, mm and mm2. */
const ISLAND_CELL = 0.4;
const LEAST_ISLAND = 1;

/** The islands of kept board in what is cleared, the largest first; what reaches the edge of the ground goes on beyond it. */
function islandsOf({ field, mask, outside }: Target): Island[] {
  const factor = Math.max(1, Math.round(ISLAND_CELL / field.cell));
  const [width, height] = [field.width, field.height].map((n) => Math.ceil(n / factor));
  const kept = new Uint8Array(width * height);
  const cellOf = (i: number, j: number) =>
    Math.min(field.height - 1, j * factor + (factor >> 1)) * field.width +
    Math.min(field.width - 1, i * factor + (factor >> 1));
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) if (mask[cellOf(i, j)] === MASK.keep) kept[j * width + i] = 1;
  const { of, parts } = piecesOf(kept, { width, height });
  const inner = parts.map(() => true);
  const middle = parts.map(() => ({ at: 0, far: -1 }));
  for (let k = 0; k < of.length; k++) {
    const part = of[k];
    if (part < 0) continue;
    const [i, j] = [k % width, Math.floor(k / width)];
    if (i === 0 || j === 0 || i === width - 1 || j === height - 1) inner[part] = false;
    const at = cellOf(i, j);
    if (outside[at] > middle[part].far) middle[part] = { at, far: outside[at] };
  }
  const area = (factor * field.cell) ** 2;
  return parts
    .flatMap(({ cells }, n): Island[] => {
      if (!inner[n] || cells * area < LEAST_ISLAND) return [];
      return [{ ...cellPlace(field, middle[n].at), area: cells * area, far: middle[n].far }];
    })
    .sort((a, b) => b.area - a.area);
}

export function groundOf(target: Target): CutGround {
  const { field, mask, outside } = target;
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
  return { deepest: -low, relief: east < 0 ? null : relief, cell, islands: islandsOf(target) };
}

/** The ground of several plots together. */
export function joinGrounds(all: CutGround[]): CutGround {
  const reliefs = all.flatMap((g) => g.relief ?? []);
  return {
    deepest: Math.max(...all.map((g) => g.deepest)),
    relief: reliefs.length > 0 ? joinBounds(reliefs) : null,
    cell: Math.max(...all.map((g) => g.cell)),
    islands: all.flatMap((g) => g.islands).sort((a, b) => b.area - a.area),
  };
}
