import { contourRings, type Ring, simplifyRing } from '../field/contours';
import type { HeightField } from '../field/height-field';
import type { Wood } from './wood';

/** One level to be cleared. */
export interface Level {
  z: number;
  /** Distance in cells from each cell of the grid to the nearest place where the tip may not be; 0 there. */
  depth: Float32Array;
  grid: Omit<HeightField, 'data'>;
  /** What stands meanwhile, and the shortest way through air over which a hop is quicker, mm. */
  wood: Wood;
  hop: number;
}

/** A closed loop in board coordinates, x y pairs. */
export interface Loop {
  xy: Ring;
  done: boolean;
  /** Whether the bit has been all round it; it is done also where nothing stood on it. */
  been: boolean;
}

/** Where the outermost ring runs: half a cell inside the first cell that is forbidden. */
export const RIM = 0.5;

/** Whether a way is shorter than `most`, mm. Its square tells nearly always, and is sooner worked out than its length. */
export function within(dx: number, dy: number, most: number): boolean {
  const [square, of] = [dx * dx + dy * dy, most * most];
  if (square < of * (1 - 1e-12)) return true;
  return square <= of * (1 + 1e-12) && Math.hypot(dx, dy) < most;
}

/** Vertices of loops by place, to find what lies near a point. */
export class Near {
  private readonly cells = new Map<number, { loop: Loop; x: number; y: number; i: number }[]>();
  constructor(private readonly size: number) {}

  private key(x: number, y: number): number {
    return Math.floor(x / this.size) * 65536 + Math.floor(y / this.size);
  }
  add(loop: Loop): void {
    const { xy } = loop;
    const n = xy.length / 2;
    for (let i = 0; i < n; i++) {
      const k = (i + 1) % n;
      const [ax, ay, bx, by] = [xy[2 * i], xy[2 * i + 1], xy[2 * k], xy[2 * k + 1]];
      const parts = Math.max(1, Math.ceil(Math.hypot(bx - ax, by - ay) / (this.size / 2)));
      for (let s = 0; s < parts; s++) {
        const x = ax + ((bx - ax) * s) / parts;
        const y = ay + ((by - ay) * s) / parts;
        const key = this.key(x, y);
        const list = this.cells.get(key);
        const entry = { loop, x, y, i };
        if (list) list.push(entry);
        else this.cells.set(key, [entry]);
      }
    }
  }
  /** Nearest vertex within `radius` (at most the size of a cell) whose loop passes the test. */
  nearest(x: number, y: number, radius: number, test: (l: Loop) => boolean) {
    let best: { loop: Loop; x: number; y: number; i: number } | undefined;
    let least = radius;
    for (let b = -1; b <= 1; b++) {
      for (let a = -1; a <= 1; a++) {
        const list = this.cells.get(this.key(x + a * this.size, y + b * this.size));
        if (!list) continue;
        for (const e of list) {
          if (!within(e.x - x, e.y - y, least) || !test(e.loop)) continue;
          least = Math.hypot(e.x - x, e.y - y);
          best = e;
        }
      }
    }
    return best;
  }
}

/** Loops at distance 0, s, 2 s ... from the walls, outermost first; tiny ones, which could only be drilled, are left out. */
export function loopsOf(level: Level, stepover: number, tolerance: number, rings: number): Loop[][] {
  const { grid, depth } = level;
  const values = new Float32Array(depth.length);
  for (let k = 0; k < values.length; k++) {
    const v = ((depth[k] - RIM) * grid.cell) / stepover + 1e-4;
    // Only the rings asked for: with a ceiling just under the next whole number no more are traced.
    values[k] = Math.min(v, rings - 1e-3);
  }
  return contourRings(values, grid.width, grid.height).map((list) =>
    list
      .map((r) => {
        const out = simplifyRing(r, tolerance / grid.cell);
        for (let i = 0; i < out.length; i += 2) {
          out[i] = grid.originX + out[i] * grid.cell;
          out[i + 1] = grid.originY + out[i + 1] * grid.cell;
        }
        return { xy: out, done: false, been: false };
      })
      .filter((l) => l.xy.length >= 6),
  );
}
